import { later } from "../../day.ts";
import type { TestItem } from "../document/document.ts";
import { type RunRecord, tallyOf } from "../document/record.ts";
import { type PlannedTest, standsOfUnit, verdictOfUnit } from "./tries.ts";

/** An item that is tried besides the bench, on one board. */
export interface BesideTest<T extends PlannedTest = TestItem> {
  readonly item: T;
  readonly unit: number;
  /** ISO day from which it may be tried. */
  readonly from: string;
  readonly is: "coming" | "due" | "pass" | "fail";
}

/**
 * What is to be tried besides the bench, board by board: days count from the last try at the bench of a board that passes
 * there; where the bench tries nothing, from the last day on which boards were counted as good. Of an item for so many boards
 * those it was tried on come first, then the lowest numbers.
 *
 * @param today ISO day
 * @returns by day, then by item as planned and board
 */
export function besideTests<T extends PlannedTest>(
  plan: readonly T[],
  record: Pick<RunRecord, "tries" | "work">,
  today: string,
): BesideTest<T>[] {
  const tries = record.tries ?? [];
  const bench = plan.filter((t) => !t.besides);
  const ids = new Set(bench.map((t) => t.id));
  const begun = new Map<number, string>();
  if (bench.length > 0) {
    for (const unit of new Set(tries.map((t) => t.unit)))
      if (verdictOfUnit(standsOfUnit(bench, tries, unit)) === "pass")
        begun.set(
          unit,
          tries
            .filter((t) => t.unit === unit && ids.has(t.item))
            .reduce((on, t) => (t.on > on ? t.on : on), ""),
        );
  } else {
    const on = record.work.filter((w) => w.good > 0).reduce((d, w) => (w.on > d ? w.on : d), "");
    for (let unit = 1; unit <= tallyOf(record.work).good; unit++) begun.set(unit, on);
  }
  const out = plan.flatMap((item): BesideTest<T>[] => {
    if (!item.besides) return [];
    const stands = new Map(
      [...new Set([...begun.keys(), ...tries.filter((t) => t.item === item.id).map((t) => t.unit)])].map(
        (unit) => [unit, standsOfUnit([item], tries, unit)[0]!] as const,
      ),
    );
    const isTried = (unit: number) => stands.get(unit)!.stand !== "open";
    const units = [...stands.keys()].sort((a, b) => Number(isTried(b)) - Number(isTried(a)) || a - b);
    const tried = units.filter(isTried).length;
    const many = Math.max(tried, item.besides.boards ?? units.length);
    return units.slice(0, many).map((unit): BesideTest<T> => {
      const { stand, tries: own } = stands.get(unit)!;
      const since = begun.get(unit);
      const from = since === undefined ? own[0]!.on : later(since, item.besides!.days ?? 0);
      return { item, unit, from, is: stand !== "open" ? stand : from <= today ? "due" : "coming" };
    });
  });
  return out.sort((a, b) => a.from.localeCompare(b.from));
}
