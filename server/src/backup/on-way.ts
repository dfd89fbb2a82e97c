import { AppError } from "@kobbin/core";

/** So many of so many rows are stored, or runs computed. @throws AppError TOO_MUCH_WORK when the time is over */
export type OnWay = (what: "rows" | "runs", done: number, of: number) => void;

/** A backup is read back within that, or not at all. */
const MOST_MS = 10 * 60_000;
/** As often as a person looks. */
const EVERY_MS = 1000;

/**
 * Tells how far the reading of a backup is, once a second, and ends it when its time is over.
 * @param now milliseconds of a clock that only goes forward
 */
export function onWay(say: OnWay, now = () => performance.now()): OnWay {
  const began = now();
  let next = began + EVERY_MS;
  return (what, done, of) => {
    if (now() - began > MOST_MS)
      throw new AppError(
        "TOO_MUCH_WORK",
        `Reading the backup took longer than ${MOST_MS / 60_000} minutes: ${done} of ${of} ${what} were done. Nothing of it was kept.`,
        "Try again when less is going on; a shop this large is moved with the database itself.",
      );
    if (now() < next) return;
    next = now() + EVERY_MS;
    say(what, done, of);
  };
}
