import type { RunRow } from "@kobbin/contract";

/** Whether a released run was to be ready before today, and is not put away. */
export const isLate = (r: RunRow, today: string): boolean =>
  r.state === "released" && !r.isClosed && r.summary !== undefined && r.summary.readyTo < today;

/** State of a run that is decided upon: released, late, or closed. */
export const stateWords = (r: RunRow, today: string): string =>
  r.isClosed ? "closed" : isLate(r, today) ? "released, late" : "released";

/** What a released run asks for next, and where that is done. */
export interface Asked {
  readonly text: string;
  readonly todo: string;
  readonly stage: string;
}

/** What is next for a released run, by what was counted of it so far. */
export function askedOf(r: RunRow): Asked {
  const { started, good, scrapped } = r.built ?? { started: 0, good: 0, scrapped: 0 };
  const open = started - good - scrapped;
  if (started === 0)
    return { text: "what was ordered is to come.", todo: "Count what comes.", stage: "receive" };
  if (open > 0 || good < r.goodBoards)
    return {
      text: `${good} of ${r.goodBoards} are good${open > 0 ? `, ${open} on the bench` : ""}${scrapped > 0 ? `, ${scrapped} scrapped` : ""}.`,
      todo: "Count what is built.",
      stage: "build",
    };
  return {
    text: `all ${good} are good.`,
    todo: "Close it, and say what is to be remembered.",
    stage: "build?view=actual",
  };
}
