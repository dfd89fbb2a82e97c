import { expect, test } from "@jest/globals";
import type { TestItem } from "../document/document.ts";
import type { TestTry } from "../document/record.ts";
import { madeTest } from "../made-up.fixture.ts";
import { firstPassOf, judgeTry, standsOfUnit, sumsOfItems, verdictOfUnit } from "./tries.ts";

const RAIL = madeTest("rail", { unit: "V", min: "3.2", max: "3.4", guard: "0.01" });
const LAMP = madeTest("lamp");
let n = 0;
const tried = (
  unit: number,
  of: TestItem,
  verdict: TestTry["verdict"],
  value?: string,
  more: Partial<TestTry> = {},
): TestTry => ({
  id: String(n++),
  unit,
  item: of.id,
  name: of.name,
  on: "2026-11-30",
  ...(value === undefined ? {} : { value }),
  limits: of.unit === undefined ? {} : { unit: of.unit, min: of.min!, max: of.max!, guard: "0.01" },
  verdict,
  words: "",
  person: "",
  ...more,
});

test("an answer is held against its item: a reading against its limits, anything else by yes or no", () => {
  expect(judgeTry(RAIL, { value: "3.21" })).toBe("pass");
  expect(judgeTry(RAIL, { value: "3.205" })).toBe("fail");
  expect(judgeTry(RAIL, { value: "3", bound: ">" })).toBe("error");
  expect(judgeTry(RAIL, { says: "error" })).toBe("error");
  expect(judgeTry(LAMP, { says: "yes" })).toBe("pass");
  expect(judgeTry(LAMP, { says: "no" })).toBe("fail");
  expect(judgeTry(LAMP, { says: "error" })).toBe("error");
  expect(judgeTry(RAIL, { says: "no" })).toBe("fail");
  expect(() => judgeTry(LAMP, { value: "3" })).toThrow("yes or no");
  expect(() => judgeTry(LAMP, {})).toThrow("yes or no");
  expect(() => judgeTry(RAIL, { says: "yes" })).toThrow("a reading in V");
  expect(() => judgeTry(RAIL, { value: "3.3", says: "no" })).toThrow("a reading in V");
  expect(() => judgeTry(RAIL, { value: "3,3" })).toThrow("a reading in V");
  expect(() => judgeTry({ ...RAIL, min: "4" }, { value: "3.3" })).toThrow("crossed");
  // what a meter may be off by never widens a limit
  expect(() => judgeTry({ ...LAMP, unit: "V", min: "4", guard: "-1" }, { value: "3.5" })).toThrow(
    "less than nothing",
  );
});

test("a board passes when every item did in the end; the first judged try of each is what first pass counts", () => {
  const plan = [RAIL, LAMP];
  const tries = [
    // board 1: the meter was off, then right; the lamp at once
    tried(1, RAIL, "error"),
    tried(1, RAIL, "pass", "3.30"),
    tried(1, LAMP, "pass"),
    // board 2: mended
    tried(2, RAIL, "fail", "2.9"),
    tried(2, RAIL, "pass", "3.31"),
    tried(2, LAMP, "pass"),
    // board 3: fails in the end; board 4: half way; board 5: nothing could be read
    tried(3, RAIL, "pass", "3.32"),
    tried(3, RAIL, "fail", "0"),
    tried(4, RAIL, "pass", "3.3", { bound: ">" }),
    tried(5, RAIL, "error"),
  ];
  const verdicts = [1, 2, 3, 4, 5, 6].map((u) => verdictOfUnit(standsOfUnit(plan, tries, u)));
  expect(verdicts).toEqual(["pass", "pass", "fail", "open", "open", "open"]);
  expect(verdictOfUnit([])).toBe("open");
  expect(firstPassOf(plan, tries)).toEqual({ tried: 5, passed: 2, failing: 1, first: 1 });
  const [rail, lamp] = sumsOfItems(plan, tries);
  expect(rail).toMatchObject({ units: 4, firstPass: 3, failing: 1, errors: 2 });
  expect(rail!.readings.map((r) => [r.unit, r.value])).toEqual([
    [1, 3.3],
    [2, 3.31],
    [3, 0],
  ]);
  expect(rail!.capability!.n).toBe(3);
  expect(lamp).toMatchObject({ units: 2, firstPass: 2, readings: [] });
  expect(lamp!.capability).toBeUndefined();
  // read against other limits it says nothing of how it lies within these
  const wider = [{ ...RAIL, max: "3.5" }];
  expect(sumsOfItems(wider, tries)[0]).toMatchObject({ units: 4, readings: [] });
});
