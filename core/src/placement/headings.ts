import type { Cells } from "../table/columns.ts";

export type PlacementColumn = "ref" | "x" | "y" | "rotation" | "side" | "mirror";
export type LengthUnit = "mm" | "inch" | "mil";

/** Millimetres in one of a unit, as it is written behind a number, in a heading, in a comment. */
const UNITS: readonly (readonly [RegExp, number])[] = [
  [/^(mm|millimet(er|re)s?|metric)$/i, 1],
  [/^(mils?|thous?|th)$/i, 0.0254],
  [/^(in|inch|inches|ins|imperial|"|″|'')$/i, 25.4],
  [/^(µm|μm|um|microns?|micromet(er|re)s?)$/i, 0.001],
  [/^(nm|nanomet(er|re)s?)$/i, 1e-6],
  [/^(cm)$/i, 10],
];

/** Millimetres in one of a unit by its word; undefined where it is none. */
export const factorOf = (word: string): number | undefined => UNITS.find(([is]) => is.test(word))?.[1];

/** A heading taken apart: letters, and the unit it names. */
export interface Heading {
  readonly words: readonly string[];
  readonly factor?: number;
}

/** Words of a heading, parted at signs, where the case changes and before a single X or Y; a unit among them apart. */
export function headingOf(text: string): Heading {
  const words = text
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase()
    .replace(/^[#;*%!/\s"]+/, "")
    .split(/[^\p{L}\p{N}"″]+/u)
    .filter((w) => w !== "")
    .flatMap((w) => {
      const m = /^(pos|mid|center|centre|loc|coord|ref|pad|part|comp|body)([xy])$/.exec(w);
      if (m) return [m[1]!, m[2]!];
      const n = /^([xy])(mm|mils?|in|inch|pos|coord|loc|um)$/.exec(w);
      return n ? [n[1]!, n[2]!] : [w];
    });
  // a unit is no word of the heading; "in" may be one in a sentence, never beside a coordinate
  const units = words.map(factorOf);
  const at = units.findIndex((f) => f !== undefined);
  return {
    words: words.filter((_, i) => units[i] === undefined),
    ...(at >= 0 ? { factor: units[at]! } : {}),
  };
}

/** How well a heading names a column, 0 where not. */
function weightOf({ words }: Heading, key: PlacementColumn): number {
  const has = (...list: string[]) => words.some((w) => list.includes(w));
  if (words.length === 0 || words.length > 5) return 0;
  switch (key) {
    case "x":
    case "y":
      if (!has(key) || has("rotation", "rot", "size", "width")) return 0;
      // of several the middle of the part counts, not its first pad or its reference
      return has("mid", "center", "centre", "middle") ? 5 : has("pad") ? 1 : has("ref", "reference") ? 2 : 4;
    case "rotation":
      return has("rotation", "rot", "angle", "orientation", "theta", "winkel", "drehung", "rotate", "turn")
        ? 3
        : 0;
    case "mirror":
      return has("mirror", "mirrored", "flip", "flipped", "gespiegelt") ? 3 : 0;
    case "side":
      return has("side", "layer", "tb", "seite", "lage", "face", "board") && !has("x", "y") ? 3 : 0;
    case "ref":
      if (has("x", "y", "value", "val", "package", "footprint", "number")) return 0;
      return has("designator", "refdes", "designators", "bezeichner") || (has("ref") && has("des"))
        ? 5
        : has("reference", "references", "ref", "refs", "referenz", "symbol")
          ? 4
          : has("part", "component", "name", "item", "comp")
            ? 2
            : 0;
  }
}

/** The heading row of a table of places, and for each column where it stands and the unit it names. */
export interface PlacementHead {
  readonly row: number;
  readonly at: Partial<Record<PlacementColumn, number>>;
  readonly factor: Partial<Record<"x" | "y", number>>;
}

const KEYS: readonly PlacementColumn[] = ["x", "y", "ref", "rotation", "mirror", "side"];

/** Finds the row that names a reference, an X and a Y among the first forty; a person's choice of headings wins. */
export function findPlacementHead(
  rows: Cells,
  chosen: Partial<Record<string, string>> = {},
): PlacementHead | undefined {
  for (let row = 0; row < Math.min(rows.length, 40); row++) {
    const texts = rows[row]!;
    const heads = texts.map(headingOf);
    const at: Partial<Record<PlacementColumn, number>> = {};
    const taken = new Set<number>();
    const take = (key: PlacementColumn, i: number) => {
      if (i < 0 || taken.has(i)) return;
      at[key] = i;
      taken.add(i);
    };
    for (const key of KEYS) {
      const wish = chosen[key];
      if (wish !== undefined)
        take(
          key,
          texts.findIndex((t) => t.trim().toLowerCase() === wish.trim().toLowerCase()),
        );
    }
    for (const key of KEYS) {
      if (at[key] !== undefined) continue;
      let best = -1;
      let most = 0;
      for (const [i, h] of heads.entries()) {
        const n = taken.has(i) ? 0 : weightOf(h, key);
        if (n > most) [best, most] = [i, n];
      }
      take(key, best);
    }
    if (at.ref === undefined || at.x === undefined || at.y === undefined) continue;
    const factor: PlacementHead["factor"] = {};
    for (const key of ["x", "y"] as const) {
      const f = heads[at[key]!]!.factor;
      if (f !== undefined) factor[key] = f;
    }
    return { row, at, factor };
  }
  return undefined;
}

/** A unit told above the rows: "# Unit = mils", "Units: inch", "## all in mm"; undefined where none or several are. */
export function unitAbove(rows: Cells): number | undefined {
  const found = new Set<number>();
  for (const r of rows) {
    const text = r.join(" ");
    const m =
      /\bunits?\b[^\p{L}\p{N}]*(?:used|are|is|in)?[^\p{L}\p{N}]*([\p{L}"″]+)/iu.exec(text) ??
      /\b(?:all|coordinates|dimensions|values|positions)\b.{0,30}?\bin[:\s]+([\p{L}]+)/iu.exec(text);
    const f = m ? factorOf(m[1]!) : undefined;
    if (f !== undefined) found.add(f);
  }
  return found.size === 1 ? [...found][0] : undefined;
}
