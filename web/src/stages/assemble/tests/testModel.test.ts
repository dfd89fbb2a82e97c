import { expect, test } from "@jest/globals";
import { added, changed, moved, typedPins, without } from "./testModel.ts";

test.each([
  ["U1.4, tp3; j2.A", ["U1.4", "TP3", "J2.A"]],
  ["  u1.4  u1.4 ", ["U1.4"]],
  ["", []],
])("%j names %j", (text, pins) => expect(typedPins(text)).toEqual(pins));

test.each([
  ["u1.4 of base, J2 of Base.3", ["U1 of Base.4", "J2 of Base.3"]],
  // the longer name is meant where one begins with the other; what a pin is shown as is read as the same
  ["R4 of base two; U1 of Base Two.4", ["R4 of Base Two", "U1 of Base Two.4"]],
  ["U1.4 of nobody", ["U1.4", "OF", "NOBODY"]],
  ["U1.4 of Baseline", ["U1.4", "OF", "BASELINE"]],
])("of several boards %j names %j", (text, pins) =>
  expect(typedPins(text, ["Base", "Base Two"])).toEqual(pins),
);

test("a plan is added to, changed, moved and taken from, an item at a time", () => {
  const plan = added(added(added([], { name: "supply" }), {}), { name: "reset" });
  expect(plan.map((t) => [t.id, t.name])).toEqual([
    ["t1", "supply"],
    ["t2", "item 2"],
    ["t3", "reset"],
  ]);
  expect(changed(plan, "t2", { expect: "3.3 V" }).map((t) => t.expect)).toEqual(["", "3.3 V", ""]);
  expect(moved(plan, "t3", -1).map((t) => t.id)).toEqual(["t1", "t3", "t2"]);
  expect(moved(plan, "t1", -1)).toEqual(plan);
  expect(moved(plan, "nobody", 1)).toEqual(plan);
  const less = without(plan, "t1");
  expect(less.map((t) => t.id)).toEqual(["t2", "t3"]);
  // an id is never given twice
  expect(new Set(added(less, {}).map((t) => t.id)).size).toBe(3);
});
