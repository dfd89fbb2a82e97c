import { expect, test } from "@jest/globals";
import type { RunSitting } from "../document/sitting.ts";
import { heatsOf, toolAtHand, toolsAt } from "./used.ts";

const OVEN = { kind: "oven", name: "Small oven", state: "ready" } as const;
const PLATE = { kind: "plate", name: "Plate", state: "ready" } as const;
const PASTE = { kind: "paste", name: "Tub 3", state: "ready" } as const;
const with_ = (unit: number, heater: string) => ({ unit, used: { heater } });

test("what was said of a step stands, even of a heater that is gone; else the nearest board before, else the only one", () => {
  const list = [OVEN, PLATE, PASTE];
  const hand = (unit: number, said: string | undefined, others: ReturnType<typeof with_>[], of = list) => {
    const { name, why } = toolAtHand(
      "heater",
      of,
      unit,
      said ? { used: { heater: said } } : undefined,
      others,
    );
    return [name, why];
  };
  expect(hand(3, "Old oven", [with_(2, "Plate")])).toEqual(["Old oven", "said"]);
  expect(hand(3, undefined, [with_(5, "Small oven"), with_(1, "Plate"), with_(2, "Small oven")])).toEqual([
    "Small oven",
    "as before",
  ]);
  // none before it: the nearest after; far before is nearer than next after
  expect(hand(3, undefined, [with_(9, "Plate"), with_(4, "Small oven")])).toEqual([
    "Small oven",
    "as before",
  ]);
  expect(hand(90, undefined, [with_(1, "Plate"), with_(91, "Small oven")])).toEqual(["Plate", "as before"]);
  // its own other heat is nearer than any board before
  expect(hand(3, undefined, [with_(2, "Plate"), with_(3, "Small oven")])).toEqual([
    "Small oven",
    "as before",
  ]);
  // one that is out of order or gone is not taken again, and of two nobody knows which
  expect(hand(3, undefined, [with_(2, "Old oven")])).toEqual([undefined, "open"]);
  expect(hand(3, undefined, [], [OVEN, PASTE])).toEqual(["Small oven", "the only one"]);
  expect(hand(3, undefined, [with_(2, "Plate")], [OVEN, { ...PLATE, state: "broken" } as never])).toEqual([
    "Small oven",
    "the only one",
  ]);
  expect(hand(3, undefined, [], [PASTE])).toEqual([undefined, "open"]);
});

test("a heat asks for its heater, a print for its paste, the iron for tip and wire", () => {
  expect(["print", "heat", "iron", "place"].map(toolsAt)).toEqual([
    ["paste"],
    ["heater"],
    ["iron", "wire"],
    [],
  ]);
});

test("a board's heats are those that are done, in the order of the steps, each with its heater where one was said", () => {
  const steps = [
    { n: 2, kind: "print", side: "bottom" },
    { n: 4, kind: "heat", side: "bottom" },
    { n: 7, kind: "heat", board: "Main", side: "top" },
    { n: 9, kind: "heat", side: "top" },
  ];
  const sat = (unit: number, step: number, more: Partial<RunSitting> = {}): RunSitting => ({
    id: `${unit} ${step}`,
    unit,
    step,
    marks: {},
    lost: {},
    minutes: {},
    isDone: true,
    person: "M",
    ...more,
  });
  const sittings = [
    sat(1, 7),
    sat(1, 4, { used: { heater: "Plate" } }),
    sat(1, 2),
    sat(1, 9, { isDone: false }),
    sat(2, 9),
  ];
  expect(heatsOf(steps, sittings, 1)).toEqual([
    { step: 4, words: "bottom", heater: "Plate" },
    { step: 7, words: "Main top" },
  ]);
  expect(heatsOf(steps, sittings, 3)).toEqual([]);
});
