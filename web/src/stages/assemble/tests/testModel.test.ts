import { expect, test } from "@jest/globals";
import {
  added,
  changed,
  inOrderOf,
  isSamePlan,
  moved,
  typedPins,
  withBesides,
  withLimit,
  withLine,
  without,
  withPoints,
  withProposed,
  withUnit,
} from "./testModel.ts";

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
  // what was changed since an order was worked out stays changed
  const order = [...plan].reverse().slice(0, 2);
  const now = changed(plan, "t3", { expect: "5 V" });
  expect(inOrderOf(now, order).map((t) => [t.id, t.expect])).toEqual([
    ["t3", "5 V"],
    ["t2", ""],
    ["t1", ""],
  ]);
  // an id is never given twice
  expect(new Set(added(less, {}).map((t) => t.id)).size).toBe(3);
});

const proposed = (name: string, max: string) => ({
  name,
  state: "powered" as const,
  drives: [],
  reads: ["J1.1"],
  through: [],
  expect: "",
  minutes: 0.3,
  unit: "mA" as const,
  max,
});
test("what is proposed comes first, and once; its limits are brought up to date and the rest stays", () => {
  const own = added([], { name: "lamp", minutes: 2 });
  const plan = withProposed(own, [proposed("in at 1 V", "4"), proposed("in at 5 V", "20")]);
  expect(plan.map((t) => [t.id, t.name, t.max])).toEqual([
    ["t2", "in at 1 V", "4"],
    ["t3", "in at 5 V", "20"],
    ["t1", "lamp", undefined],
  ]);
  const later = withProposed(changed(plan, "t3", { minutes: 1 }), [
    proposed("in at 1 V", "4"),
    proposed("in at 5 V", "35"),
  ]);
  expect(later.map((t) => [t.id, t.max, t.minutes])).toEqual([
    ["t2", "4", 0.3],
    ["t3", "35", 1],
    ["t1", undefined, 2],
  ]);
  // what only a person knows of an item is not lost when its limits are brought up to date
  const load = { volts: "5", kind: "direct" as const, amps: "1", ratings: [] };
  const known = changed(plan, "t3", { besides: { days: 7 }, load });
  expect(withProposed(known, [proposed("in at 5 V", "35")])[1]).toMatchObject({
    max: "35",
    besides: { days: 7 },
    load,
  });
  // what is tried with less of the board done stays before it, wherever it was put
  const bare = { ...proposed("in to ground", "9"), state: "bare" as const };
  const mixed = withProposed(
    [{ ...plan[2]!, id: "b", name: "eyes", state: "bare" }, plan[2]!],
    [proposed("in at 1 V", "4"), bare, proposed("in at 5 V", "20")],
  );
  expect(mixed.map((t) => t.name)).toEqual(["in to ground", "eyes", "in at 1 V", "in at 5 V", "lamp"]);
  // the database lays the fields of an item otherwise
  const turned = plan.map((t) => Object.fromEntries(Object.entries(t).reverse()) as never);
  expect(isSamePlan(plan, turned)).toBe(true);
  expect(isSamePlan(plan, later)).toBe(false);
});

test("a limit is a number as it was typed, or nothing; without a unit there are none", () => {
  const [t] = added([], { unit: "V", min: "3" });
  expect(withLimit(t!, "max", "3,40")).toMatchObject({ min: "3", max: "3.40" });
  expect(withLimit(t!, "min", "−0.5")?.min).toBe("-0.5");
  expect(withLimit(t!, "min", "+5")?.min).toBe("5");
  expect(Object.hasOwn(withLimit(t!, "min", " ")!, "min")).toBe(false);
  for (const odd of ["3..4", "about 3", "1e3", "3 V"]) expect(withLimit(t!, "min", odd)).toBeUndefined();
  expect(withUnit(t!, "")).toEqual(expect.not.objectContaining({ min: "3" }));
  expect(withUnit(t!, "mV")).toMatchObject({ unit: "mV", min: "3" });
});

test("what is tried besides the bench is so by any of its three, and with the rest again without them", () => {
  const [rail] = added([], { name: "rail" });
  const week = withBesides(rail!, { days: 7 });
  expect(week.besides).toEqual({ days: 7 });
  const cold = withBesides(week, { where: "in the cold", days: undefined });
  expect(cold.besides).toEqual({ where: "in the cold" });
  expect(withBesides(cold, { where: undefined })).toEqual(rail);
  expect(withBesides(week, { boards: 2 }).besides).toEqual({ days: 7, boards: 2 });
});

test("points typed at once become items of one line behind each other; what is said of the line is said at each", () => {
  const plan = added(added([], { name: "probe", unit: "mV" }), { name: "lamp" });
  const typed = (...applied: string[]) => ({ unit: "mV" as const, applied });
  const three = withPoints(plan, plan[0]!, typed("10", "25", "40"));
  expect(three.map((t) => [t.name, t.point?.applied])).toEqual([
    ["probe at 10 mV", "10"],
    ["probe at 25 mV", "25"],
    ["probe at 40 mV", "40"],
    ["lamp", undefined],
  ]);
  expect(new Set(three.map((t) => t.id)).size).toBe(4);
  expect(three[0]!.id).toBe(plan[0]!.id);
  const said = withLine(three, three[1]!, { of: "input", worst: "0.05" });
  expect(said.slice(0, 3).map((t) => [t.name, t.point?.of, t.point?.worst])).toEqual([
    ["input at 10 mV", "input", "0.05"],
    ["input at 25 mV", "input", "0.05"],
    ["input at 40 mV", "input", "0.05"],
  ]);
  expect(withLine(said, said[0]!, { worst: undefined })[2]!.point).toEqual({
    of: "input",
    applied: "40",
    unit: "mV",
  });
  // another value at one of them keeps what is said of the line; nothing makes it an item like others
  const other = withPoints(said, said[1]!, typed("30"));
  expect(other[1]).toMatchObject({ name: "input at 30 mV", point: { applied: "30", worst: "0.05" } });
  const [, none] = withPoints(other, other[1]!, undefined);
  expect(none!.point).toBeUndefined();
  expect(none!.name).toBe("input");
});
