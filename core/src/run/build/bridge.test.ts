import { expect, test } from "@jest/globals";
import { madeMeasure } from "../made-up.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { bridgeCame, bridgeCheck } from "./bridge.ts";

type Pad = [pin: string, x: number, y: number, net: string, layer?: string];
const boardOf = (pads: Pad[]) => {
  const nets = [...new Set(pads.map(([, , , net]) => net))];
  const islands = nets.map((name, net) => ({
    net,
    name,
    pads: pads.filter((p) => p[3] === name).map(([pin, x, y, , layer = "top"]) => ({ pin, x, y, layer })),
  }));
  const doc = twoSided({});
  return {
    ...doc,
    boards: [{ ...doc.boards[0]!, measure: madeMeasure({ nets: { count: nets.length, islands } as never }) }],
  };
};
// a row of five at half a millimetre, a resistor 0.7 mm below pin 3, one behind the board, one far away
const ROW = boardOf([
  ["U1.1", 0, 0, "A"],
  ["U1.2", 0.5, 0, "VCC"],
  ["U1.3", 1, 0, "SDA"],
  ["U1.4", 1.5, 0, "GND"],
  ["U1.5", 2, 0, "GND"],
  ["R7.1", 1, 0.7, "RST"],
  ["R7.2", 1, 1.6, "VCC"],
  ["C9.1", 1, 0.1, "X", "bottom"],
  ["J1.1", 30, 30, "VCC"],
]);
const named = (at: string, doc = ROW) => {
  const c = bridgeCheck(doc, at);
  return c && "pairs" in c ? [c.pairs.map((p) => `${p.a} ${p.b}`), c.joined] : c;
};

test("measured is between a pin and those beside it of other nets, of any part on its side; its own net beeps", () => {
  // 0.5 mm to its neighbours: up to 0.8 mm away, so the resistor counts, the pins behind do not
  expect(named("U1.3")).toEqual([["U1.3 U1.2", "U1.3 U1.4", "U1.3 R7.1"], []]);
  expect(named(" U1.4 ")).toEqual([["U1.4 U1.3"], ["U1.5"]]);
  expect(named("U1.5")).toEqual([[], ["U1.4"]]);
  // nothing near: nothing to measure; what is on no file is not known
  expect(named("J1.1")).toEqual([[], []]);
  expect([named("U9.1"), named(""), named("U9")]).toEqual([undefined, undefined, undefined]);
  const check = bridgeCheck(ROW, "U1.3");
  expect(check && "pairs" in check && check.pairs[2]).toEqual({
    a: "U1.3",
    b: "R7.1",
    nets: ["SDA", "RST"],
    mm: 0.7,
  });
});

test("what goes through the board has neighbours on both sides", () => {
  const through = boardOf([
    ["J2.1", 0, 0, "A"],
    ["J2.1", 0, 0, "A", "bottom"],
    ["R1.1", 1, 0, "B"],
    ["R2.1", 0, 1.2, "C", "bottom"],
    ["R3.1", 1, 0.1, "D", "inner 1"],
  ]);
  expect([named("J2.1", through), named("R2.1", through)]).toEqual([
    [["J2.1 R1.1", "J2.1 R2.1"], []],
    [["R2.1 J2.1"], []],
  ]);
});

test("of a part without its pin its own neighbours are measured, each once; of one with many the pin is asked for", () => {
  expect(named("U1")).toEqual([
    ["U1.1 U1.2", "U1.2 U1.3", "U1.3 U1.4"],
    ["U1.4", "U1.5"],
  ]);
  const long = boardOf(Array.from({ length: 14 }, (_, i): Pad => [`U2.${i + 1}`, i * 0.5, 0, `N${i}`]));
  expect(bridgeCheck(long, "U2")).toEqual({ tooMany: 13 });
  expect(named("U2.14", long)).toEqual([["U2.14 U2.13"], []]);
});

test("all round a pin are told, however many; boards of one product do not lie beside each other", () => {
  const ring = boardOf([
    ["U3.1", 0, 0, "MID"],
    ...Array.from({ length: 14 }, (_, i): Pad => {
      const turn = (2 * Math.PI * i) / 14;
      return [`U3.${i + 2}`, Math.cos(turn), Math.sin(turn), `N${i}`];
    }),
  ]);
  const all = bridgeCheck(ring, "U3.1");
  expect(all && "pairs" in all && all.pairs.length).toBe(14);
  const [first] = ROW.boards;
  const two = {
    ...ROW,
    boards: [
      { ...first!, name: "one" },
      { ...first!, id: "other", name: "two" },
    ],
  };
  expect(named("U1 of one.4", two)).toEqual([["U1 of one.4 U1 of one.3"], ["U1 of one.5"]]);
});

test("a bridge is gone when every pair is silent; one that beeps tells where it is still", () => {
  const c = bridgeCheck(ROW, "U1.3");
  if (!c || !("pairs" in c)) throw new Error("no pairs");
  const came = (answers: Record<string, "silent" | "beeps">) => bridgeCame(c.pairs, answers);
  const [x, y, z] = ["U1.3 U1.2", "U1.3 U1.4", "U1.3 R7.1"] as const;
  expect([came({}), came({ [x]: "silent", [y]: "silent" })]).toEqual([undefined, undefined]);
  expect(came({ [x]: "silent", [y]: "beeps" })).toEqual({
    isGone: false,
    words: "still joined: U1.3 – U1.4",
  });
  expect(came({ [x]: "silent", [y]: "silent", [z]: "silent" })).toEqual({
    isGone: true,
    words: "measured silent: U1.3 – U1.2, U1.3 – U1.4, U1.3 – R7.1",
  });
  // nothing to measure is no proof
  expect(bridgeCame([], {})).toBeUndefined();
});
