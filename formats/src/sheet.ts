import type { Color, LineCapStyle, PDFDocument, PDFFont, PDFPage } from "@cantoo/pdf-lib";

/** A table of a sheet; the first row names its columns. */
export interface SheetTable {
  readonly heading: string;
  readonly rows: readonly (readonly string[])[];
  /** How wide its columns are beside each other; alike where left out. */
  readonly widths?: readonly number[];
  /** Sentences below it. */
  readonly says?: readonly string[];
}

/** What a printed sheet holds; core plans it, this file sets it in type. */
export interface Sheet {
  readonly title: string;
  readonly subtitle: string;
  readonly pairs: readonly {
    readonly heading: string;
    readonly rows: readonly (readonly [string, string])[];
  }[];
  readonly tables: readonly SheetTable[];
  readonly notes: readonly string[];
}

/** A side of a board in line art, mm. */
export interface SheetPicture {
  readonly side: string;
  readonly box: readonly [number, number, number, number];
  readonly outline: readonly (readonly number[])[];
  readonly openings: readonly (readonly number[])[];
  readonly legend: readonly { readonly width: number; readonly lines: readonly number[] }[];
  readonly holes: readonly { readonly x: number; readonly y: number; readonly d: number }[];
  readonly slots: readonly { readonly points: readonly (readonly [number, number])[]; readonly d: number }[];
}

const PAGE: [number, number] = [595.28, 841.89];
const MARGIN = 48;
/** A colour as the package writes it; built here so that the package itself is loaded only when a sheet is set. */
function grey(red: number, green: number, blue: number): Color {
  return { type: "RGB" as Color["type"], red, green, blue } as Color;
}
/** Round ends of a line, as the page format numbers them. */
const ROUND = 1 as LineCapStyle;
const INK = grey(0.1, 0.14, 0.18);
const SOFT = grey(0.42, 0.46, 0.5);
const RULE = grey(0.75, 0.72, 0.66);
const OPEN = grey(0.78, 0.78, 0.78);

/**
 * Sets a sheet on A4 that fits Letter too, good in black and white. Characters the built-in faces lack are replaced.
 *
 * @param created time written into the file, so that the same input gives the same bytes
 */
export async function writeSheet(
  sheet: Sheet,
  pictures: readonly SheetPicture[],
  created: Date,
): Promise<Uint8Array> {
  // the type setter is large: other commands start in a blink without it
  const { PDFDocument, StandardFonts } = await import("@cantoo/pdf-lib");
  const doc = await PDFDocument.create();
  doc.setTitle(sheet.title);
  doc.setProducer("Kobbin");
  doc.setCreator("Kobbin");
  doc.setCreationDate(created);
  doc.setModificationDate(created);
  const setter = new Setter(
    doc,
    await doc.embedFont(StandardFonts.Helvetica),
    await doc.embedFont(StandardFonts.HelveticaBold),
  );
  setter.text(sheet.title, 18, true);
  setter.text(sheet.subtitle, 9.5, false, SOFT);
  setter.space(8);
  if (sheet.pairs.length > 0) setter.pairs(sheet.pairs);
  if (pictures.length > 0) setter.pictures(pictures);
  for (const t of sheet.tables) setter.table(t);
  for (const n of sheet.notes) setter.text(`-  ${n}`, 9.5);
  return doc.save({ useObjectStreams: false });
}

class Setter {
  private page: PDFPage;
  private y = PAGE[1] - MARGIN;
  private readonly doc: PDFDocument;
  private readonly plain: PDFFont;
  private readonly bold: PDFFont;

  constructor(doc: PDFDocument, plain: PDFFont, bold: PDFFont) {
    this.doc = doc;
    this.plain = plain;
    this.bold = bold;
    this.page = doc.addPage(PAGE);
  }

  space(h: number): void {
    this.y -= h;
  }

  private room(h: number): void {
    if (this.y - h < MARGIN) {
      this.page = this.doc.addPage(PAGE);
      this.y = PAGE[1] - MARGIN;
    }
  }

  text(text: string, size: number, bold = false, color = INK): void {
    const font = bold ? this.bold : this.plain;
    for (const line of wrap(printable(text), font, size, PAGE[0] - 2 * MARGIN)) {
      this.room(size * 1.35);
      this.y -= size * 1.25;
      this.page.drawText(line, { x: MARGIN, y: this.y, size, font, color });
    }
  }

  pairs(groups: Sheet["pairs"]): void {
    const width = (PAGE[0] - 2 * MARGIN - 24) / Math.max(1, Math.min(2, groups.length));
    const top = this.y;
    let lowest = top;
    groups.slice(0, 2).forEach((g, i) => {
      const x = MARGIN + i * (width + 24);
      let y = top - 12;
      this.page.drawText(printable(g.heading), { x, y, size: 10.5, font: this.bold, color: INK });
      for (const [key, value] of g.rows) {
        const lines = wrap(printable(value), this.plain, 9.5, width - 108);
        y -= 14;
        this.page.drawText(printable(key), { x, y, size: 9.5, font: this.plain, color: SOFT });
        lines.forEach((l, k) => {
          if (k > 0) y -= 11.5;
          this.page.drawText(l, { x: x + 108, y, size: 9.5, font: this.plain, color: INK });
        });
        this.page.drawLine({
          start: { x, y: y - 3.5 },
          end: { x: x + width, y: y - 3.5 },
          thickness: 0.4,
          color: RULE,
        });
      }
      lowest = Math.min(lowest, y);
    });
    this.y = lowest - 20;
  }

  table({ heading, rows, widths, says = [] }: SheetTable): void {
    this.text(heading, 10.5, true);
    const columns = rows[0]?.length ?? 1;
    const room = PAGE[0] - 2 * MARGIN;
    const share = widths ?? Array.from({ length: columns }, () => 1);
    const all = share.reduce((n, w) => n + w, 0);
    const wide = share.map((w) => (room * w) / all);
    const from = wide.map((_, i) => wide.slice(0, i).reduce((n, w) => n + w, MARGIN));
    rows.forEach((r, n) => {
      const cells = r.map((c, i) => wrap(printable(c), this.plain, 9, wide[i]! - 6));
      const height = Math.max(...cells.map((c) => c.length)) * 11 + 3;
      this.room(height);
      cells.forEach((lines, i) => {
        lines.forEach((l, k) => {
          this.page.drawText(l, {
            x: from[i]!,
            y: this.y - 10 - k * 11,
            size: 9,
            font: n === 0 ? this.bold : this.plain,
            color: n === 0 ? SOFT : INK,
          });
        });
      });
      this.y -= height;
    });
    for (const t of says) this.text(t, 9);
    this.space(8);
  }

  pictures(list: readonly SheetPicture[]): void {
    const room = PAGE[0] - 2 * MARGIN;
    const [x0, , x1] = list[0]!.box;
    const height = list[0]!.box[3] - list[0]!.box[1];
    const wide = x1 - x0;
    const perRow = list.length > 1 && wide < height * 2.4 ? 2 : 1;
    const scale = Math.min((room - (perRow - 1) * 20) / perRow / wide, 300 / height, 8);
    const rows = Math.ceil(list.length / perRow);
    for (let r = 0; r < rows; r++) {
      this.room(height * scale + 26);
      const top = this.y;
      list.slice(r * perRow, r * perRow + perRow).forEach((p, i) => {
        this.picture(p, MARGIN + i * (wide * scale + 20), top - height * scale, scale);
        this.page.drawText(printable(p.side), {
          x: MARGIN + i * (wide * scale + 20),
          y: top - height * scale - 12,
          size: 9,
          font: this.plain,
          color: SOFT,
        });
      });
      this.y = top - height * scale - 24;
    }
  }

  private picture(p: SheetPicture, x: number, y: number, scale: number): void {
    // drawSvgPath turns the y axis: a path is written with y downward from the anchor
    const [bx, by] = p.box;
    const px = (v: number) => ((v - bx) * scale).toFixed(2);
    const py = (v: number) => (-(v - by) * scale).toFixed(2);
    const ring = (r: readonly number[]) => {
      const step = Math.max(1, Math.floor(r.length / 2 / 240));
      const out: string[] = [];
      for (let i = 0; i < r.length; i += 2 * step)
        out.push(`${out.length === 0 ? "M" : "L"}${px(r[i]!)} ${py(r[i + 1]!)}`);
      return `${out.join(" ")} Z`;
    };
    const at = { x, y };
    for (const o of chunks(p.openings, 200))
      this.page.drawSvgPath(o.map(ring).join(" "), { ...at, color: OPEN });
    for (const o of p.outline) this.page.drawSvgPath(ring(o), { ...at, borderColor: INK, borderWidth: 0.8 });
    for (const l of p.legend)
      for (const part of chunks(l.lines, 1600)) {
        const path: string[] = [];
        for (let i = 0; i + 3 < part.length; i += 4)
          path.push(`M${px(part[i]!)} ${py(part[i + 1]!)} L${px(part[i + 2]!)} ${py(part[i + 3]!)}`);
        if (path.length > 0)
          this.page.drawSvgPath(path.join(" "), {
            ...at,
            borderColor: INK,
            borderWidth: Math.max(0.25, l.width * scale),
          });
      }
    for (const h of p.holes)
      this.page.drawCircle({
        x: x + (h.x - bx) * scale,
        y: y + (h.y - by) * scale,
        size: (h.d / 2) * scale,
        color: grey(1, 1, 1),
        borderColor: INK,
        borderWidth: 0.3,
      });
    for (const s of p.slots) {
      const path = s.points.map(([a, b], i) => `${i === 0 ? "M" : "L"}${px(a)} ${py(b)}`).join(" ");
      this.page.drawSvgPath(path, {
        ...at,
        borderColor: INK,
        borderWidth: s.d * scale + 0.6,
        borderLineCap: ROUND,
      });
      this.page.drawSvgPath(path, {
        ...at,
        borderColor: grey(1, 1, 1),
        borderWidth: s.d * scale,
        borderLineCap: ROUND,
      });
    }
  }
}

function chunks<T>(list: readonly T[], size: number): T[][] {
  const out: T[][] = [];
  for (let i = 0; i < list.length; i += size) out.push(list.slice(i, i + size));
  return out;
}

const SUBSTITUTES: Readonly<Record<string, string>> = {
  "\u2126": "Ohm",
  "\u03a9": "Ohm",
  "\u03bc": "\u00b5",
  "\u2212": "-",
  "\u2265": ">=",
  "\u2264": "<=",
  "\u2192": "->",
  "\u2009": " ",
  "\u202f": " ",
};
/** Text as the built-in faces can set it (Windows-1252); the rest becomes a question mark, never an error. */
const printable = (text: string) =>
  [...text.replace(/[\r\n\t]+/g, " ")]
    .map(
      (c) =>
        SUBSTITUTES[c] ??
        (/^[\u0020-\u007e\u00a0-\u00ff\u2013\u2014\u2018\u2019\u201c\u201d\u2022\u2026\u20ac]$/.test(c)
          ? c
          : "?"),
    )
    .join("");

function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const out: string[] = [];
  let line = "";
  for (const word of text.split(" ")) {
    let rest = word;
    while (font.widthOfTextAtSize(rest, size) > width && rest.length > 1) {
      let n = rest.length - 1;
      while (n > 1 && font.widthOfTextAtSize(rest.slice(0, n), size) > width) n--;
      if (line !== "") out.push(line);
      out.push(rest.slice(0, n));
      line = "";
      rest = rest.slice(n);
    }
    const next = line === "" ? rest : `${line} ${rest}`;
    if (font.widthOfTextAtSize(next, size) > width) {
      out.push(line);
      line = rest;
    } else line = next;
  }
  return [...out, line];
}
