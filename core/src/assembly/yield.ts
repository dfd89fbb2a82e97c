import { AppError } from "../errors.ts";
import type { LearnedFaults } from "./fault-kinds.ts";
import type { Method } from "./method.ts";
import type { PackageClass, PartShape } from "./package-class.ts";
import type { OwnRecord } from "./prior.ts";

/** Defects per million joints (domain.md 7.4; placeholder priors until the shop has a record). */
export const JOINT_DPMO: Readonly<Record<PackageClass, Readonly<Record<Method, number>>>> = {
  chip: { iron: 400, stencil: 250, house: 40 },
  chip0402: { iron: 900, stencil: 500, house: 60 },
  chip0201: { iron: 3000, stencil: 1500, house: 100 },
  diode: { iron: 400, stencil: 250, house: 40 },
  small: { iron: 500, stencil: 300, house: 50 },
  tab: { iron: 500, stencil: 300, house: 50 },
  gull: { iron: 500, stencil: 300, house: 50 },
  gullFine: { iron: 1500, stencil: 900, house: 120 },
  leadless: { iron: 3000, stencil: 1200, house: 150 },
  ball: { iron: 10000, stencil: 1500, house: 80 },
  connector: { iron: 800, stencil: 600, house: 120 },
  through: { iron: 400, stencil: 400, house: 200 },
  loose: { iron: 0, stencil: 0, house: 0 },
};
const PLACEMENT_DPMO = { iron: 1500, stencil: 1200, house: 60 } as const;
const REWORK_MIN: Readonly<Record<PackageClass, number>> = {
  chip: 3,
  chip0402: 3,
  chip0201: 3,
  diode: 3,
  small: 5,
  tab: 5,
  gull: 5,
  gullFine: 5,
  leadless: 12,
  ball: 40,
  connector: 5,
  through: 3,
  loose: 0,
};

/** Expected quality of one board. */
export interface YieldEstimate {
  readonly lambda: number;
  readonly firstPass: number;
  /** After rework: e^(−λ(1−r))·(1−h). */
  readonly final: number;
  /** Rework and diagnosis per board started, minutes. */
  readonly reworkMin: number;
  /** The shop's own record, where it has one: `final` is its mean then. */
  readonly record?: OwnRecord;
  /** Its own faults, where it has written some down: `lambda` and `firstPass` are by them then. */
  readonly faults?: LearnedFaults;
}

/** A part with how many of it a board holds and how it is soldered. */
export interface CountedPart extends PartShape {
  readonly count: number;
  readonly method: Method;
  /** The way of work its placing is part of, where that is another than how it is soldered. */
  readonly placing?: Method;
}

/** Minutes to find what is wrong with a board that fails (domain.md 7.4). */
export const DIAGNOSIS_MIN = 6;
/** Share of defects that can be mended, and of boards lost whatever is done (domain.md 7.4). */
export const REPAIRABLE = 0.92;
export const LOST = 0.005;

/** Expected defects of a part on one board: of its joints, of placing it, and once more where it may sit the wrong way round. */
export function defectsOf(p: CountedPart): { readonly joints: number; readonly placing: number } {
  if (p.kind === "loose" || p.count === 0) return { joints: 0, placing: 0 };
  const placing = (p.count * PLACEMENT_DPMO[p.placing ?? p.method]) / 1e6;
  return {
    joints: (p.count * p.joints * JOINT_DPMO[p.kind][p.method]) / 1e6,
    placing: p.isPolarised ? 2 * placing : placing,
  };
}

/**
 * Defect model: λ = Σ n·d/10⁶ over joints, placements and polarised placements; FPY = e^(−λ); share repairable r 0.92,
 * loss h 0.005; diagnosis 6 min per failing board (domain.md 7.4).
 */
export function estimateYield(
  parts: readonly CountedPart[],
  repairable = REPAIRABLE,
  loss = LOST,
): YieldEstimate {
  let lambda = 0;
  let minutes = 0;
  for (const p of parts) {
    const { joints, placing } = defectsOf(p);
    lambda += joints + placing;
    minutes += joints * REWORK_MIN[p.kind] + placing * 5;
  }
  const firstPass = Math.exp(-lambda);
  return {
    lambda,
    firstPass,
    final: Math.exp(-lambda * (1 - repairable)) * (1 - loss),
    reworkMin: minutes + DIAGNOSIS_MIN * (1 - firstPass),
  };
}

/** Natural logarithm of Γ(x), x > 0 (Lanczos approximation, g = 7, nine terms; relative error below 1e-13). */
export function lnGamma(x: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const z = x - 1;
  const t = z + 7.5;
  let sum = c[0]!;
  for (let i = 1; i < 9; i++) sum += c[i]! / (z + i);
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const lnChoose = (n: number, k: number) => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1);

/** P(at least k good of n) when each is good with probability y. */
export function binomialAtLeast(n: number, k: number, y: number): number {
  if (y >= 1) return n >= k ? 1 : 0;
  if (y <= 0) return k <= 0 ? 1 : 0;
  let sum = 0;
  for (let i = k; i <= n; i++) sum += Math.exp(lnChoose(n, i) + i * Math.log(y) + (n - i) * Math.log(1 - y));
  return Math.min(1, sum);
}

/** P(at least k good of n) when the yield itself is Beta(a, b): the shop's record with its prior (domain.md 7.4). */
export function betaBinomialAtLeast(n: number, k: number, a: number, b: number): number {
  const lnB = (p: number, q: number) => lnGamma(p) + lnGamma(q) - lnGamma(p + q);
  let sum = 0;
  for (let i = k; i <= n; i++) sum += Math.exp(lnChoose(n, i) + lnB(i + a, n - i + b) - lnB(a, b));
  return Math.min(1, sum);
}

/**
 * Boards to start to end with `good` at a confidence: the least n with P(at least good) ≥ confidence.
 *
 * @param chance P(at least good) for n started
 * @throws AppError OUT_OF_RANGE when even five times as many do not suffice: the process needs work, not boards
 */
export function boardsToStart(good: number, confidence: number, chance: (n: number) => number): number {
  for (let n = good; n <= Math.max(good * 5, 5); n++) if (chance(n) >= confidence) return n;
  throw new AppError(
    "OUT_OF_RANGE",
    `Even ${good * 5} boards would not give ${good} good ones with that confidence.`,
    "Improve the process first, or lower the confidence.",
  );
}
