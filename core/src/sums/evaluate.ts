import { readAmount } from "../library/compare.ts";
import { type SideFigure, type SumKind, sumKind } from "./kinds.ts";

/** A sum attached to a bill: what was typed, and which lines the rest is read from. */
export interface AttachedSum {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  /** Input key → text as typed, with its unit; a tolerance after ± where it has one: "3.3 V ± 5 %". */
  readonly given: Readonly<Record<string, string>>;
  /** Input key → line id. */
  readonly lines: Readonly<Record<string, string>>;
  /** The figure that is wanted, as typed; empty where only the sum is kept. */
  readonly wanted: string;
  /** By how much it may differ, per cent. */
  readonly withinPct: number;
}

/** A number with how far it may be off. */
export interface Toleranced {
  readonly nominal: number;
  /** Share, 0.01 for 1 %. */
  readonly tolerance: number;
}

/** What a sum comes to. */
export interface SumResult {
  readonly value: number;
  readonly beside: readonly SideFigure[];
  /** Least and most when every number is off as far as it may be. */
  readonly worst: readonly [number, number];
  /** One sigma of the figure, when tolerances are three sigma of independent parts. */
  readonly sigma: number;
  /** The input that moves the figure most, with its share of the variance. */
  readonly leads?: { readonly key: string; readonly share: number };
  /** Share of units outside the wanted band, where one is wanted. */
  readonly outside?: number;
}

/** Reads "3.3 V ± 5 %" or "3.3 V". */
export function readToleranced(text: string): Toleranced | undefined {
  const [main = "", tol] = text.split("±");
  const nominal = readAmount(main);
  if (nominal === undefined) return undefined;
  const pct = tol === undefined ? 0 : (readAmount(tol) ?? Number.NaN);
  if (!Number.isFinite(pct) || pct < 0) return undefined;
  const isShare = tol?.includes("%") ?? true;
  return { nominal, tolerance: isShare ? pct / 100 : Math.abs(pct / nominal) };
}

/** Standard normal distribution function (Abramowitz & Stegun 26.2.17, error below 7.5e-8). */
export function normalCdf(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const poly =
    t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  const tail = (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * poly;
  return x >= 0 ? 1 - tail : tail;
}

/**
 * Evaluates a sum with its tolerances.
 *
 * Worst case: the figure at every corner of the tolerances, which holds its extremes since every sum here rises or falls
 * with each of its numbers. Statistical: σ = √Σ(∂f/∂x · t·x/3)², tolerances taken as three sigma of independent, centred
 * parts (domain.md 5.4); the share outside a band from the normal distribution.
 *
 * @param band least and most wanted, in SI
 * @returns undefined where a number is missing or the figure is none
 */
export function evaluateSum(
  kind: SumKind,
  inputs: Readonly<Record<string, Toleranced>>,
  band?: readonly [number, number],
): SumResult | undefined {
  if (kind.inputs.some((i) => !i.isOptional && inputs[i.key] === undefined)) return undefined;
  const nominal = Object.fromEntries(Object.entries(inputs).map(([k, v]) => [k, v.nominal]));
  const value = kind.compute(nominal);
  if (!Number.isFinite(value)) return undefined;
  const loose = Object.entries(inputs).filter(([, v]) => v.tolerance > 0 && v.nominal !== 0);
  let [least, most] = [value, value];
  for (let mask = 0; mask < 2 ** loose.length; mask++) {
    const corner = { ...nominal };
    loose.forEach(([k, v], i) => {
      corner[k] = v.nominal * (1 + (mask & (1 << i) ? v.tolerance : -v.tolerance));
    });
    const f = kind.compute(corner);
    least = Math.min(least, f);
    most = Math.max(most, f);
  }
  const parts = loose.map(([key, v]) => {
    const step = v.nominal * 1e-6;
    const slope =
      (kind.compute({ ...nominal, [key]: v.nominal + step }) -
        kind.compute({ ...nominal, [key]: v.nominal - step })) /
      (2 * step);
    return { key, variance: ((slope * v.nominal * v.tolerance) / 3) ** 2 };
  });
  const variance = parts.reduce((s, p) => s + p.variance, 0);
  const sigma = Math.sqrt(variance);
  const first = [...parts].sort((a, b) => b.variance - a.variance)[0];
  const outside =
    band === undefined
      ? undefined
      : sigma === 0
        ? Number(value < band[0] || value > band[1])
        : normalCdf((band[0] - value) / sigma) + 1 - normalCdf((band[1] - value) / sigma);
  return {
    value,
    beside: kind.beside(nominal),
    worst: [least, most],
    sigma,
    ...(first && variance > 0 ? { leads: { key: first.key, share: first.variance / variance } } : {}),
    ...(outside === undefined ? {} : { outside }),
  };
}

/** A sum of a bill as it stands now. */
export interface StandingSum {
  readonly kind: SumKind;
  readonly inputs: Readonly<Record<string, Toleranced>>;
  /** Inputs that cannot be read: a line without a value, a text that is no number. */
  readonly missing: readonly string[];
  readonly result?: SumResult;
  readonly band?: readonly [number, number];
  /** The figure lies outside of what is wanted; undefined where nothing is wanted. */
  readonly isOff?: boolean;
}

/**
 * Works an attached sum out with the values the lines have now.
 * @param readLine value and tolerance of a line, undefined where it has none
 */
export function standingSum(
  sum: Omit<AttachedSum, "id" | "name">,
  readLine: (lineId: string) => Toleranced | undefined,
): StandingSum | undefined {
  const kind = sumKind(sum.kind);
  if (!kind) return undefined;
  const inputs: Record<string, Toleranced> = {};
  const missing: string[] = [];
  for (const i of kind.inputs) {
    const line = sum.lines[i.key];
    const text = sum.given[i.key] ?? "";
    const read = line ? readLine(line) : text === "" ? undefined : readToleranced(text);
    if (read) inputs[i.key] = read;
    else if (!i.isOptional || line || text !== "") missing.push(i.key);
  }
  const wanted = sum.wanted === "" ? undefined : readAmount(sum.wanted);
  const off = wanted === undefined ? 0 : Math.abs(wanted) * (sum.withinPct / 100);
  const band = wanted === undefined ? undefined : ([wanted - off, wanted + off] as const);
  const result = missing.length > 0 ? undefined : evaluateSum(kind, inputs, band);
  const eps = band ? 1e-9 * Math.abs(wanted!) : 0;
  return {
    kind,
    inputs,
    missing,
    ...(result ? { result } : {}),
    ...(band ? { band } : {}),
    ...(result && band ? { isOff: result.value < band[0] - eps || result.value > band[1] + eps } : {}),
  };
}
