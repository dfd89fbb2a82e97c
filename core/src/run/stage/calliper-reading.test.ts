import { expect, test } from "@jest/globals";
import { readReading } from "./calliper-reading.ts";

test.each<[string, number, readonly number[] | "wrong" | "doubt"]>([
  ["1.58", 1.6, [1.58]],
  ["1,58", 1.6, [1.58]],
  ["1,58 1,6", 1.6, [1.58, 1.6]],
  ["1,58, 1,6", 1.6, [1.58, 1.6]],
  ["1.58; 1.60 mm", 1.6, [1.58, 1.6]],
  [".062 in", 1.6, [1.5748]],
  ['0.063"', 1.6, [1.6002]],
  ["62 mil 63mil", 1.6, [1.5748, 1.6002]],
  ["0.8", 1.6, [0.8]],
  ["3.2", 1.6, [3.2]],
  ["0.79", 1.6, "doubt"],
  ["3.21", 1.6, "doubt"],
  ["0.063", 1.6, "doubt"],
  ["62", 1.6, "doubt"],
  ["16", 1.6, "doubt"],
  ["", 1.6, "wrong"],
  ["-1.6", 1.6, "wrong"],
  ["0", 1.6, "wrong"],
  ["thin", 1.6, "wrong"],
  ["1.6mmm", 1.6, "wrong"],
  ["1 2 3 4 5 6 7 8 9 1", 1.6, "wrong"],
])("%j at %d mm is read as %j", (text, ordered, is) => {
  const r = readReading(text, ordered);
  expect("wrong" in r ? "wrong" : r.doubt ? "doubt" : r.values).toEqual(is);
});

test("a doubt says in which unit it would be right", () => {
  const doubt = (t: string) => (readReading(t, 1.6) as { doubt?: string }).doubt;
  expect(doubt("0.063")).toContain("in inches");
  expect(doubt("62")).toContain("in mil");
  expect(doubt("16")).toContain("a point left out");
  expect(doubt("5")).toContain("Enter once more");
});
