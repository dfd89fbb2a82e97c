import Big from "big.js";

/** Limits of a reading as decimal text, in one unit; inclusive, a missing one is an open side. */
export interface Limits {
  readonly min?: string;
  readonly max?: string;
  /** What a reading may be off by, ±: both limits are drawn in by it. */
  readonly guard?: string;
}

/** What a try came to. An error says nothing of the board: nothing could be read. */
export const TRY_VERDICTS = ["pass", "fail", "error"] as const;
export type TryVerdict = (typeof TRY_VERDICTS)[number];

/**
 * Limits a reading is held against: drawn in by what it may be off by (domain.md 9.6, EX 9.4: 4.90 to 5.10 with 0.02 is
 * 4.92 to 5.08). Exact in decimals.
 */
export function testLimits({ min, max, guard = "0" }: Limits): {
  readonly min?: string;
  readonly max?: string;
} {
  return {
    ...(min === undefined ? {} : { min: Big(min).plus(guard).toFixed() }),
    ...(max === undefined ? {} : { max: Big(max).minus(guard).toFixed() }),
  };
}

/** Whether there is a limit at all: without one every reading passes. */
export const hasLimit = (l: Limits): boolean => l.min !== undefined || l.max !== undefined;

/** Why limits let nothing pass, or everything; undefined where they can judge. */
export function limitsWrong(l: Limits): string | undefined {
  if (!hasLimit(l)) return "it has no limit, so every reading passes";
  if (l.guard !== undefined && Big(l.guard).lt(0)) return "what a reading may be off by is less than nothing";
  const { min, max } = testLimits(l);
  if (min === undefined || max === undefined || Big(min).lte(max)) return undefined;
  return Big(l.min!).gt(l.max!)
    ? `its limits are crossed: at least ${l.min} and at most ${l.max}`
    : `nothing passes: ${l.min} to ${l.max}, and a reading may be off by ${l.guard}`;
}

/**
 * A reading against its limits. One that only says "more than" or "less than" passes or fails where every value it may be
 * does, and is an error where it leaves that open.
 *
 * @param value decimal text in the limits' unit
 */
export function judgeReading(l: Limits, value: string, bound?: ">" | "<"): TryVerdict {
  const { min, max } = testLimits(l);
  const isUnder = min !== undefined && Big(value).lt(min);
  const isOver = max !== undefined && Big(value).gt(max);
  if (bound === undefined) return isUnder || isOver ? "fail" : "pass";
  const isAt = (limit: string | undefined) => limit !== undefined && Big(value).eq(limit);
  if (bound === ">") return isOver || isAt(max) ? "fail" : isUnder || max !== undefined ? "error" : "pass";
  return isUnder || isAt(min) ? "fail" : isOver || min !== undefined ? "error" : "pass";
}

/** How an item's readings lie within its limits over many units. */
export interface Capability {
  readonly n: number;
  readonly mean: number;
  /** Of the sample, with n − 1; nothing of one reading. */
  readonly deviation?: number;
  /** Nothing where readings do not differ, or there is no limit. */
  readonly cpk?: number;
  /** From fewer than ten readings: a hint, no measure. */
  readonly isIndicative: boolean;
  /** Below 1.33. */
  readonly isNarrow: boolean;
}

const FEW = 10;
const NARROW = 1.33;

/**
 * Cpk = min(upper − mean, mean − lower) / 3s against the limits themselves, not those drawn in (domain.md 9.6, EX 9.5:
 * 3.409). A missing limit leaves its side out.
 *
 * @param values in the limits' unit; undefined where there are none
 */
export function capabilityOf(values: readonly number[], l: Limits): Capability | undefined {
  const n = values.length;
  if (n === 0) return undefined;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const deviation = n < 2 ? undefined : Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / (n - 1));
  const room = [
    ...(l.max === undefined ? [] : [Number(l.max) - mean]),
    ...(l.min === undefined ? [] : [mean - Number(l.min)]),
  ];
  // readings that differ by less than the last bit of a number do not differ
  const isSpread = deviation !== undefined && deviation > Math.abs(mean) * 1e-12;
  const cpk = isSpread && room.length > 0 ? Math.min(...room) / (3 * deviation) : undefined;
  return {
    n,
    mean,
    ...(deviation === undefined ? {} : { deviation }),
    ...(cpk === undefined ? {} : { cpk }),
    isIndicative: n < FEW,
    isNarrow: cpk !== undefined && cpk < NARROW,
  };
}

/**
 * Limits in words, as a reading is held against them: "3.21 to 3.39 V (3.2 to 3.4, the meter ± 0.01)", "at least 165 Ω"; nothing
 * where there are none.
 */
export function limitText(l: Limits & { readonly unit?: string }): string {
  const of = l.unit === undefined || l.unit === "" ? "" : ` ${l.unit}`;
  if (!hasLimit(l)) return "";
  const range = ({ min, max }: Limits) =>
    min === undefined
      ? `at most ${max}`
      : max === undefined
        ? `at least ${min}`
        : min === max
          ? min
          : `${min} to ${max}`;
  return l.guard === undefined || Number(l.guard) === 0
    ? `${range(l)}${of}`
    : `${range(testLimits(l))}${of} (${range(l)}, the meter ± ${l.guard})`;
}
