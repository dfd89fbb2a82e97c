import type { LotAirBody } from "@kobbin/contract";
import { type AirStep, AppError, type LotAir, MOST_AIR, moistureLevel, nextAir } from "@kobbin/core";

/** What is written in the history when it happened. */
const SAYS: Readonly<Record<AirStep, string>> = {
  dry: "lies in its dry bag",
  out: "out of its dry bag",
  baked: "baked through, back in its dry bag",
  damp: "its humidity card says it is damp",
  plain: "came in no dry bag",
};
/** A clock of a page or of another machine may be ahead by so much. */
const AHEAD_MS = 120_000;

/**
 * What is kept of a lot's dry bag after something happened to it, and what the history says of it. What was said already is
 * kept as it is: two people saw the same.
 *
 * @throws AppError OUT_OF_RANGE where it cannot have happened so
 */
export function airAfter(
  lot: { readonly mpn: string; readonly air: LotAir | undefined; readonly moisture: string },
  b: LotAirBody,
  { now, by }: { readonly now: string; readonly by: string },
): { air: LotAir | undefined; says: string } {
  if (b.is === undefined && b.floorHours === undefined)
    throw new AppError(
      "OUT_OF_RANGE",
      "Nothing is said of the bag.",
      "Say what happened to it, or what its label allows.",
    );
  if (moistureLevel(lot.moisture) === "1")
    throw new AppError(
      "OUT_OF_RANGE",
      `${lot.mpn} is of moisture level 1: it needs no dry bag.`,
      "Look at its level in the library.",
    );
  const { floorHours: was, events = [] } = lot.air ?? {};
  const floorHours = b.floorHours === undefined ? was : (b.floorHours ?? undefined);
  const after = b.is === undefined ? events : laid(lot.air, b.is, b.at, now, by);
  const says = [
    b.is === undefined ? "" : SAYS[b.is],
    b.floorHours === undefined
      ? ""
      : floorHours === undefined
        ? "out of its dry bag as long as its level says"
        : `${floorHours} h out of its dry bag by its label`,
  ]
    .filter(Boolean)
    .join(", ");
  if (after === events && floorHours === was) return { air: lot.air, says };
  const air = { ...(floorHours === undefined ? {} : { floorHours }), events: after };
  return {
    air: events.length === 0 && after.length === 0 && floorHours === undefined ? undefined : air,
    says,
  };
}

/** The events with one more. */
function laid(air: LotAir | undefined, is: AirStep, said: string | undefined, now: string, by: string) {
  const events = air?.events ?? [];
  const last = events.at(-1);
  if (last?.is === is) return events;
  if (!nextAir(air).includes(is))
    throw new AppError(
      "OUT_OF_RANGE",
      `That does not follow what was said last: ${last ? SAYS[last.is] : "nothing"}.`,
      "Reload the page; it shows what happened to the bag.",
    );
  const at = said ?? now;
  if (Date.parse(at) > Date.parse(now) + AHEAD_MS)
    throw new AppError("OUT_OF_RANGE", `${at} is still to come.`, "Say when it happened, not when it will.");
  if (last && Date.parse(at) < Date.parse(last.at))
    throw new AppError(
      "OUT_OF_RANGE",
      `At ${at} something else had not happened yet: ${SAYS[last.is]}, at ${last.at}.`,
      "Say a moment after it; what was said in error is taken back in the history.",
    );
  if (events.length >= MOST_AIR)
    throw new AppError(
      "OUT_OF_RANGE",
      `${MOST_AIR} things are written down of this bag, and no more are kept.`,
      "Put what is left of it on the shelf as a lot of its own.",
    );
  return [...events, { at: new Date(at).toISOString(), is, by }];
}
