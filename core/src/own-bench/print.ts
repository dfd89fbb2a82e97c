import type { BoardSet } from "../board/board-file.ts";
import { chainOutline } from "../board/outline/outline.ts";
import { orGivenUp } from "../geometry/work.ts";
import { ringsOfSolid, type Solids, solidsOf } from "../gerber/solids.ts";

/** How the copper's picture comes onto the board. */
export const RESISTS = {
  transfer: "print carried over by heat",
  film: "film on light-sensitive board",
  laser: "paint burnt away by a laser",
} as const;
export type Resist = keyof typeof RESISTS;

/** What a print has to be so that the board comes out the right way round. */
export interface PrintWay {
  /** Against the files, which are seen from above. */
  readonly isMirrored: boolean;
  /** What is black is what goes away. */
  readonly isNegative: boolean;
  /** How one tells on the print, before anything is wasted. */
  readonly check: string;
}

/**
 * The way a print has to be: what lies on the copper with its toner face is mirrored for the top and as in the files for the
 * bottom; what a laser draws is seen from the copper, and burns what is to go.
 */
export function printWay(resist: Resist, side: "top" | "bottom"): PrintWay {
  const isSeenFromCopper = resist === "laser";
  const isMirrored = isSeenFromCopper ? side === "bottom" : side === "top";
  return {
    isMirrored,
    isNegative: isSeenFromCopper,
    check: isSeenFromCopper
      ? "words in the copper of this side read the right way; black is burnt away"
      : "words in the copper of this side read backwards on the print; black is what stays",
  };
}

/** Clear paper around the board, and the bar that checks the printer, mm. */
const MARGIN_MM = 8;
export const BAR_MM = 50;
/** A dot left free in every pad, so that the drill finds its middle, mm. */
const CENTRE_MM = 0.4;

const n = (v: number) => String(Math.round(v * 1000) / 1000);
const path = (ring: readonly number[]) => {
  const at: string[] = [];
  for (let i = 0; i < ring.length; i += 2) at.push(`${n(ring[i]!)} ${n(ring[i + 1]!)}`);
  return `M${at.join("L")}Z`;
};

/**
 * The copper of one side, one to one, to be printed or burnt: black on white, a free dot in the middle of every hole, and a bar
 * of 50 mm that tells whether the printer keeps the size. The words beside it are never mirrored.
 *
 * @returns SVG in millimetres; nothing where the side has no copper, or the board no closed outline
 */
export function copperPrint(set: BoardSet, side: "top" | "bottom", resist: Resist): string | undefined {
  const layer = set.files.find((f) => f.role === "copper" && f.side === side && f.layer)?.layer;
  const profile = set.files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  if (!layer || !outline?.isClosed || !outline.box) return undefined;
  const solids = orGivenUp(
    (): Solids | undefined => solidsOf(layer),
    () => undefined,
  );
  if (!solids) return undefined;
  const way = printWay(resist, side);
  const [x0, y0, x1, y1] = outline.box;
  const [w, h] = [x1 - x0, y1 - y0];
  const [stay, go] = way.isNegative ? ["#fff", "#000"] : ["#000", "#fff"];
  const board = outline.loops.map((l) => path(l.ring)).join("");
  const copper: string[] = [];
  for (let k = 0; k < solids.count; k++)
    copper.push(`<path d="${ringsOfSolid(solids, k).map(path).join("")}"/>`);
  const holes = set.files
    .flatMap((f) => (f.role === "drill" && f.drill ? f.drill.hits : []))
    .map((q) => `<circle cx="${n(q.x)}" cy="${n(q.y)}" r="${n(Math.min(CENTRE_MM, q.diameterMm) / 2)}"/>`)
    .join("");
  const [pw, ph] = [Math.max(w, BAR_MM) + 2 * MARGIN_MM, h + 2 * MARGIN_MM + 12];
  // the files' y goes up, the paper's down
  const place = `translate(${n(MARGIN_MM)} ${n(MARGIN_MM)}) scale(1 -1) translate(${n(way.isMirrored ? x1 : -x0)} ${n(-y1)})${way.isMirrored ? " scale(-1 1)" : ""}`;
  const below = h + MARGIN_MM + 8;
  const words = `${side}, ${RESISTS[resist]}${way.isMirrored ? ", mirrored" : ""}${way.isNegative ? ", negative" : ""}; the bar is ${BAR_MM} mm`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(pw)}mm" height="${n(ph)}mm" viewBox="0 0 ${n(pw)} ${n(ph)}">`,
    `<rect width="${n(pw)}" height="${n(ph)}" fill="#fff"/>`,
    `<g transform="${place}" fill-rule="evenodd">`,
    `<path d="${board}" fill="${go}"/>`,
    `<g fill="${stay}">${copper.join("")}</g>`,
    `<g fill="${go}">${holes}</g>`,
    `<path d="${board}" fill="none" stroke="#000" stroke-width="0.1"/>`,
    "</g>",
    `<path d="M${MARGIN_MM} ${n(below)}h${BAR_MM}M${MARGIN_MM} ${n(below - 1.5)}v3M${MARGIN_MM + BAR_MM} ${n(below - 1.5)}v3" stroke="#000" stroke-width="0.2" fill="none"/>`,
    `<text x="${MARGIN_MM}" y="${n(below + 5)}" font-size="2.6" font-family="sans-serif">${words}</text>`,
    "</svg>",
  ].join("\n");
}

/** Widths of the test patch, mm. */
export const PATCH_MM = [0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6] as const;

/**
 * A test patch, one to one: for each width five lines with gaps of that width between them. What comes out whole and apart is
 * what the bench can do.
 */
export function testPatch(resist: Resist): string {
  const isNegative = resist === "laser";
  const [stay, go] = isNegative ? ["#fff", "#000"] : ["#000", "#fff"];
  const [length, left, lines] = [20, 14, 5];
  let y = 6;
  const rows = PATCH_MM.map((t) => {
    const bars = Array.from(
      { length: lines },
      (_, i) => `<rect x="${left}" y="${n(y + 2 * t * i)}" width="${length}" height="${n(t)}"/>`,
    );
    const row = `<g fill="${stay}">${bars.join("")}</g><text x="3" y="${n(y + 2 * t * lines * 0.5 + 1)}" font-size="2.4" fill="${stay}" font-family="sans-serif">${t}</text>`;
    y += 2 * t * lines + 2.5;
    return row;
  });
  const [w, h] = [left + length + 6, y + 2];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${n(h)}mm" viewBox="0 0 ${w} ${n(h)}">`,
    `<rect width="${w}" height="${n(h)}" fill="${go}"/>`,
    ...rows,
    "</svg>",
  ].join("\n");
}
