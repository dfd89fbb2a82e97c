import { expect, test } from "@jest/globals";
import type { Intended } from "../fit/row.ts";
import { contradictionOf } from "./contradict.ts";
import type { LessonCheck } from "./lesson.ts";

const place = (
  what: Intended,
  at: readonly [number, number],
  diameterMm = 2,
  side: "top" | "bottom" = "top",
) => ({ kind: "place", what, side, diameterMm, at }) as const;
const pins = (what: Intended, ...list: string[]) =>
  ({ kind: "place", what, side: "top", diameterMm: 1, pins: list }) as const;
const does = (a: LessonCheck, b: LessonCheck) => contradictionOf(a, b) !== undefined;

test("two lessons of one place that want what cannot be together contradict each other, whichever is asked", () => {
  const [light, metal] = [place("window", [10, 10]), place("copper", [10.5, 10])];
  expect(contradictionOf(light, metal)).toBe("one place is not a window for light and bare copper");
  expect(does(metal, light)).toBe(true);
  // on the other side too: light goes through both
  expect(does(light, place("solder", [10, 10], 2, "bottom"))).toBe(true);
  expect(does(place("cutout", [10, 10]), place("drawing", [10, 10]))).toBe(true);
  // a contact and something to solder to may be one pad; a drawing may be in a window's mask
  expect(does(place("contact", [10, 10]), place("solder", [10, 10]))).toBe(false);
  expect(does(light, place("drawing", [10, 10]))).toBe(false);
});

test("places are one where the middle of one lies in the other, its edge with it", () => {
  expect(does(place("window", [0, 0], 4), place("copper", [2, 0], 0.5))).toBe(true);
  expect(does(place("window", [0, 0], 4), place("copper", [2.01, 0], 0.5))).toBe(false);
  expect(does(place("copper", [2, 0], 0.5), place("window", [0, 0], 4))).toBe(true);
});

test("pins are one where one is named by both; of a pin and a place nothing is known", () => {
  expect(does(pins("solder", "J1.1", "J1.2"), pins("cutout", "J1.2"))).toBe(true);
  expect(does(pins("solder", "J1.1"), pins("cutout", "J1.2"))).toBe(false);
  expect(does(pins("solder", "J1.1"), place("cutout", [0, 0]))).toBe(false);
  const slot: LessonCheck = { kind: "slot", at: [0, 0], leastMm: 1 };
  expect([does(slot, place("cutout", [0, 0])), does(slot, slot)]).toEqual([false, false]);
});
