import type { Cells } from "../table/columns.ts";
import { momentOf, numberOf } from "./time.ts";

const SURE =
  /(?:°|º|deg(?:rees)?\.?)\s*([CF])(?:elsius|ahrenheit)?\b|\b(celsius|fahrenheit)\b|[_/([,]\s*([CF])[\])]?$/i;
/** A letter behind a blank: a unit, or the third of probes called A, B and C. */
const BARE = /\s([CF])$/i;
const TIME =
  /time|clock|elapsed|second|minute|^(s|sec|secs|t|min|ms)$|\((s|sec|min|ms)\)|\[(s|sec|min|ms)\]/i;

export type Unit = "C" | "F";
const letterOf = (m: RegExpExecArray | null): Unit | undefined => {
  const letter = m && (m[1] ?? m[2]?.[0] ?? m[3]);
  return letter ? (letter.toUpperCase() as Unit) : undefined;
};
/** °C or °F, where a text says it. */
export const unitOf = (heading: string): Unit | undefined => letterOf(SURE.exec(heading.trim()));

/** Names and units of the probes' headings. A letter behind a blank is a unit where every heading ends in the same one. */
export function headingsOf(headings: readonly string[]): {
  readonly names: readonly string[];
  readonly units: readonly (Unit | undefined)[];
} {
  const bare = headings.map((h) => letterOf(BARE.exec(h.trim())));
  const isBare = bare.every((b) => b !== undefined && b === bare[0]);
  const without = (h: string, unit: RegExp) =>
    h
      .trim()
      .replace(unit, "")
      .replace(/[\s_/([,:-]+$|[\])]+$/g, "")
      .replace(/[\s_/([,:-]+$/g, "")
      .trim();
  return {
    names: headings.map((h) => without(unitOf(h) || !isBare ? h : h.trim().replace(BARE, ""), SURE)),
    units: headings.map((h, i) => unitOf(h) ?? (isBare ? bare[i] : undefined)),
  };
}

/** Seconds in one of a time column's plain numbers. */
export function secondsIn(heading: string): number {
  const says = (unit: string) => new RegExp(`(^|[^a-z])${unit}($|[^a-z:])`, "i").test(heading);
  if (says("ms|milli\\w*") || /milli/i.test(heading)) return 0.001;
  // "mm:ss" and "min:s" are clocks
  if (/:/.test(heading)) return 1;
  if (says("min(ute)?s?")) return 60;
  return says("h(ou)?rs?|hours?|h") ? 3600 : 1;
}

const COUNTS = /^(no|nr|#|n|index|idx|samples?|row|record|scan)\.?$/i;
const DAYS = /^(date|day)\.?$/i;
const WORDS = /^(events?|status|notes?|comments?|markers?|remarks?)\.?$/i;
/**
 * Whether a column is no probe: it counts its rows, holds days, or words. What is called so and holds temperatures is one.
 * @returns true for words, whose column is worth naming; "bare" for what nobody misses
 */
export function asideOf(heading: string, column: readonly string[]): "words" | "bare" | undefined {
  const filled = column.map((c) => c.trim()).filter((c) => c !== "");
  const numbers = filled.map(numberOf);
  if (WORDS.test(heading)) return numbers.every((v) => v === undefined) ? "words" : undefined;
  if (DAYS.test(heading)) return numbers.every((v) => v === undefined) ? "bare" : undefined;
  const isCount = numbers.every(
    (v, i) => v !== undefined && (i === 0 || v - numbers[i - 1]! === numbers[1]! - numbers[0]!),
  );
  return COUNTS.test(heading) && isCount ? "bare" : undefined;
}

/** A unit behind a value, in its own cell. */
export const OWN_UNIT = /\s*(?:°|º)?\s*([CF])$/i;

/** Where the samples begin, under which headings, and which column is the time. */
export interface Layout {
  readonly first: number;
  readonly time: number;
  readonly headings: readonly string[];
  readonly above: readonly string[];
}

/** @returns undefined where no row holds a time with a value beside it */
export function layoutOf(cells: Cells): Layout | undefined {
  const isTime = (cell: string) => momentOf(cell, 1, true) !== undefined;
  const isSample = (row: readonly string[]) => {
    const filled = row.filter((c) => c.trim() !== "");
    const values = filled.filter((c) => isTime(c) || numberOf(c.trim().replace(OWN_UNIT, "")) !== undefined);
    return values.length >= 2 && filled.some(isTime) && values.length >= filled.length / 2;
  };
  const first = cells.findIndex(
    (row, i) => isSample(row) && (cells[i + 1] === undefined || isSample(cells[i + 1]!)),
  );
  if (first < 0) return undefined;
  const width = Math.max(...cells.slice(first).map((r) => r.length));
  const heads = cells.slice(Math.max(0, first - 2), first).filter((r) => r.some((c) => c.trim() !== ""));
  // a row of units may stand between headings and samples
  const areUnits = (row: readonly string[]) =>
    row.every((c) =>
      /^\s*[[(]?\s*(|s|sec|seconds|min|ms|hh?:mm(:ss)?|mm:ss|(°|º)?\s*[CF]|celsius|fahrenheit)\s*[\])]?\s*$/i.test(
        c,
      ),
    );
  const [upper, lower] = heads.length === 2 && areUnits(heads[1]!) ? heads : [undefined, heads.at(-1)];
  const headings = Array.from({ length: width }, (_, k) =>
    [upper?.[k], lower?.[k]]
      .map((h) => h?.trim() ?? "")
      .filter(Boolean)
      .join(" "),
  );
  const rows = cells.slice(first);
  const canBe = (k: number) => rows.filter((r) => isTime(r[k] ?? "")).length >= rows.length / 2;
  const columns = Array.from({ length: width }, (_, k) => k).filter(canBe);
  const isClock = (k: number) => (rows[0]?.[k] ?? "").includes(":");
  const time =
    columns.find((k) => isClock(k)) ??
    columns.find((k) => TIME.test(headings[k]!)) ??
    columns.find((k) => !COUNTS.test(headings[k]!));
  if (time === undefined) return undefined;
  // samples of probes that were not joined yet stand before the first that reads
  let begin = first;
  while (
    begin > 0 &&
    isTime(cells[begin - 1]![time] ?? "") &&
    cells[begin - 1]!.some((c) => c.trim() === "" || isDead(c))
  )
    begin--;
  return { first: begin, time, headings, above: cells.slice(0, begin).flat() };
}

const DEAD =
  /^(open|nan|null|n\/?a|-+|—|\?+|err(or)?|ol|o\.l\.?|over(load)?|inf(inity)?|fault|no ?(probe|tc)|disconnected)$/i;
/** What a logger writes for a probe that is not joined. */
export const isDead = (cell: string): boolean => DEAD.test(cell.trim());

/**
 * Whether two parts of a clock are minutes and seconds: so the heading says, or its first part is no hour. A log of one
 * sample a minute under a heading that says neither looks the same: that it is taken so is told.
 */
export function areMinutes(
  rows: Cells,
  { time, headings }: Layout,
): { readonly areMinutes: boolean; readonly isTaken: boolean } {
  const heading = headings[time]!;
  if (/hh?:mm/i.test(heading)) return { areMinutes: false, isTaken: false };
  const firsts = rows.flatMap((r) => /^\s*(\d{1,3}):\d{1,2}\s*$/.exec(r[time] ?? "")?.[1] ?? []);
  const isSaid = /m:ss/i.test(heading) || firsts.some((v) => Number(v) > 23);
  return { areMinutes: true, isTaken: firsts.length > 0 && !isSaid };
}
