import { type Finding, FindingList } from "../findings.ts";
import { wordsOf } from "../role/role-name.ts";
import type { Cells } from "../table/columns.ts";
import { boundedRows } from "../table/rows.ts";
import {
  type PlacementColumn as Column,
  factorOf,
  findPlacementHead,
  type LengthUnit,
  unitAbove,
} from "./headings.ts";

/** One part put at one place; the rotation as stated, bottom side not mirrored. */
export interface Placement {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: "top" | "bottom";
}

/** A placement file as read. */
export interface Placements {
  readonly unit: LengthUnit;
  readonly parts: readonly Placement[];
  readonly findings: readonly Finding[];
  /** No unit is stated anywhere: millimetres were taken. */
  readonly isUnitAssumed?: boolean;
}

export type PlacementColumn = Column;

/** True when a table has a reference, X and Y column. */
export const looksLikePlacement = (cells: Cells): boolean => findPlacementHead(spread(cells)) !== undefined;

/** Lines that speak to people, whatever sign they begin with. */
const COMMENT = /^\s*("?\s*)(#|;|\/\/|\*|%|!|--|rem\b)/i;

/** A table whose columns are set apart by blanks arrives as one cell a row, but for remarks with commas: split it there. */
function spread(cells: Cells): Cells {
  const filled = cells.filter((r) => r.some((t) => t.trim() !== ""));
  const single = filled.filter((r) => r.length === 1 || COMMENT.test(r[0] ?? ""));
  if (filled.length === 0 || single.length < 0.8 * filled.length) return cells;
  return cells.map((r) =>
    r
      .join(",")
      .replace(/^#+\s*/, "")
      .trim()
      .split(/\s+/),
  );
}

const TOP =
  /^(t|top|f|front|c|cs|comp|component|components|primary|1|oben|ober|oberseite|vorne|dessus|cara superior)$/i;
const BOTTOM =
  /^(b|bot|btm|bottom|back|rear|s|ss|solder|secondary|2|unten|unter|unterseite|hinten|rückseite|dessous|cara inferior)$/i;
const YES = /^(yes|y|true|1|m|mirror(ed)?|x|ja|on)$/i;

/** A number as people write it: a sign, a decimal comma, blanks, and a unit or a degree sign behind it. */
function readNumber(text: string): { readonly n: number; readonly unit: string } | undefined {
  const m = /^([+\-−]?)\s*(\d+(?:[.,]\d*)?|[.,]\d+)(?:e([+-]?\d{1,2}))?\s*([^\d\s.,+-]*)\.?$/i.exec(
    text.trim(),
  );
  if (!m) return undefined;
  const n = Number(`${m[2]!.replace(",", ".")}e${m[3] ?? 0}`) * (m[1] === "-" || m[1] === "−" ? -1 : 1);
  return Number.isFinite(n) ? { n, unit: m[4]! } : undefined;
}

/**
 * Reads a placement file. The unit of a coordinate is that of its cell, else of its heading, else of a comment above,
 * else millimetres, which is said; rotation in any range, normalised to [0, 360). A row that cannot be read whole is an
 * error, and none of it is taken for 0; the rest is kept.
 */
export function readPlacement(
  cells: Cells,
  file: string,
  chosen: Partial<Record<PlacementColumn, string>> = {},
): Placements {
  const found = new FindingList(20);
  const rows = spread(boundedRows(cells, file, found));
  const head = findPlacementHead(rows, chosen);
  if (!head) {
    found.add({
      tag: "placement-header-missing",
      level: "error",
      file,
      text: "No row names columns of reference, X and Y.",
      do: "Say which columns they are.",
    });
    return { unit: "mm", parts: [], findings: found.done() };
  }
  const { at } = head;
  const words = wordsOf(file);
  const named = words.some((w) => ["bottom", "bot", "back"].includes(w))
    ? ("bottom" as const)
    : words.some((w) => ["top", "front"].includes(w))
      ? ("top" as const)
      : undefined;
  const above = unitAbove(rows.slice(0, head.row + 1));
  const text = (r: number, key: PlacementColumn) =>
    at[key] === undefined ? "" : (rows[r]![at[key]!] ?? "").trim();
  const counted = new Map<number, number>();
  const parts: Placement[] = [];
  const without: { side: string[]; turn: string[] } = { side: [], turn: [] };
  let hasAssumed = false;
  for (let r = head.row + 1; r < rows.length; r++) {
    const ref = text(r, "ref");
    if (rows[r]!.every((t) => t.trim() === "") || COMMENT.test(rows[r]![0] ?? "")) continue;
    // a heading that stands there again, as on the next page
    if (findPlacementHead([rows[r]!], chosen)) continue;
    const bad = (what: string) =>
      found.add({
        tag: "placement-bad-row",
        level: "error",
        file,
        row: r + 1,
        ...(ref ? { about: [ref] } : {}),
        text: `${what}; ${ref || "the row"} was left out.`,
        do: "Correct the row and drop the file again.",
      });
    if (ref === "") {
      if (text(r, "x") !== "" && text(r, "y") !== "") bad("A place without a reference");
      continue;
    }
    if (text(r, "x") === "" || text(r, "y") === "") {
      // a line of words is a remark; a reference without its place is a loss
      if (/^[A-Za-z_]+\d+[A-Za-z]?$/.test(ref)) bad(`${text(r, "x") === "" ? "X" : "Y"} of ${ref} is empty`);
      continue;
    }
    const length = (key: "x" | "y"): number | undefined => {
      const read = readNumber(text(r, key));
      if (!read) return undefined;
      const own = read.unit === "" ? undefined : factorOf(read.unit);
      if (read.unit !== "" && own === undefined) return undefined;
      const f = own ?? head.factor[key] ?? above;
      if (f === undefined) hasAssumed = true;
      counted.set(f ?? 1, (counted.get(f ?? 1) ?? 0) + 1);
      return read.n * (f ?? 1);
    };
    const [x, y] = [length("x"), length("y")];
    if (x === undefined || y === undefined) {
      bad(`“${text(r, x === undefined ? "x" : "y")}” is no ${x === undefined ? "X" : "Y"}`);
      continue;
    }
    const turned = text(r, "rotation");
    const turn = turned === "" ? { n: 0, unit: "" } : readNumber(turned);
    if (!turn || !/^(°|º|deg(rees?)?|d)?$/i.test(turn.unit)) {
      bad(`“${turned}” is no rotation`);
      continue;
    }
    if (turned === "") without.turn.push(ref);
    const side = sideOf(text(r, "side"), text(r, "mirror"), at.side !== undefined || at.mirror !== undefined);
    if (side === undefined) without.side.push(`${ref} (“${text(r, "side") || text(r, "mirror")}”)`);
    parts.push({
      ref: ref.toUpperCase(),
      xMm: round6(x),
      yMm: round6(y),
      rotationDeg: normal(turn.n),
      side: (at.side === undefined && at.mirror === undefined ? named : side) ?? "top",
    });
  }
  const few = (list: readonly string[]) =>
    list.length <= 8 ? list.join(", ") : `${list.slice(0, 7).join(", ")} and ${list.length - 7} more`;
  if (without.side.length > 0)
    found.add({
      tag: "placement-side-unknown",
      level: "error",
      file,
      about: without.side.map((s) => s.split(" ")[0]!),
      text: `The side of ${few(without.side)} is not known; the top was taken.`,
      do: "Write top or bottom there.",
    });
  else if (at.side === undefined && at.mirror === undefined && parts.length > 0)
    found.add({
      tag: "placement-side-unknown",
      level: named ? "remark" : "warning",
      file,
      text: `No column says the side; all parts were taken as on the ${named ?? "top"}${named ? ", by the file's name" : ""}.`,
      do: "Check it, or add a column of sides.",
    });
  if (without.turn.length > 0 && parts.length > 0)
    found.add({
      tag: "placement-turn-unknown",
      level: "warning",
      file,
      about: without.turn,
      text: `The rotation of ${without.turn.length === parts.length ? "every part" : few(without.turn)} is not stated; 0° was taken.`,
      do: "Add it where it matters.",
    });
  const [most] = [...counted].sort((a, b) => b[1] - a[1]);
  const factor = most?.[0] ?? 1;
  if (counted.size > 1 && !hasAssumed)
    found.add({
      tag: "placement-units-mixed",
      level: "remark",
      file,
      text: "Coordinates are written in more than one unit; each was read in its own.",
    });
  return {
    unit: factor === 25.4 ? "inch" : factor === 0.0254 ? "mil" : "mm",
    parts,
    findings: found.done(),
    ...(hasAssumed && parts.length > 0 ? { isUnitAssumed: true } : {}),
  };
}

/** The side by its word, else by what a column of mirrored parts says; undefined where a word is neither. */
function sideOf(word: string, mirror: string, hasColumn: boolean): Placement["side"] | undefined {
  const w = word
    .replace(/[_\-.]+/g, " ")
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .trim()
    // "top layer", "layer 1", "F side": the word beside it says only what kind of word it is
    .replace(/^(layer|side|lage|seite)\s*(?=\S)|(?<=\S)\s*(layer|side|face|copper|lage|seite)$/gi, "")
    .trim();
  if (BOTTOM.test(w)) return "bottom";
  if (TOP.test(w)) return mirror !== "" && YES.test(mirror) && w === "" ? "bottom" : "top";
  if (w !== "") return undefined;
  if (mirror !== "") return YES.test(mirror) ? "bottom" : "top";
  return hasColumn ? undefined : "top";
}

const normal = (turn: number) => {
  const v = round6(((turn % 360) + 360) % 360);
  return v === 360 ? 0 : v;
};
const round6 = (v: number) => Math.round(v * 1e6) / 1e6;
