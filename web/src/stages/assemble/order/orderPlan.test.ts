import { expect, test } from "@jest/globals";
import { type Work, type WorkPart, workOrder } from "@kobbin/core";
import { minutesWords, movedLine, placedLine, stripOf } from "./orderPlan.ts";
import { typedRefs } from "./typedRefs.ts";

const part = (ref: string, more: Partial<WorkPart> = {}): WorkPart => ({
  name: ref,
  ref,
  board: 0,
  line: `line ${ref}`,
  side: "top",
  how: "iron",
  canIron: true,
  isThrough: false,
  isPolarised: false,
  joints: 2,
  isMoist: false,
  opensOnce: false,
  covers: [],
  micros: 0,
  minutes: 3,
  trimMinutes: 0,
  defects: 0,
  ...more,
});
const work = (...parts: WorkPart[]): Work => ({
  boards: [{ name: "B", printMinutes: 0, heatMinutes: 0, ironMinutes: 4 }],
  parts,
  given: [],
  programAt: [],
  testAt: [],
  programLoose: [],
  minutes: { kit: 5, test: 11 },
  loose: [],
  school: "bill",
  start: 1,
  minuteMicros: 0,
  repairable: 0.92,
  bagMinutes: 0.75,
});

test("a line moved within its step takes the place of its neighbour; where a rule forbids it that rule is told", () => {
  const w = work(part("J1"), part("J2"), part("DS1", { covers: ["J2"] }));
  const order = workOrder(w);
  const iron = order.steps.find((s) => s.kind === "iron")!;
  expect(iron.refs).toEqual(["J1", "J2", "DS1"]);
  expect(movedLine({ work: w, order }, iron, "line J2", -1)).toEqual({
    own: ["line J2", "line J1", "line DS1"],
  });
  expect(movedLine({ work: w, order }, iron, "line DS1", -1)).toEqual({
    why: "DS1 covers J2, which has to be on before it.",
  });
  expect(movedLine({ work: w, order }, iron, "line J2", 1)).toEqual({
    why: "DS1 covers J2, which has to be on before it.",
  });
  expect(movedLine({ work: w, order }, iron, "line J1", -1)).toBeUndefined();
  expect(movedLine({ work: w, order }, iron, "line DS1", 1)).toBeUndefined();
});

test("a line dragged over several takes the place it is dropped at; where one of them has to stay before it, that one is told", () => {
  const w = work(part("J1"), part("J2"), part("J3"), part("DS1", { covers: ["J2"] }), part("J5"));
  const order = workOrder(w);
  const iron = order.steps.find((s) => s.kind === "iron")!;
  const to = (line: string, place: number) => placedLine({ work: w, order }, iron, `line ${line}`, place);
  expect(to("J5", 0)).toEqual({ own: ["line J5", "line J1", "line J2", "line J3", "line DS1"] });
  expect(to("J1", 4)).toEqual({ own: ["line J2", "line J3", "line DS1", "line J5", "line J1"] });
  expect(to("DS1", 2)).toEqual({ own: ["line J1", "line J2", "line DS1", "line J3", "line J5"] });
  // it would pass J3, which is fine, and J2, which it covers
  expect(to("DS1", 0)).toEqual({ why: "DS1 covers J2, which has to be on before it." });
  expect(to("J2", 3)).toEqual({ why: "DS1 covers J2, which has to be on before it." });
  for (const nowhere of [-1, 2, 5]) expect(to("J3", nowhere)).toBeUndefined();
});

test("the strip: shares of the whole time, one after the other, in the lane of what they take up", () => {
  const { lanes, bars } = stripOf(workOrder(work(part("J1"), part("J2"))).steps);
  expect(lanes).toEqual(["hands", "meter"]);
  // 5 + 4 + 3 + 3 + 11 = 26 minutes
  expect(bars.map((b) => [b.step.kind, b.lane, Math.round(b.from * 26), Math.round(b.share * 26)])).toEqual([
    ["kit", "hands", 0, 5],
    ["iron", "hands", 5, 10],
    ["test", "meter", 15, 11],
  ]);
});

test("minutes and references as people write them", () => {
  expect([0, 0.3, 26.4, 60, 77, 288.2].map(minutesWords)).toEqual([
    "0 min",
    "under 1 min",
    "26 min",
    "1 h",
    "1 h 17 min",
    "4 h 48 min",
  ]);
  expect(typedRefs(" J5, TP1;TP3-TP5 ")).toEqual({ refs: ["J5", "TP1", "TP3", "TP4", "TP5"] });
  expect(typedRefs("")).toEqual({ refs: [] });
  expect(typedRefs("J5, 7 up")).toEqual({ wrong: expect.stringContaining("does not read as a reference") });
});
