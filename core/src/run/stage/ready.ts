import { normalCdf } from "../../sums/evaluate.ts";

/** Days of the branches that must meet. */
export interface Branches {
  /** Least and most days until the last parcel of parts. */
  readonly partsDays: readonly [number, number];
  readonly fabDays: number;
  readonly fabSigma: number;
  readonly houseDays: number;
  readonly ownDays: number;
}

/** When good boards lie on the bench, as a range, with the sum behind it. */
export interface ReadyBy {
  readonly p10: string;
  readonly p50: string;
  readonly p90: string;
  readonly days: number;
  readonly sum: readonly { readonly label: string; readonly days: number; readonly note?: string }[];
}

/** Quantile of the normal distribution at 90 %. */
const Z90 = 1.2816;
/** Days by which an assembly house is early or late, and the share by which own work is: deviations. */
const HOUSE_SIGMA = 1.5;
const OWN_SIGMA = 0.15;
/** Days are told apart to this part of a day, about nine seconds. */
const STEP = 1e-4;

interface Normal {
  readonly mean: number;
  readonly sigma: number;
}

const cdf = ({ mean, sigma }: Normal, x: number): number =>
  sigma > 0 ? normalCdf((x - mean) / sigma) : x >= mean ? 1 : 0;

/** The later work's deviations from −5 to 5 with their weights: the trapezoid rule on a bell is exact long before. */
const BELL: readonly (readonly [z: number, weight: number])[] = (() => {
  const z = Array.from({ length: 41 }, (_, k) => -5 + k / 4);
  const total = z.reduce((n, v) => n + Math.exp((-v * v) / 2), 0);
  return z.map((v) => [v, Math.exp((-v * v) / 2) / total] as const);
})();

/**
 * Days after which the share `q` of cases is done: the later of branches that run beside each other, and then work.
 *
 * Exact for independent normal branches: P(max + S ≤ t) = ∫ φ_S(s) ∏ Φ_i(t − s) ds, by the trapezoid rule, solved for t
 * by halving to a ten-thousandth of a day. So each quantile is that of the later branch, and a slower branch never brings one forward.
 */
export function laterOf(q: number, branches: readonly Normal[], after: Normal): number {
  const done = (t: number): number => {
    if (branches.length === 0) return cdf(after, t);
    const all = (x: number) => branches.reduce((p, b) => p * cdf(b, x), 1);
    if (after.sigma === 0) return all(t - after.mean);
    return BELL.reduce((sum, [z, weight]) => sum + weight * all(t - after.mean - z * after.sigma), 0);
  };
  const spread = 10 * (after.sigma + branches.reduce((s, b) => Math.max(s, b.sigma), 0)) + 1;
  const middle = after.mean + branches.reduce((m, b) => Math.max(m, b.mean), 0);
  // the first step of a grid that does not move with the question: what differs by a rounding has the same answer
  let [low, high] = [Math.floor((middle - spread) / STEP), Math.ceil((middle + spread) / STEP)];
  while (high - low > 1) {
    const k = Math.floor((low + high) / 2);
    if (done(k * STEP) < q) low = k;
    else high = k;
  }
  return high * STEP;
}

/**
 * Ready-by range: the later of parts and boards, one day to receive, then assembly and own work (domain.md 8, timeline as
 * the critical path). A supplier's range is its 10 to 90 %; a house is late or early by its own deviation, an assembly
 * house by a day and a half, own work by 15 %. Days are days of the calendar from the day given; nothing is done before it.
 */
export function readyBy(today: string, b: Branches): ReadyBy {
  // most of a run's alternatives change no day: the same question is asked some dozens of times in a row
  const key = `${today} ${b.partsDays} ${b.fabDays} ${b.fabSigma} ${b.houseDays} ${b.ownDays}`;
  let known = asked.get(key);
  if (!known) {
    if (asked.size >= MOST_ASKED) asked.clear();
    known = worked(today, b);
    asked.set(key, known);
  }
  return known;
}

const asked = new Map<string, ReadyBy>();
const MOST_ASKED = 200;

function worked(today: string, b: Branches): ReadyBy {
  const branches: Normal[] = [];
  if (b.partsDays[1] > 0)
    branches.push({
      mean: (b.partsDays[0] + b.partsDays[1]) / 2,
      sigma: (b.partsDays[1] - b.partsDays[0]) / 2 / Z90,
    });
  if (b.fabDays > 0) branches.push({ mean: b.fabDays, sigma: b.fabSigma });
  const receive = branches.length > 0 ? 1 : 0;
  const own = b.ownDays;
  const after: Normal = {
    mean: receive + b.houseDays + own,
    sigma: Math.hypot(b.houseDays > 0 ? HOUSE_SIGMA : 0, OWN_SIGMA * own),
  };
  const [p10, p50, p90] = [0.1, 0.5, 0.9].map((q) => Math.max(0, laterOf(q, branches, after))) as [
    number,
    number,
    number,
  ];
  // a step of rounding makes no day more
  const at = (d: number) =>
    new Date(Date.parse(today) + Math.ceil(d - 1.5 * STEP) * 86_400_000).toISOString().slice(0, 10);
  const isParts = (b.partsDays[0] + b.partsDays[1]) / 2 > b.fabDays;
  const wait = Math.max(0, p50 - after.mean);
  const others = `boards take about ${Math.round(b.fabDays)}, parts ${b.partsDays[0]} to ${b.partsDays[1]}; in half of cases the later is there by then`;
  return {
    p10: at(p10),
    p50: at(p50),
    p90: at(p90),
    days: p50,
    sum: [
      ...(branches.length === 0
        ? []
        : [
            {
              label:
                branches.length === 2
                  ? "the later of parts and boards"
                  : isParts
                    ? "parts on their way"
                    : "bare boards",
              days: wait,
              ...(branches.length === 2 ? { note: others } : {}),
            },
          ]),
      ...(receive ? [{ label: "receive and count", days: receive }] : []),
      ...(b.houseDays > 0 ? [{ label: "assembly house", days: b.houseDays }] : []),
      { label: "own work", days: own, note: "hours at the shop's hours a day" },
    ],
  };
}
