import type { Minutes } from "./minutes.ts";
import type { Happened } from "./stage.ts";

/** Own minutes of so many that are started where the plan was for others: set-up and kitting are done once for either. */
export function minutesFor({ setup, kitting, total }: Minutes, planned: number, started: number): number {
  const once = setup + kitting;
  return once + ((total - once) * started) / planned;
}

/** Own minutes written down, for one as planned for the boards that were started; as planned where none are. */
export const hoursUsed = ({ w, tally, counts }: Pick<Happened, "w" | "tally" | "counts">): number =>
  tally.minutes > 0 ? tally.minutes / minutesFor(w.minutes, w.start, counts.actual.started) : 1;
