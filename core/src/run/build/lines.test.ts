import { expect, test } from "@jest/globals";
import type { TestItem } from "../document/document.ts";
import type { TestTry } from "../document/record.ts";
import { madeTest } from "../made-up.fixture.ts";
import { linesOfUnit } from "./lines.ts";
import { firstPassOf, standsOfUnit, verdictOfUnit } from "./tries.ts";

const at = (id: string, applied: string, more: Partial<TestItem> = {}) =>
  madeTest(id, {
    unit: "V",
    point: { of: "input", applied, unit: "V", worst: "0.0952380", days: 30 },
    ...more,
  });
const PLAN = [at("a", "0"), at("b", "1"), at("c", "2", { max: "9" })];
let n = 0;
const read = (item: string, value: string, more: Partial<TestTry> = {}): TestTry => ({
  id: String(n++),
  unit: 1,
  item,
  name: item,
  on: "2026-12-01",
  value,
  limits: { unit: "V" },
  verdict: "pass",
  words: "",
  person: "Mina",
  ...more,
});
const THREE = [read("a", "0.1"), read("b", "1"), read("c", "2.2", { on: "2026-12-03" })];
const stand = (tries: TestTry[], plan = PLAN) => linesOfUnit(plan, tries, 1)[0]!;

test("a board's line stands by its last readings, and is true for so many days after the last; by hand", () => {
  // the middle one is 0.095238 off (worked in line-fit.test.ts): just more than 0.0952380
  const near = stand(THREE, PLAN.with(0, at("a", "0", { point: { of: "input", applied: "0", unit: "V" } })));
  expect(near.stand).toBe("fail");
  const wide = PLAN.map((t) => ({ ...t, point: { ...t.point!, worst: "0.0952381" } }));
  expect(stand(THREE, wide)).toMatchObject({ stand: "pass", on: "2026-12-03", until: "2027-01-02" });
  const late = [read("a", "0.1", { on: "2026-12-05" }), ...THREE.slice(1)];
  expect(stand(late, wide)).toMatchObject({ on: "2026-12-05", until: "2027-01-04" });
  // read anew, the last counts: 1.15 is on the line
  expect(stand([...THREE, read("b", "1.15")]).stand).toBe("pass");
});

test("what is bent passes with its points as they are read, and fails where it turns back", () => {
  const bent = PLAN.map((t) => ({ ...t, point: { ...t.point!, form: "pieces" as const } }));
  const is = stand(THREE, bent);
  expect(is).toMatchObject({ stand: "pass", until: "2027-01-02", fit: { kind: "pieces" } });
  expect(is.fit!.points).toEqual([
    { applied: 0, reading: 0.1 },
    { applied: 1, reading: 1 },
    { applied: 2, reading: 2.2 },
  ]);
  expect(stand([...THREE, read("b", "2.4")], bent)).toMatchObject({
    stand: "fail",
    off: { because: "what is read does not follow what is applied" },
  });
});

test("the point that is farthest off fails, and the board with it; what was read anew did not pass at first", () => {
  const stands = standsOfUnit(PLAN, THREE, 1);
  expect(stands.map((s) => s.stand)).toEqual(["pass", "fail", "pass"]);
  expect(stands[1]!.because).toBe("0.09524 V off its line at 1 V, 0.0952380 allowed");
  expect(verdictOfUnit(stands)).toBe("fail");
  expect(firstPassOf(PLAN, THREE)).toMatchObject({ passed: 0, failing: 1 });
  const again = [...THREE, read("b", "1.15")];
  expect(verdictOfUnit(standsOfUnit(PLAN, again, 1))).toBe("pass");
  expect(firstPassOf(PLAN, again)).toMatchObject({ passed: 1, failing: 0, first: 0 });
  const straight = [read("a", "0"), read("b", "1"), read("c", "2")];
  expect(firstPassOf(PLAN, straight)).toMatchObject({ passed: 1, first: 1 });
});

test("a line waits for every point, and no point is one that only says more, fails by itself, or is of another board", () => {
  expect(stand(THREE.slice(0, 2))).toMatchObject({ stand: "open" });
  expect(stand(THREE.slice(0, 2)).fit).toBeUndefined();
  const bound = THREE.with(2, read("c", "2.2", { bound: ">" }));
  expect(stand(bound).stand).toBe("open");
  expect(verdictOfUnit(standsOfUnit(PLAN, bound, 1))).toBe("open");
  expect(stand(THREE.with(2, read("c", "22", { verdict: "fail" }))).stand).toBe("fail");
  expect(stand(THREE.with(2, read("c", "2.2", { unit: 2 }))).stand).toBe("open");
  expect(stand([...THREE, read("c", "2.2", { verdict: "error" })]).stand).toBe("open");
  // a reading that stays as it is follows nothing
  const flat = stand([read("a", "1"), read("b", "1"), read("c", "1")]);
  expect(flat.stand).toBe("fail");
  expect(flat.off!.because).toBe("what is read does not follow what is applied");
  // two points make a line that says nothing against them, one point makes none
  expect(stand(THREE, PLAN.slice(0, 2)).stand).toBe("pass");
  expect(linesOfUnit(PLAN.slice(0, 1), THREE, 1)).toEqual([]);
});
