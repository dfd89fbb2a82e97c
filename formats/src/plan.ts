import type { Color, PDFFont, PDFPage, Rotation } from "@cantoo/pdf-lib";

/** A drawing to scale, in mm, y up; core plans it. */
export interface PlanDrawing {
  readonly title: string;
  readonly subtitle: string;
  readonly box: readonly [number, number, number, number];
  readonly areas: readonly {
    readonly rings: readonly (readonly number[])[];
    readonly tone: "board" | "frame" | "hole" | "none";
  }[];
  readonly lines: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly kind: "edge" | "score" | "dimension" | "guide";
  }[];
  readonly circles: readonly {
    readonly x: number;
    readonly y: number;
    readonly d: number;
    readonly isFilled?: boolean;
  }[];
  readonly texts: readonly {
    readonly x: number;
    readonly y: number;
    readonly mm: number;
    readonly text: string;
    readonly isMiddle?: boolean;
    readonly isUpright?: boolean;
  }[];
  readonly barMm?: number;
  readonly notes: readonly string[];
}

const POINT = 72 / 25.4;
const A4 = [210, 297] as const;
const MARGIN_MM = 12;
const HEAD_MM = 16;
const TONES = { board: 0.94, frame: 0.86, hole: 1, none: 1 } as const;
const WEIGHTS_MM = { edge: 0.25, score: 0.18, dimension: 0.12, guide: 0.15 } as const;
const DASHES: Readonly<Record<string, readonly [number, number] | undefined>> = {
  score: [3, 1.2],
  guide: [1, 1],
};

/**
 * A plan as a page. One to one it takes A4 where it fits, upright or lying, else a page of its own size; otherwise it is
 * made smaller to fit A4, and says so.
 *
 * @param created time written into the file, so that the same input gives the same bytes
 */
export async function writePlan(plan: PlanDrawing, created: Date, isTrueSize = false): Promise<Uint8Array> {
  // the type setter is large: what draws nothing starts without it
  const { PDFDocument, StandardFonts, degrees } = await import("@cantoo/pdf-lib");
  const doc = await PDFDocument.create();
  doc.setTitle(plan.title);
  doc.setProducer("Kobbin");
  doc.setCreator("Kobbin");
  doc.setCreationDate(created);
  doc.setModificationDate(created);
  const plain = await doc.embedFont(StandardFonts.Helvetica);
  const bold = await doc.embedFont(StandardFonts.HelveticaBold);
  const frame = frameOf(plan, isTrueSize, plain);
  const page = doc.addPage([frame.size[0] * POINT, frame.size[1] * POINT]);
  const table = new Table(page, frame, plain, degrees(90));
  table.head(plan, bold);
  for (const a of plan.areas) table.area(a);
  for (const l of plan.lines) table.line(l);
  for (const c of plan.circles) table.circle(c);
  for (const t of plan.texts) table.text(t);
  table.foot(plan);
  return doc.save({ useObjectStreams: false });
}

/** The page a plan goes on, and how its millimetres lie there. */
interface PageFrame {
  readonly size: readonly [number, number];
  readonly scale: number;
  readonly left: number;
  readonly top: number;
  readonly box: PlanDrawing["box"];
}

/** Lines a note takes at the foot of a page, and how far one is below the other, mm. */
const NOTE_MM = 4.6;
const linesOf = (note: string, font: PDFFont, widthMm: number): number =>
  Math.max(1, Math.ceil(font.widthOfTextAtSize(printable(note), 8) / (widthMm * POINT)));

function frameOf(plan: PlanDrawing, isTrueSize: boolean, font: PDFFont): PageFrame {
  const [x0, y0, x1, y1] = plan.box;
  const [w, h] = [x1 - x0, y1 - y0];
  // on a page that is wider they take no more lines than on an upright one
  const lines = plan.notes.reduce((n, note) => n + linesOf(note, font, A4[0] - 2 * MARGIN_MM), 0);
  const foot = 6 + lines * NOTE_MM + (plan.barMm ? 9 : 0);
  const needs = [w + 2 * MARGIN_MM, h + 2 * MARGIN_MM + HEAD_MM + foot] as const;
  const lying = [A4[1], A4[0]] as const;
  const fits = [A4, lying].find((p) => needs[0] <= p[0] && needs[1] <= p[1]);
  const size = fits ?? (isTrueSize ? needs : w > h ? lying : A4);
  const scale =
    fits || isTrueSize
      ? 1
      : Math.min((size[0] - 2 * MARGIN_MM) / w, (size[1] - 2 * MARGIN_MM - HEAD_MM - foot) / h);
  return {
    size,
    scale,
    left: MARGIN_MM + (size[0] - 2 * MARGIN_MM - w * scale) / 2,
    top: size[1] - MARGIN_MM - HEAD_MM,
    box: plan.box,
  };
}

const grey = (v: number): Color => ({ type: "RGB" as Color["type"], red: v, green: v, blue: v }) as Color;

/** Draws a plan's pieces onto its page. */
class Table {
  private readonly page: PDFPage;
  private readonly f: PageFrame;
  private readonly plain: PDFFont;
  private readonly upright: Rotation;

  constructor(page: PDFPage, f: PageFrame, plain: PDFFont, upright: Rotation) {
    this.page = page;
    this.f = f;
    this.plain = plain;
    this.upright = upright;
  }

  private px(x: number): number {
    return (this.f.left + (x - this.f.box[0]) * this.f.scale) * POINT;
  }

  private py(y: number): number {
    return (this.f.top - (this.f.box[3] - y) * this.f.scale) * POINT;
  }

  head(plan: PlanDrawing, bold: PDFFont): void {
    const { size, scale } = this.f;
    const said = scale === 1 ? "one to one" : `not to scale: drawn ${Math.round(scale * 100)} %`;
    const at = (down: number) => ({ x: MARGIN_MM * POINT, y: (size[1] - MARGIN_MM - down) * POINT });
    this.page.drawText(printable(plan.title), { ...at(5), size: 14, font: bold, color: grey(0.1) });
    const line = printable(`${plan.subtitle}; ${said}`);
    this.page.drawText(line, { ...at(10.5), size: 9, font: this.plain, color: grey(0.4) });
  }

  area(a: PlanDrawing["areas"][number]): void {
    // the path is given y down from the page's corner
    const d = a.rings
      .map((r) => {
        const p: string[] = [];
        for (let i = 0; i < r.length; i += 2)
          p.push(`${i === 0 ? "M" : "L"}${this.px(r[i]!).toFixed(3)} ${(-this.py(r[i + 1]!)).toFixed(3)}`);
        return `${p.join("")}Z`;
      })
      .join("");
    this.page.drawSvgPath(d, {
      x: 0,
      y: 0,
      borderColor: grey(0.1),
      borderWidth: WEIGHTS_MM.edge * POINT,
      ...(a.tone === "none" ? {} : { color: grey(TONES[a.tone]) }),
    });
  }

  line(l: PlanDrawing["lines"][number]): void {
    const dash = DASHES[l.kind];
    this.page.drawLine({
      start: { x: this.px(l.x1), y: this.py(l.y1) },
      end: { x: this.px(l.x2), y: this.py(l.y2) },
      thickness: WEIGHTS_MM[l.kind] * POINT,
      color: grey(l.kind === "edge" ? 0.1 : 0.3),
      ...(dash ? { dashArray: dash.map((v) => v * POINT) } : {}),
    });
  }

  circle(c: PlanDrawing["circles"][number]): void {
    this.page.drawCircle({
      x: this.px(c.x),
      y: this.py(c.y),
      size: (c.d / 2) * this.f.scale * POINT,
      borderColor: grey(0.1),
      borderWidth: 0.15 * POINT,
      color: grey(c.isFilled ? 0.1 : 1),
    });
  }

  text(t: PlanDrawing["texts"][number]): void {
    const size = Math.max(t.mm < 2 ? 3 : 5, t.mm * this.f.scale * POINT);
    const words = printable(t.text);
    const half = t.isMiddle ? this.plain.widthOfTextAtSize(words, size) / 2 : 0;
    this.page.drawText(words, {
      x: this.px(t.x) - (t.isUpright ? 0 : half),
      y: this.py(t.y) - (t.isUpright ? half : 0),
      size,
      font: this.plain,
      color: grey(0.1),
      ...(t.isUpright ? { rotate: this.upright } : {}),
    });
  }

  /** The bar that checks the printer, and the notes. */
  foot(plan: PlanDrawing): void {
    const { size, scale, top, box } = this.f;
    let y = top - (box[3] - box[1]) * scale - 5;
    if (plan.barMm) {
      y -= 4;
      const line = (x1: number, y1: number, x2: number, y2: number) =>
        this.page.drawLine({
          start: { x: x1 * POINT, y: y1 * POINT },
          end: { x: x2 * POINT, y: y2 * POINT },
          thickness: 0.6,
          color: grey(0.1),
        });
      const end = MARGIN_MM + plan.barMm;
      line(MARGIN_MM, y, end, y);
      for (const x of [MARGIN_MM, end]) line(x, y - 1.5, x, y + 1.5);
      this.small(`${plan.barMm} mm: measure this bar before you trust the print`, end + 3, y - 1);
      y -= 5;
    }
    const width = size[0] - 2 * MARGIN_MM;
    for (const n of plan.notes) {
      this.small(n, MARGIN_MM, y, width * POINT);
      y -= NOTE_MM * linesOf(n, this.plain, width);
    }
  }

  private small(text: string, x: number, y: number, maxWidth?: number): void {
    this.page.drawText(printable(text), {
      x: x * POINT,
      y: y * POINT,
      size: 8,
      font: this.plain,
      color: grey(0.2),
      ...(maxWidth ? { maxWidth, lineHeight: 10 } : {}),
    });
  }
}

/** Letters the built-in faces have. */
const printable = (text: string): string =>
  text
    .replaceAll("×", "x")
    .replaceAll("−", "-")
    .replace(/[^\x20-\x7e\xa0-\xff]/g, "?");

const escaped = (t: string) =>
  t.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]!);

/** A plan as a drawing one to one, sized in mm. */
export function planSvg(plan: PlanDrawing): string {
  const [x0, y0, x1, y1] = plan.box;
  const [w, h] = [x1 - x0, y1 - y0];
  const down = (y: number) => y1 - y;
  const n = (v: number) => String(Math.round(v * 1e4) / 1e4);
  const path = (rings: readonly (readonly number[])[]) =>
    rings
      .map((r) => {
        const p: string[] = [];
        for (let i = 0; i < r.length; i += 2)
          p.push(`${i === 0 ? "M" : "L"}${n(r[i]! - x0)} ${n(down(r[i + 1]!))}`);
        return `${p.join("")}Z`;
      })
      .join("");
  const foot = plan.barMm ? 10 : 0;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h + foot)}mm" viewBox="0 0 ${n(w)} ${n(h + foot)}">`,
    `<title>${escaped(plan.title)}</title>`,
    ...plan.areas.map(
      (a) =>
        `<path d="${path(a.rings)}" fill="${a.tone === "none" || a.tone === "hole" ? "none" : "#eee"}" fill-rule="evenodd" stroke="#000" stroke-width="0.2"/>`,
    ),
    ...plan.lines.map(
      (l) =>
        `<line x1="${n(l.x1 - x0)}" y1="${n(down(l.y1))}" x2="${n(l.x2 - x0)}" y2="${n(down(l.y2))}" stroke="#000" stroke-width="${WEIGHTS_MM[l.kind]}"${DASHES[l.kind] ? ` stroke-dasharray="${DASHES[l.kind]!.join(" ")}"` : ""}/>`,
    ),
    ...plan.circles.map(
      (c) =>
        `<circle cx="${n(c.x - x0)}" cy="${n(down(c.y))}" r="${n(c.d / 2)}" fill="${c.isFilled ? "#000" : "none"}" stroke="#000" stroke-width="0.12"/>`,
    ),
    ...plan.texts.map(
      (t) =>
        `<text x="${n(t.x - x0)}" y="${n(down(t.y))}" font-size="${n(t.mm)}" font-family="sans-serif"${t.isMiddle ? ' text-anchor="middle"' : ""}${t.isUpright ? ` transform="rotate(-90 ${n(t.x - x0)} ${n(down(t.y))})"` : ""}>${escaped(t.text)}</text>`,
    ),
    ...(plan.barMm
      ? [
          `<path d="M2 ${n(h + 5)}H${n(2 + plan.barMm)}M2 ${n(h + 3.5)}v3M${n(2 + plan.barMm)} ${n(h + 3.5)}v3" stroke="#000" stroke-width="0.2" fill="none"/>`,
          `<text x="${n(4 + plan.barMm)}" y="${n(h + 6)}" font-size="2.6" font-family="sans-serif">${plan.barMm} mm</text>`,
        ]
      : []),
    "</svg>",
    "",
  ].join("\n");
}
