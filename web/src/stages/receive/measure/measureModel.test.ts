import { expect, test } from "@jest/globals";
import { answered, answersOf, asksOf, draftFrom, emptyDraft, nextLabel } from "./measureModel.ts";

const point = (key: string) => ({ key, what: key, how: "", mm: 1, tolMm: 0.1, whose: "", fits: [] });
const asks = asksOf({ points: [point("width"), point("height")], looks: [{ key: "mask", words: "green" }] });

test("sizes are asked first, then what is looked at; an answer goes on, and nothing takes one back", () => {
  expect(asks.map((a) => `${a.kind} ${a.key}`)).toEqual(["size width", "size height", "look mask"]);
  let d = answered(emptyDraft("3"), asks[0]!, [1.02, 1.01]);
  d = answered(d, asks[1]!, undefined);
  d = answered(d, asks[2]!, false);
  expect(d).toEqual({ label: "3", at: 3, readings: { width: [1.02, 1.01] }, looks: { mask: false } });
  expect(answersOf(d)).toBe(2);
  expect(answered({ ...d, at: 0 }, asks[0]!, undefined).readings).toEqual({});
});

test("the next board is the least number that was not measured", () => {
  expect(nextLabel([])).toBe("1");
  expect(nextLabel(["1", "2", "4", "the scratched one"])).toBe("3");
});

test("a draft on the device is taken up where it was left, unless it is none or of other questions", () => {
  const d = answered(emptyDraft("7"), asks[0]!, [1]);
  expect(draftFrom(JSON.stringify(d), "1", asks)).toEqual(d);
  const fresh = emptyDraft("1");
  for (const text of [
    null,
    "",
    "{",
    "[]",
    '"x"',
    JSON.stringify({ ...d, readings: { slot: [1] } }),
    JSON.stringify({ ...d, at: 9 }),
    JSON.stringify({ ...d, label: 7 }),
  ])
    expect(draftFrom(text, "1", asks)).toEqual(fresh);
});
