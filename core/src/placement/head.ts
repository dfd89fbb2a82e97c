import type { Cells } from "../table/columns.ts";
import type { PlacementColumn } from "./column.ts";
import { type Heading, headingOf, weightOf } from "./headings.ts";
import { readNumber } from "./number.ts";
import { sidesOf } from "./side.ts";
import { factorOf } from "./units.ts";

/** How a column of a table of places was told. */
export type Told = "chosen" | "heading" | "content";

/** The heading row of a table of places, and for each column where it stands and the unit it names. */
export interface PlacementHead {
  /** Row of the headings; -1 where there are none, and the columns were told by what they hold. */
  readonly row: number;
  readonly texts: readonly string[];
  readonly at: Partial<Record<PlacementColumn, number>>;
  readonly told: Partial<Record<PlacementColumn, Told>>;
  /** Both coordinates stand in this one column. */
  readonly isPair: boolean;
  readonly factor: Partial<Record<"x" | "y", number>>;
  readonly turn: Pick<Heading, "degrees" | "sense">;
}

const KEYS: readonly PlacementColumn[] = ["x", "y", "ref", "rotation", "mirror", "side", "unit", "fitted"];
const MOST_ROWS_ABOVE = 60;
/** Rows under a heading by which a column is told. */
const ENOUGH = 400;
const REFERENCE = /^[a-z_]{1,5}\d{1,5}[a-z]?(?:[._-]\w{1,4})?$/i;

/** Share of the cells of a column that are so, of those that say something; 0 for none. */
function shareOf(rows: Cells, at: number, is: (text: string) => boolean): number {
  const filled = rows.map((r) => (r[at] ?? "").trim()).filter((t) => t !== "");
  return filled.length === 0 ? 0 : filled.filter(is).length / filled.length;
}

/** The column of references by what it holds: nearly all are, and nearly none stands there twice. */
function referencesIn(rows: Cells, width: number, taken: ReadonlySet<number>): number {
  for (let i = 0; i < width; i++) {
    if (taken.has(i) || shareOf(rows, i, (t) => REFERENCE.test(t)) < 0.9) continue;
    const texts = rows.map((r) => (r[i] ?? "").trim().toUpperCase()).filter((t) => t !== "");
    if (new Set(texts).size >= 0.9 * texts.length) return i;
  }
  return -1;
}

const isTurn = (text: string) => {
  const n = readNumber(text)?.n;
  return n !== undefined && Math.abs(n) <= 360 && n % 15 === 0;
};
/** The only column of turns by what it holds, not all of them the same. */
function turnsIn(rows: Cells, width: number, taken: ReadonlySet<number>): number {
  const are = Array.from({ length: width }, (_, i) => i).filter(
    (i) =>
      !taken.has(i) &&
      shareOf(rows, i, isTurn) === 1 &&
      shareOf(rows, i, (t) => ["90", "180", "270", "-90", "-180"].includes(t.replace(/[.,]0+$|°$/g, ""))) > 0,
  );
  return are.length === 1 ? are[0]! : -1;
}

/** The only column whose every cell names a side. */
function sidesIn(rows: Cells, width: number, taken: ReadonlySet<number>): number {
  const are = Array.from({ length: width }, (_, i) => i).filter((i) => {
    if (taken.has(i)) return false;
    // letters mean one thing beside one letter and another beside another
    const side = sidesOf(rows.map((r) => r[i] ?? ""));
    return shareOf(rows, i, (t) => /\p{L}/u.test(t) && side(t) !== undefined) === 1;
  });
  return are.length === 1 ? are[0]! : -1;
}

/** Finds the row that names a reference, an X and a Y among the first sixty; a person's choice of headings wins. */
export function findPlacementHead(
  rows: Cells,
  chosen: Partial<Record<string, string>> = {},
): PlacementHead | undefined {
  for (let row = 0; row < Math.min(rows.length, MOST_ROWS_ABOVE); row++) {
    const head = headOf(rows, row, chosen);
    if (head) return head;
  }
  return undefined;
}

/** What a row names as a heading, with what stands under it; undefined where it is none. */
export function headOf(
  rows: Cells,
  row: number,
  chosen: Partial<Record<string, string>> = {},
): PlacementHead | undefined {
  const texts = rows[row]!;
  if (texts.length < 2) return undefined;
  const heads = texts.map(headingOf);
  const at: Partial<Record<PlacementColumn, number>> = {};
  const told: Partial<Record<PlacementColumn, Told>> = {};
  const taken = new Set<number>();
  const take = (key: PlacementColumn, i: number, how: Told) => {
    if (i < 0 || taken.has(i)) return;
    at[key] = i;
    told[key] = how;
    taken.add(i);
  };
  for (const key of KEYS) {
    const wish = chosen[key]?.trim().toLowerCase();
    if (wish !== undefined && wish !== "")
      take(
        key,
        texts.findIndex((t) => t.trim().toLowerCase() === wish),
        "chosen",
      );
  }
  const pair = heads.findIndex((h) => weightOf(h, "x") > 0 && weightOf(h, "y") > 0);
  for (const key of KEYS) {
    if (at[key] !== undefined || (pair >= 0 && (key === "x" || key === "y"))) continue;
    if (chosen[key]?.trim() === "") continue;
    let best = -1;
    let most = 0;
    for (const [i, h] of heads.entries()) {
      const n = taken.has(i) || i === pair ? 0 : weightOf(h, key);
      if (n > most) [best, most] = [i, n];
    }
    take(key, best, "heading");
  }
  if (pair >= 0 && (at.x === undefined || at.y === undefined)) {
    at.x = pair;
    at.y = pair;
    told.x = told.y = "heading";
    taken.add(pair);
  }
  if (at.x === undefined || at.y === undefined) return undefined;
  const below = rows.slice(row + 1, row + 1 + ENOUGH).filter((r) => (r[at.x!] ?? "").trim() !== "");
  byContent(below, texts.length, at, told, taken, chosen);
  if (at.ref === undefined) return undefined;
  const factor: PlacementHead["factor"] = {};
  for (const key of ["x", "y"] as const) {
    const f = heads[at[key]!]!.factor;
    if (f !== undefined) factor[key] = f;
  }
  const { degrees, sense } = at.rotation === undefined ? {} : heads[at.rotation]!;
  return {
    row,
    texts,
    at,
    told,
    isPair: at.x === at.y,
    factor,
    turn: { ...(degrees ? { degrees } : {}), ...(sense ? { sense } : {}) },
  };
}

/** What no heading tells is told by what stands under it: references, turns, sides; a heading that holds no references gives way. */
function byContent(
  below: Cells,
  width: number,
  at: Partial<Record<PlacementColumn, number>>,
  told: Partial<Record<PlacementColumn, Told>>,
  taken: Set<number>,
  chosen: Partial<Record<string, string>>,
): void {
  const take = (key: PlacementColumn, i: number) => {
    if (i < 0) return;
    at[key] = i;
    told[key] = "content";
    taken.add(i);
  };
  const holds = (i: number) => shareOf(below, i, (t) => REFERENCE.test(t));
  if (at.ref === undefined) take("ref", referencesIn(below, width, taken));
  else if (told.ref === "heading" && holds(at.ref) < 0.5) {
    const better = referencesIn(below, width, taken);
    if (better >= 0) {
      taken.delete(at.ref);
      take("ref", better);
    }
  }
  if (at.rotation === undefined && chosen.rotation === undefined)
    take("rotation", turnsIn(below, width, taken));
  if (at.side === undefined && at.mirror === undefined && chosen.side === undefined)
    take("side", sidesIn(below, width, taken));
  if (at.unit === undefined && chosen.unit === undefined)
    take(
      "unit",
      Array.from({ length: width }, (_, i) => i).find(
        (i) => !taken.has(i) && shareOf(below, i, (t) => factorOf(t) !== undefined) === 1,
      ) ?? -1,
    );
}

/**
 * The columns of a table without headings, by what they hold: references, then two columns beside each other of numbers
 * with places behind the point, a turn and a side where there are. Undefined where that is not plain.
 */
export function headByContent(rows: Cells): PlacementHead | undefined {
  const places = rows.filter((r) => r.filter((t) => t.trim() !== "").length >= 3);
  const width = Math.max(0, ...places.map((r) => r.length));
  const taken = new Set<number>();
  const ref = referencesIn(places, width, taken);
  if (ref < 0 || places.length < 3) return undefined;
  taken.add(ref);
  const isLength = (i: number) =>
    !taken.has(i) &&
    shareOf(places, i, (t) => readNumber(t) !== undefined) === 1 &&
    shareOf(places, i, isTurn) < 1;
  const broken = (i: number) => shareOf(places, i, (t) => /\d[.,]\d/.test(t));
  const pairs = Array.from({ length: width - 1 }, (_, i) => i).filter(
    (i) => isLength(i) && isLength(i + 1) && broken(i) + broken(i + 1) > 0.8,
  );
  if (pairs.length !== 1) return undefined;
  const at: Partial<Record<PlacementColumn, number>> = { ref, x: pairs[0]!, y: pairs[0]! + 1 };
  const told: Partial<Record<PlacementColumn, Told>> = { ref: "content", x: "content", y: "content" };
  taken.add(at.x!).add(at.y!);
  byContent(places, width, at, told, taken, {});
  if (at.rotation === undefined && at.side === undefined) return undefined;
  return { row: -1, texts: [], at, told, isPair: false, factor: {}, turn: {} };
}
