import type { Happened } from "./stage.ts";

/** Own minutes for a board that was started, for one as planned; as planned where none are written down. */
export const hoursUsed = ({ w, tally, counts }: Pick<Happened, "w" | "tally" | "counts">): number =>
  tally.minutes > 0 ? tally.minutes / counts.actual.started / (w.minutes.total / w.start) : 1;
