import type { RunRow } from "@kobbin/contract";

/** Soonest first, of the same day the one with more money in it; a run nobody has counted yet goes last. */
export const bySoonest = (a: RunRow, b: RunRow): number =>
  (a.summary?.readyFrom ?? "9999").localeCompare(b.summary?.readyFrom ?? "9999") ||
  (b.summary?.cashNeeded ?? 0) - (a.summary?.cashNeeded ?? 0);
