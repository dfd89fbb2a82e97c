import type { Measure } from "../board/measure-document.ts";
import { cornerOf } from "../fit/features.ts";
import { MOST_LESSON_PINS } from "../shape/lesson.ts";
import { padsByPin } from "./board-pins.ts";
import type { LessonCheck, LessonPlace } from "./lesson.ts";

/**
 * The places of a board whose files a lesson has to read; none where it is about something else, where the board has none
 * of its pins, or where it has no outline to count from.
 */
export function lessonPlaces(
  check: LessonCheck,
  m: Measure,
): (Omit<LessonPlace, "reading"> & { readonly diameterMm: number })[] {
  if (check.kind !== "place") return [];
  const { diameterMm } = check;
  if (check.at) {
    if (m.outline?.widthMm === undefined) return [];
    const [x, y] = cornerOf(m);
    return [{ pin: "", x: x + check.at[0], y: y + check.at[1], diameterMm }];
  }
  const pads = padsByPin(m);
  return (check.pins ?? [])
    .flatMap((pin) => (pads.get(pin) ?? []).map(({ x, y }) => ({ pin, x, y, diameterMm })))
    .slice(0, MOST_LESSON_PINS);
}
