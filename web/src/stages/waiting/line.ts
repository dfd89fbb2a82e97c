import type { WaitingRow } from "@kobbin/contract";

/** A stretch of days that all rows are drawn over, ISO, and where a day lies in it, 0 to 1. */
export interface Line {
  readonly from: string;
  readonly to: string;
  readonly at: (day: string) => number;
}

const ms = (day: string) => Date.parse(day);
const DAY = 86_400_000;
/** So many days at least, so that a single order is not drawn a day wide. */
const LEAST_DAYS = 14;

/** From the first day anything is waited for to the last anything is to be here, today within. */
export function lineOf(rows: readonly Pick<WaitingRow, "waits" | "to">[], today: string): Line {
  const days = [today, ...rows.flatMap((r) => [r.waits.since, ...(r.to ? [r.to] : [])])].map(ms);
  const first = Math.min(...days) - DAY;
  const last = Math.max(...days, first + LEAST_DAYS * DAY) + DAY;
  const iso = (t: number) => new Date(t).toISOString().slice(0, 10);
  return { from: iso(first), to: iso(last), at: (day) => (ms(day) - first) / (last - first) };
}

/** Mondays of a stretch, at most so many: every second, third, … of them where there are more. */
export function mondaysOf({ from, to }: Line, most = 8): string[] {
  const all: string[] = [];
  for (let t = ms(from); t <= ms(to); t += DAY)
    if (new Date(t).getUTCDay() === 1) all.push(new Date(t).toISOString().slice(0, 10));
  const step = Math.max(1, Math.ceil(all.length / most));
  return all.filter((_, i) => i % step === 0);
}

/** What is still to be paid, by currency. */
export function toPay(
  rows: readonly Pick<WaitingRow, "isPaid" | "currency" | "total">[],
): [string, number][] {
  const sums = new Map<string, number>();
  for (const r of rows)
    if (!r.isPaid) sums.set(r.currency, (sums.get(r.currency) ?? 0) + Math.round(Number(r.total) * 1e6));
  return [...sums].map(([currency, micros]) => [currency, micros / 1e6]);
}
