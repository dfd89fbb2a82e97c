import type { Cells } from "../table/columns.ts";
import { momentOf, numberOf } from "./time.ts";

const UNIT =
  /(?:°|º|deg(?:rees)?\.?)\s*([CF])(?:elsius|ahrenheit)?\b|\b(celsius|fahrenheit)\b|[\s_/([,]([CF])[\])]?$/i;
export const NOT_A_PROBE =
  /^(no|nr|#|n|index|idx|sample|samples|row|record|scan|date|day|event|status|note|comment|marker)\.?$/i;
const TIME =
  /time|clock|elapsed|second|minute|^(s|sec|secs|t|min|ms)$|\((s|sec|min|ms)\)|\[(s|sec|min|ms)\]/i;

/** °C or °F, where a heading says it. */
export const unitOf = (heading: string): "C" | "F" | undefined => {
  const m = UNIT.exec(heading.trim());
  const letter = m && (m[1] ?? m[2]?.[0] ?? m[3]);
  return letter ? (letter.toUpperCase() as "C" | "F") : undefined;
};
/** A heading without its unit. */
export const nameOf = (heading: string): string =>
  heading
    .trim()
    .replace(UNIT, "")
    .replace(/[\s_/([,:-]+$|[\])]+$/g, "")
    .replace(/[\s_/([,:-]+$/g, "")
    .trim();

/** Seconds in one of a time column's plain numbers. */
export const secondsIn = (heading: string): number =>
  /milli|\bms\b/i.test(heading)
    ? 0.001
    : /\bmin(ute)?s?\b/i.test(heading) && !/min.*s(ec)?\b/i.test(heading)
      ? 60
      : 1;

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
    columns.find((k) => !NOT_A_PROBE.test(headings[k]!));
  return time === undefined ? undefined : { first, time, headings, above: cells.slice(0, first).flat() };
}

/** Two parts of a clock are minutes and seconds, unless the heading says hours or their first ones are those of a day. */
export function areMinutes(rows: Cells, { time, headings }: Layout): boolean {
  const heading = headings[time]!;
  if (/mm?:ss/i.test(heading)) return true;
  if (/hh?:mm/i.test(heading)) return false;
  const firsts = rows
    .map((r) => /^\s*(\d{1,3}):\d{1,2}\s*$/.exec(r[time] ?? "")?.[1])
    .filter((x) => x !== undefined);
  // a log of one day's clock without seconds would have a sample a minute at most
  return firsts.length > 0;
}
