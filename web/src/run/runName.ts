import { format } from "date-fns";

/** A name that tells a run among others: how many, of which revision, begun when. */
export const runName = (goodBoards: number, revision: string, now: Date = new Date()): string =>
  `${goodBoards} of ${revision.slice(0, 40)}, ${format(now, "MMM yyyy")}`;
