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

/**
 * Ready-by range: the later of parts and boards, one day to receive, then assembly and own work.
 *
 * The middle is the sum of the branches' middles on the critical path; the spread adds their deviations in squares
 * (supplier range as P10…P90, house delay σ, own work 15 %). Dates are working from the day given.
 */
export function readyBy(today: string, b: Branches): ReadyBy {
  const parts = (b.partsDays[0] + b.partsDays[1]) / 2;
  const partsSigma = (b.partsDays[1] - b.partsDays[0]) / 2 / Z90;
  const isParts = parts > b.fabDays;
  const wait = Math.max(parts, b.fabDays);
  const receive = wait > 0 ? 1 : 0;
  const own = b.ownDays;
  const days = wait + receive + b.houseDays + own;
  const sigma = Math.hypot(isParts ? partsSigma : b.fabSigma, b.houseDays > 0 ? 1.5 : 0, 0.15 * own);
  const early = Math.max(isParts ? b.partsDays[0] : 0, days - Z90 * sigma);
  const at = (d: number) =>
    new Date(Date.parse(today) + Math.ceil(d) * 86_400_000).toISOString().slice(0, 10);
  return {
    p10: at(early),
    p50: at(days),
    p90: at(days + Z90 * sigma),
    days,
    sum: [
      {
        label: isParts ? "parts on their way" : "bare boards",
        days: wait,
        note: isParts ? `boards take ${b.fabDays}` : `parts take ${b.partsDays[0]} to ${b.partsDays[1]}`,
      },
      ...(receive ? [{ label: "receive and count", days: receive }] : []),
      ...(b.houseDays > 0 ? [{ label: "assembly house", days: b.houseDays }] : []),
      { label: "own work", days: own, note: "hours at the shop's hours a day" },
    ],
  };
}
