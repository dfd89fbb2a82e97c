import { expandRefs } from "../bom/refs.ts";
import { type BillLine, packageKey, ratingsOf } from "../bom/same.ts";
import { readValue } from "../bom/value.ts";
import { addTo } from "../grouped.ts";
import { CHIP_CODES, factsOfLine } from "./facts.ts";

/** A pasted row and the lines its number is for. */
export interface MetNumber {
  /** Of the pasted rows, from 1. */
  readonly row: number;
  readonly mpn: string;
  readonly lines: readonly string[];
  readonly by: "reference" | "value" | "order";
  /** What the line has already, where that is another. */
  readonly instead?: string;
}

/** What a paste of numbers comes to. */
export interface MetNumbers {
  readonly met: readonly MetNumber[];
  /** Rows that met nothing, with the reason. */
  readonly left: readonly { readonly row: number; readonly text: string; readonly why: string }[];
  /** A guess that the paste rests on, in words. */
  readonly guess?: string;
}

const HEADING =
  /^(ref\w*|designators?|values?|comment|part ?(no\.?|number)|mpn|number|order ?(no\.?|number)|package|footprint|body|qty|quantity|pos\.?)$/i;
const RATING = /^[±<>]?\s*[\d.,/]+\s*(%|v|w|ppm)$|^(c0g|np0|x[5678][rst]|y5v|z5u)$/i;

/** A size anywhere in a row, in a part number too; and a cell that is nothing but a size. */
const CHIP = new RegExp(`(?<!\\d)(${CHIP_CODES})(?!\\d)`);
const A_SIZE = new RegExp(`^(?:[a-z]+_?)?(${CHIP_CODES})$`, "i");

/**
 * Numbers pasted from elsewhere, set against the lines of a bill: by a reference that stands in their row, else by a value
 * (with size and ratings as far as the row says them) that one kind of line alone has. A column of numbers by itself is
 * taken in the order of the lines without one, where there are as many; that is a guess and called so.
 *
 * Nothing is decided twice: a row whose value several kinds of lines have, or that names two lines of different values,
 * stays with the reason.
 */
export function meetNumbers(text: string, lines: readonly BillLine[]): MetNumbers {
  const rows = text
    .replace(/\r/g, "")
    .split("\n")
    .map((l, i) => ({ row: i + 1, text: l.trim(), cells: cellsOf(l) }))
    .filter((r) => r.cells.length > 0 && !r.cells.every((c) => HEADING.test(c)));
  const fitted = lines.filter((l) => !l.dnp);
  const byRef = new Map(fitted.flatMap((l) => l.refs.map((r) => [r.toUpperCase(), l] as const)));
  if (rows.length > 0 && rows.every((r) => r.cells.length === 1)) return inOrder(rows, fitted, byRef);
  const met: MetNumber[] = [];
  const left: { row: number; text: string; why: string }[] = [];
  for (const r of rows) {
    const found = meetRow(r.cells, fitted, byRef);
    if ("why" in found) left.push({ row: r.row, text: r.text, why: found.why });
    else met.push({ row: r.row, ...found, ...insteadOf(found, fitted) });
  }
  return once({ met, left });
}

type Row = { readonly row: number; readonly text: string; readonly cells: readonly string[] };

const cellsOf = (line: string): string[] =>
  line
    .split(
      line.includes("\t") ? "\t" : line.includes(";") ? ";" : line.includes(",") ? "," : / {2,}|\s+(?=\S+$)/,
    )
    .map((c) => c.replace(/^"(.*)"$/, "$1").trim())
    .filter((c) => c !== "");

/** A text that can be a maker's number: digits in it, no value, no rating, no size, no count. */
const isNumber = (cell: string, ref: string | undefined): boolean =>
  /\d/.test(cell) &&
  cell.length >= 4 &&
  !/^\d{1,4}$/.test(cell) &&
  !/\s/.test(cell) &&
  !RATING.test(cell) &&
  !(ref && readValue(cell, ref).value) &&
  !A_SIZE.test(cell);

function meetRow(
  cells: readonly string[],
  fitted: readonly BillLine[],
  byRef: ReadonlyMap<string, BillLine>,
): Pick<MetNumber, "mpn" | "lines" | "by"> | { readonly why: string } {
  // a cell of references: each of them is on the bill
  for (const [i, cell] of cells.entries()) {
    const list = expandRefs(cell);
    if (list.bad.length > 0 || list.refs.length === 0) continue;
    const own = list.refs.map((r) => byRef.get(r.toUpperCase()));
    if (own.every((l) => l === undefined)) continue;
    const rest = cells.filter((_, k) => k !== i);
    const number = lastNumber(rest, list.refs[0]);
    if (number === undefined) return { why: "no part number beside its reference" };
    if (own.some((l) => l === undefined))
      return { why: `${list.refs[own.indexOf(undefined)]} is not on the bill` };
    const ids = [...new Set(own.map((l) => l!.id))];
    const values = new Set(own.map((l) => wordsOf(l!)));
    if (values.size > 1) return { why: "its references are of different values" };
    // a size that stands beside the number, and is not the line's
    const size = rest.find((c) => c !== number && A_SIZE.test(c));
    const has = packageKey(factsOfLine(own[0]!).package);
    if (size && A_SIZE.test(has) && CHIP.exec(size)![1] !== has)
      return { why: `it says ${size}, ${list.refs[0]} is ${has} on the bill` };
    return { mpn: number, lines: ids, by: "reference" };
  }
  return byValue(cells, fitted);
}

function byValue(
  cells: readonly string[],
  fitted: readonly BillLine[],
): Pick<MetNumber, "mpn" | "lines" | "by"> | { readonly why: string } {
  const kinds = new Map<string, BillLine[]>();
  for (const l of fitted) {
    const said = factsOfLine(l).params.value ?? l.valueText.toLowerCase().trim();
    if (said === "") continue;
    const ref = l.refs[0];
    const fits = cells.some((c) =>
      ref && readValue(c, ref).value
        ? factsOfLine({ ...l, valueText: c, description: "", mpn: "" }).params.value === said
        : c.toLowerCase() === l.valueText.toLowerCase().trim(),
    );
    if (!fits) continue;
    // what the row says of size and ratings parts lines of one value
    const row = cells.join(" ");
    const size = CHIP.exec(row)?.[1];
    const own = packageKey(factsOfLine(l).package);
    if (size && own !== "" && own !== size) continue;
    const [asked, has] = [ratingsOf({ valueText: row, description: "" }), ratingsOf(l)];
    if (
      Object.entries(asked).some(([k, v]) => has[k as "voltage"] !== undefined && has[k as "voltage"] !== v)
    )
      continue;
    addTo(kinds, wordsOf(l), l);
  }
  if (kinds.size === 0) return { why: "neither a reference nor a value of the bill stands in it" };
  if (kinds.size > 1)
    return {
      why: `several lines have that value: ${[...kinds.values()].map((k) => k[0]!.refs[0] ?? k[0]!.valueText).join(", ")}`,
    };
  const [some] = [...kinds.values()];
  const number = lastNumber(cells, some![0]!.refs[0]);
  return number === undefined
    ? { why: "no part number in it" }
    : { mpn: number, lines: some!.map((l) => l.id), by: "value" };
}

const lastNumber = (cells: readonly string[], ref: string | undefined): string | undefined =>
  [...cells].reverse().find((c) => isNumber(c, ref));

/** What parts one kind of line from another: value, size, ratings, board. */
const wordsOf = (l: BillLine): string => {
  const f = factsOfLine({ ...l, mpn: "" });
  return [
    f.kind,
    f.params.value ?? l.valueText,
    packageKey(f.package),
    JSON.stringify(ratingsOf(l)),
    l.board ?? "",
  ].join("|");
};

function inOrder(
  rows: readonly Row[],
  fitted: readonly BillLine[],
  byRef: ReadonlyMap<string, BillLine>,
): MetNumbers {
  const open = fitted.filter((l) => l.mpn === "" && l.mount !== "none");
  const isRefs = rows.some((r) => byRef.has(r.cells[0]!.toUpperCase()));
  const why = isRefs
    ? "a reference alone; its number stands beside it as a rule"
    : `there are ${rows.length} numbers and ${open.length} lines without one`;
  if (isRefs || rows.length !== open.length)
    return { met: [], left: rows.map((r) => ({ row: r.row, text: r.text, why })) };
  return {
    met: rows.map((r, i) => ({ row: r.row, mpn: r.cells[0]!, lines: [open[i]!.id], by: "order" as const })),
    left: [],
    guess: "The numbers stand alone: they are taken in the order of the lines without one. Look at each.",
  };
}

const insteadOf = (m: Pick<MetNumber, "mpn" | "lines">, lines: readonly BillLine[]): { instead?: string } => {
  const had = lines.find((l) => m.lines.includes(l.id) && l.mpn !== "" && l.mpn !== m.mpn)?.mpn;
  return had === undefined ? {} : { instead: had };
};

/** A line that two rows give different numbers gets neither. */
function once(all: { met: MetNumber[]; left: { row: number; text: string; why: string }[] }): MetNumbers {
  const of = new Map<string, Set<string>>();
  for (const m of all.met) for (const l of m.lines) of.set(l, (of.get(l) ?? new Set()).add(m.mpn));
  const isTwice = (m: MetNumber) => m.lines.some((l) => of.get(l)!.size > 1);
  return {
    met: all.met.filter((m) => !isTwice(m)),
    left: [
      ...all.left,
      ...all.met
        .filter(isTwice)
        .map((m) => ({ row: m.row, text: m.mpn, why: "two rows give its line different numbers" })),
    ].sort((a, b) => a.row - b.row),
  };
}
