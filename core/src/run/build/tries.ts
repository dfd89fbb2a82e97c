import { AppError } from "../../errors.ts";
import { readingShape } from "../../shape/test-item.ts";
import {
  type Capability,
  capabilityOf,
  hasLimit,
  judgeReading,
  type Limits,
  limitsWrong,
  type TryVerdict,
} from "../../testing/verdict.ts";
import type { TestItem } from "../document/document.ts";
import type { TestTry } from "../document/record.ts";
import { linesOfUnit } from "./lines.ts";

/** What a try came to, as it was answered: a reading, yes or no, or that nothing could be read. */
export interface TrySaid {
  readonly value?: string | undefined;
  readonly bound?: ">" | "<" | undefined;
  readonly says?: "yes" | "no" | "error" | undefined;
}

/** Unit and limits of an item, as a try keeps them. */
export const limitsOf = (t: TestItem): TestTry["limits"] => ({
  ...(t.unit === undefined ? {} : { unit: t.unit }),
  ...(t.min === undefined ? {} : { min: t.min }),
  ...(t.max === undefined ? {} : { max: t.max }),
  ...(t.guard === undefined ? {} : { guard: t.guard }),
});

/**
 * What an answer is to an item of the plan. A reading is held against the item's limits, and only against those; that it
 * plainly fails may be said without one, that it passes never.
 * @throws AppError OUT_OF_RANGE where an answer and its item do not go together, or its limits cannot judge
 */
export function judgeTry(t: TestItem, { value, bound, says }: TrySaid): TryVerdict {
  const refuse = (text: string, hint: string): never => {
    throw new AppError("OUT_OF_RANGE", text, hint);
  };
  if (says === "error" && value === undefined) return "error";
  if (t.unit === undefined) {
    if (value !== undefined || says === undefined || says === "error")
      return refuse(`${t.name} is answered by yes or no.`, "Say which.");
    return says === "yes" ? "pass" : "fail";
  }
  // smoke needs no reading
  if (value === undefined && says === "no") return "fail";
  if (value === undefined || says !== undefined || readingShape(value, "") !== undefined)
    return refuse(`${t.name} is answered by a reading in ${t.unit}.`, "Type what the meter shows.");
  const why = hasLimit(t) ? limitsWrong(t) : undefined;
  if (why) return refuse(`${t.name} cannot be judged: ${why}.`, "Correct its limits in the next release.");
  return judgeReading(t, value, bound);
}

/** What of an item decides when it is tried, and what becomes of it. */
export type PlannedTest = Pick<TestItem, "id" | "name" | "besides" | "unit" | "point">;

/** How an item stands on one board: every try in the order in which they were made. */
export interface ItemStand<T extends PlannedTest = TestItem> {
  readonly item: T;
  readonly tries: readonly TestTry[];
  /** What it came to in the end; open while nothing was tried or nothing could be read. */
  readonly stand: "pass" | "fail" | "open";
  /** Why it fails though its reading passes: it lies too far off the line it is a point of. */
  readonly because?: string;
}

/** The plan on one board, item by item; a point that lies too far off its line fails, whatever its own limits say. */
export const standsOfUnit = <T extends PlannedTest>(
  plan: readonly T[],
  tries: readonly TestTry[],
  unit: number,
): ItemStand<T>[] => {
  const off = new Map(
    linesOfUnit(plan, tries, unit).flatMap((l) => (l.off ? [[l.off.item.id, l.off.because] as const] : [])),
  );
  return plan.map((item) => {
    const own = tries.filter((t) => t.unit === unit && t.item === item.id);
    const last = own.at(-1);
    const because = off.get(item.id);
    if (because !== undefined) return { item, tries: own, stand: "fail", because };
    // a reading that only says more or less is no point: no line comes of it, so nothing passes by it
    const isNone = last?.verdict === "pass" && item.point !== undefined && last.bound !== undefined;
    const isOpen = last === undefined || last.verdict === "error" || isNone;
    return { item, tries: own, stand: isOpen ? "open" : (last.verdict as "pass" | "fail") };
  });
};

/** What is tried at the bench; where nothing is, all of it. */
const benchOf = <T extends PlannedTest>(stands: readonly ItemStand<T>[]): readonly ItemStand<T>[] => {
  const bench = stands.filter((s) => !s.item.besides);
  return bench.length > 0 ? bench : stands;
};

/**
 * What the tests say of a board: every item passed in the end, one fails, or some are open. What is tried besides the bench
 * makes none open: it is told by itself; where it failed the board fails.
 */
export function verdictOfUnit(stands: readonly ItemStand<PlannedTest>[]): "pass" | "fail" | "open" {
  if (stands.some((s) => s.stand === "fail")) return "fail";
  return stands.length > 0 && benchOf(stands).every((s) => s.stand === "pass") ? "pass" : "open";
}

/** An item over all boards. */
export interface ItemSum {
  readonly item: TestItem;
  /** Boards on which it was judged, and how many of them passed it at the first judged try. */
  readonly units: number;
  readonly firstPass: number;
  readonly failing: number;
  /** Tries in which nothing could be read. */
  readonly errors: number;
  /** The last reading of each board, in the limits' unit, the oldest board first; those that only say more or less are left out. */
  readonly readings: readonly {
    readonly unit: number;
    readonly value: number;
    readonly verdict: TryVerdict;
  }[];
  readonly capability?: Capability;
}

const sameLimits = (a: Limits & { unit?: string }, b: Limits & { unit?: string }) =>
  a.unit === b.unit && a.min === b.min && a.max === b.max;

/**
 * Each item over all boards. First pass counts the first try that was judged, whatever came after (domain.md 9.6). How its
 * readings lie is told of those that were held against the limits of today.
 */
export function sumsOfItems(plan: readonly TestItem[], tries: readonly TestTry[]): ItemSum[] {
  return plan.map((item) => {
    const own = tries.filter((t) => t.item === item.id);
    const units = [...new Set(own.map((t) => t.unit))].sort((a, b) => a - b);
    const judged = units
      .map((u) => own.filter((t) => t.unit === u && t.verdict !== "error"))
      .filter((l) => l.length > 0);
    const limits = limitsOf(item);
    const readings = judged.flatMap((l) => {
      const last = l.at(-1)!;
      return last.value !== undefined && last.bound === undefined && sameLimits(last.limits, limits)
        ? [{ unit: last.unit, value: Number(last.value), verdict: last.verdict }]
        : [];
    });
    const capability = capabilityOf(
      readings.map((r) => r.value),
      limits,
    );
    return {
      item,
      units: judged.length,
      firstPass: judged.filter((l) => l[0]!.verdict === "pass").length,
      failing: judged.filter((l) => l.at(-1)!.verdict === "fail").length,
      errors: own.filter((t) => t.verdict === "error").length,
      readings,
      ...(capability ? { capability } : {}),
    };
  });
}

/** Boards by what the tests say of them, and how many passed every item at its first judged try. */
export function firstPassOf(
  plan: readonly TestItem[],
  tries: readonly TestTry[],
): { readonly tried: number; readonly passed: number; readonly failing: number; readonly first: number } {
  const units = [...new Set(tries.map((t) => t.unit))];
  const stands = units.map((u) => standsOfUnit(plan, tries, u));
  const n = (is: "pass" | "fail") => stands.filter((s) => verdictOfUnit(s) === is).length;
  // a point that was read anew was off its line before
  const isFirst = (s: readonly ItemStand[]) =>
    verdictOfUnit(s) === "pass" &&
    benchOf(s).every(({ item, tries: all }) => {
      const judged = all.filter((t) => t.verdict !== "error");
      return judged[0]?.verdict === "pass" && (item.point === undefined || judged.length === 1);
    });
  return { tried: units.length, passed: n("pass"), failing: n("fail"), first: stands.filter(isFirst).length };
}
