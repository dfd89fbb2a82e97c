import type { Color } from "@cantoo/pdf-lib";

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
  const { PDFDocument, StandardFonts, degrees } = await import("@cantoo/pdf-lib");
  const [x0, y0, x1, y1] = plan.box;
  const [w, h] = [x1 - x0, y1 - y0];
  const foot = 6 + plan.notes.length * 4.6 + (plan.barMm ? 9 : 0);
  const needs = [w + 2 * MARGIN_MM, h + 2 * MARGIN_MM + HEAD_MM + foot] as const;
  const page = [A4, [A4[1], A4[0]] as const].find((p) => needs[0] <= p[0] && needs[1] <= p[1]);
  const size = page ?? (isTrueSize ? needs : w > h ? ([A4[1], A4[0]] as const) : A4);
  const scale =
    page || isTrueSize
      ? 1
      : Math.min((size[0] - 2 * MARGIN_MM) / w, (size[1] - 2 * MARGIN_MM - HEAD_MM - foot) / h);
  const doc = await PDFDocument.create();
  doc.setTitle(plan.title);
  doc.setProducer("Kobbin");
  doc.setCreator("Kobbin");
  doc.setCreationDate(created);
  doc.setModificationDate(created);
  const plain = await doc.embedFont(StandardFonts.Helvetica);
  const bold = await doc.embedFont(StandardFonts.HelveticaBold);
  const sheet = doc.addPage([size[0] * POINT, size[1] * POINT]);
  const grey = (v: number): Color => ({ type: "RGB" as Color["type"], red: v, green: v, blue: v }) as Color;
  const left = MARGIN_MM + (size[0] - 2 * MARGIN_MM - w * scale) / 2;
  const top = size[1] - MARGIN_MM - HEAD_MM;
  const X = (x: number) => (left + (x - x0) * scale) * POINT;
  const Y = (y: number) => (top - (y1 - y) * scale) * POINT;
  const word = (t: string) => printable(t);
  sheet.drawText(word(plan.title), {
    x: MARGIN_MM * POINT,
    y: (size[1] - MARGIN_MM - 5) * POINT,
    size: 14,
    font: bold,
    color: grey(0.1),
  });
  const said = scale === 1 ? "one to one" : `not to scale: drawn ${Math.round(scale * 100)} %`;
  sheet.drawText(word(`${plan.subtitle}; ${said}`), {
    x: MARGIN_MM * POINT,
    y: (size[1] - MARGIN_MM - 10.5) * POINT,
    size: 9,
    font: plain,
    color: grey(0.4),
  });
  for (const a of plan.areas) {
    // the path is given y down from the page's corner
    const d = a.rings
      .map((r) => {
        const p: string[] = [];
        for (let i = 0; i < r.length; i += 2)
          p.push(`${i === 0 ? "M" : "L"}${X(r[i]!).toFixed(3)} ${(-Y(r[i + 1]!)).toFixed(3)}`);
        return `${p.join("")}Z`;
      })
      .join("");
    sheet.drawSvgPath(d, {
      x: 0,
      y: 0,
      borderColor: grey(0.1),
      borderWidth: WEIGHTS_MM.edge * POINT,
      ...(a.tone === "none" ? {} : { color: grey(TONES[a.tone]) }),
    });
  }
  for (const l of plan.lines)
    sheet.drawLine({
      start: { x: X(l.x1), y: Y(l.y1) },
      end: { x: X(l.x2), y: Y(l.y2) },
      thickness: WEIGHTS_MM[l.kind] * POINT,
      color: grey(l.kind === "edge" ? 0.1 : 0.3),
      ...(DASHES[l.kind] ? { dashArray: DASHES[l.kind]!.map((v) => v * POINT) } : {}),
    });
  for (const c of plan.circles)
    sheet.drawCircle({
      x: X(c.x),
      y: Y(c.y),
      size: (c.d / 2) * scale * POINT,
      borderColor: grey(0.1),
      borderWidth: 0.15 * POINT,
      ...(c.isFilled ? { color: grey(0.1) } : { color: grey(1) }),
    });
  for (const t of plan.texts) {
    const points = Math.max(5, t.mm * scale * POINT);
    const wide = t.isMiddle ? plain.widthOfTextAtSize(word(t.text), points) / 2 : 0;
    sheet.drawText(word(t.text), {
      x: X(t.x) - (t.isUpright ? 0 : wide),
      y: Y(t.y) - (t.isUpright ? wide : 0),
      size: points,
      font: plain,
      color: grey(0.1),
      ...(t.isUpright ? { rotate: degrees(90) } : {}),
    });
  }
  let y = top - h * scale - 5;
  if (plan.barMm) {
    y -= 4;
    sheet.drawLine({
      start: { x: MARGIN_MM * POINT, y: y * POINT },
      end: { x: (MARGIN_MM + plan.barMm) * POINT, y: y * POINT },
      thickness: 0.6,
      color: grey(0.1),
    });
    for (const at of [0, plan.barMm])
      sheet.drawLine({
        start: { x: (MARGIN_MM + at) * POINT, y: (y - 1.5) * POINT },
        end: { x: (MARGIN_MM + at) * POINT, y: (y + 1.5) * POINT },
        thickness: 0.6,
        color: grey(0.1),
      });
    sheet.drawText(`${plan.barMm} mm: measure this bar before you trust the print`, {
      x: (MARGIN_MM + plan.barMm + 3) * POINT,
      y: (y - 1) * POINT,
      size: 8,
      font: plain,
      color: grey(0.3),
    });
    y -= 5;
  }
  for (const n of plan.notes) {
    sheet.drawText(word(n), {
      x: MARGIN_MM * POINT,
      y: y * POINT,
      size: 8,
      font: plain,
      color: grey(0.2),
      maxWidth: (size[0] - 2 * MARGIN_MM) * POINT,
      lineHeight: 10,
    });
    y -=
      4.6 * Math.max(1, Math.ceil(plain.widthOfTextAtSize(word(n), 8) / ((size[0] - 2 * MARGIN_MM) * POINT)));
  }
  return doc.save({ useObjectStreams: false });
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
  const Y = (y: number) => y1 - y;
  const n = (v: number) => String(Math.round(v * 1e4) / 1e4);
  const path = (rings: readonly (readonly number[])[]) =>
    rings
      .map((r) => {
        const p: string[] = [];
        for (let i = 0; i < r.length; i += 2)
          p.push(`${i === 0 ? "M" : "L"}${n(r[i]! - x0)} ${n(Y(r[i + 1]!))}`);
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
        `<line x1="${n(l.x1 - x0)}" y1="${n(Y(l.y1))}" x2="${n(l.x2 - x0)}" y2="${n(Y(l.y2))}" stroke="#000" stroke-width="${WEIGHTS_MM[l.kind]}"${DASHES[l.kind] ? ` stroke-dasharray="${DASHES[l.kind]!.join(" ")}"` : ""}/>`,
    ),
    ...plan.circles.map(
      (c) =>
        `<circle cx="${n(c.x - x0)}" cy="${n(Y(c.y))}" r="${n(c.d / 2)}" fill="${c.isFilled ? "#000" : "none"}" stroke="#000" stroke-width="0.12"/>`,
    ),
    ...plan.texts.map(
      (t) =>
        `<text x="${n(t.x - x0)}" y="${n(Y(t.y))}" font-size="${n(t.mm)}" font-family="sans-serif"${t.isMiddle ? ' text-anchor="middle"' : ""}${t.isUpright ? ` transform="rotate(-90 ${n(t.x - x0)} ${n(Y(t.y))})"` : ""}>${escaped(t.text)}</text>`,
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
