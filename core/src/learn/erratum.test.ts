import { expect, test } from "@jest/globals";
import type { PlaceReading } from "../board/measure/place.ts";
import { placeChange } from "./erratum.ts";
import type { LessonPlace } from "./lesson.ts";

const reading = (copper: number, more: Partial<PlaceReading> = {}): PlaceReading => ({
  layers: [{ role: "copper", side: "top", name: "copper top", share: copper }],
  board: 1,
  drilled: 0,
  platedShare: 0,
  givenUp: [],
  ...more,
});
const at = (pin: string, x: number, y: number, r: PlaceReading = reading(1)): LessonPlace => ({
  pin,
  x,
  y,
  reading: r,
});

test.each<[string, LessonPlace[], LessonPlace[], [number, number], string, string | undefined]>([
  ["nothing is another", [at("J1.1", 5, 5)], [at("J1.1", 5, 5)], [0, 0], "same", undefined],
  ["the whole board lies elsewhere", [at("", 5, 5)], [at("", 105, -15)], [100, -20], "same", undefined],
  ["less than files are rounded to", [at("", 5, 5)], [at("", 5.019, 5)], [0, 0], "same", undefined],
  [
    "a pad has moved",
    [at("J1.1", 5, 5)],
    [at("J1.1", 5.03, 5)],
    [0, 0],
    "changed",
    "J1.1 has moved or is gone, J1.1 is new.",
  ],
  [
    "two pads of one pin, told apart by where they are",
    [at("SW1.2", 1, 1), at("SW1.2", 9, 1)],
    [at("SW1.2", 9, 1), at("SW1.2", 1, 1)],
    [0, 0],
    "same",
    undefined,
  ],
  ["a pad more", [at("D4.1", 1, 1)], [at("D4.1", 1, 1), at("D4.2", 3, 1)], [0, 0], "changed", "D4.2 is new."],
  [
    "a pad less",
    [at("D4.1", 1, 1), at("D4.2", 3, 1)],
    [at("D4.1", 1, 1)],
    [0, 0],
    "changed",
    "D4.2 has moved or is gone.",
  ],
  ["other copper", [at("", 5, 5)], [at("", 5, 5, reading(0.4))], [0, 0], "changed", "Copper top 100 → 40 %."],
  [
    "as little as a grid of points leaves open",
    [at("", 5, 5)],
    [at("", 5, 5, reading(0.981))],
    [0, 0],
    "same",
    undefined,
  ],
  [
    "a hole, plated or not",
    [at("", 5, 5)],
    [at("", 5, 5, reading(1, { platedShare: 0.3 }))],
    [0, 0],
    "changed",
    "Drilled 0 → 30 %.",
  ],
  [
    "the edge",
    [at("", 5, 5)],
    [at("", 5, 5, reading(1, { board: 0.5 }))],
    [0, 0],
    "changed",
    "Board 100 → 50 %.",
  ],
  [
    "a layer that was not there",
    [at("", 5, 5)],
    [
      at(
        "",
        5,
        5,
        reading(1, {
          layers: [...reading(1).layers, { role: "mask", side: "top", name: "mask top", share: 1 }],
        }),
      ),
    ],
    [0, 0],
    "changed",
    "Mask top 0 → 100 %.",
  ],
  ["gone as a whole", [at("D4.1", 1, 1)], [], [0, 0], "changed", "It is not there any more."],
  ["it was never in the files", [], [at("D4.1", 1, 1)], [0, 0], "unknown", undefined],
  [
    "a layer could not be read",
    [at("", 5, 5)],
    [at("", 5, 5, reading(1, { givenUp: ["mask top"] }))],
    [0, 0],
    "unknown",
    undefined,
  ],
])("%s", (_, before, after, corner, is, words) => {
  const change = placeChange(before, [0, 0], after, corner);
  expect(change).toEqual(expect.objectContaining({ is, ...(words === undefined ? {} : { words }) }));
});

test("what was not read is not the same", () => {
  const one = [at("", 5, 5)];
  expect(placeChange(undefined, [0, 0], one, [0, 0]).is).toBe("unknown");
  expect(placeChange(one, [0, 0], undefined, [0, 0]).is).toBe("unknown");
  expect(placeChange(one, undefined, one, [0, 0]).is).toBe("unknown");
});
