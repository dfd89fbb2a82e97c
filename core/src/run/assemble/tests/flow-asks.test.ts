import { expect, test } from "@jest/globals";
import { madeMeasure } from "../../made-up.fixture.ts";
import { flowPlan } from "./flow-asks.ts";
import { line, part, powered, SUPPLY, wired } from "./powered.fixture.ts";

const planOf = (doc: ReturnType<typeof powered>) => flowPlan(doc, doc.boards[0]!)!;
const shown = (doc: ReturnType<typeof powered>) =>
  Object.fromEntries(
    planOf(doc).asks.map((a) => [
      a.name,
      `${a.isReturn ? "back to" : "from"} ${a.entry.map((p) => `${p.ref}.${p.pin}`).join(" ")}: ${a.taps
        .map((t) => `${t.ref}(${t.pins.map((p) => p.pin).join(" ")}) ${t.ma.toFixed(2)}`)
        .join(", ")}`,
    ]),
  );

// by hand: 3.3 V: the chip 25; D2 lit by it (3.3 − 2)/330 = 3.94; D3 red out of the chip (3.3 − 1.9)/330 = 4.24;
// R5 3.3/10k = 0.33 while its signal is low. 33.51 in all, and 1 more for the regulator. R20 + R21: 5/110k = 0.045
test("each net of a supply gives what hangs on it, over the fuse and the bead between them; all of it goes back", () => {
  expect(shown(powered({ meetings: [SUPPLY] as never }))).toEqual({
    VIN: "from J1.1: F1(1) 34.51, R20(1) 0.05",
    VF: "from F1.2: D1(2) 34.51",
    V5F: "from D1.1: L1(1) 34.51",
    V5: "from L1.2: U4(3) 34.51",
    V33: "from U4.2: U1(1) 29.24, D2(2) 3.94, R5(2) 0.33",
    GND: "back to J1.2: U1(2) 29.27, D3(1) 4.24, U4(1) 1.00, R21(2) 0.05",
  });
});

test("what is not known is said: parts without a figure, how a current goes back, thickness of copper", () => {
  const doc = powered({ meetings: [SUPPLY] as never, library: [part("TB-M48", 8, 25)], options: {} });
  const plan = planOf(doc);
  expect(plan.unknown).toEqual([]);
  expect(plan.assumed).toContain("copper of 35 µm; none is chosen at Fab");
  expect(plan.copper.outerMm).toBe(0.035);
  const unknown = planOf(powered({ meetings: [SUPPLY] as never, library: [] }));
  expect(unknown.unknown).toContain("U1");
  const thick = planOf(powered({ options: { copper: "70", thickness: "0.8" } as never }));
  expect(thick.copper).toEqual({ outerMm: 0.07, innerMm: 0.07, boardMm: 0.8 });
});

test("where a rail comes in is taken to be its one connector, and said", () => {
  const plan = planOf(powered({ meetings: [] }));
  expect(plan.asks[0]).toMatchObject({ name: "VIN", entry: [{ ref: "J1", pin: "1" }] });
  expect(plan.assumed.some((a) => a.includes("the one connector it is on"))).toBe(true);
});

/** Other nets, with parts of the library that draw so much at the most, mA. */
const made = (nets: string, draws: Readonly<Record<string, number>>, more: object = {}) => {
  const refs = Object.keys(draws);
  return powered({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({ nets: { count: 9, islands: wired(nets) } as never }),
      },
    ],
    lines: refs.map((r) => line(r, [r], "", "", `TB-${r}`)),
    library: refs.map((r) => part(`TB-${r}`, draws[r], draws[r])),
    meetings: [SUPPLY] as never,
    ...more,
  });
};

// 5 V up to 12 V: 100 mA out are 100 · 12/5/0.8 = 300 mA in; 200 of them go to ground at the converter itself
test("what steps up takes more than it gives, and the rest goes back at it", () => {
  const doc = made(
    `
    V5: J1.1 U2.1
    V12: U2.2 U3.1
    GND: J1.2 U2.3 U3.2`,
    { U2: 0, U3: 100 },
  );
  expect(shown(doc)).toEqual({
    V5: "from J1.1: U2(1) 300.00",
    V12: "from U2.2: U3(1) 100.00",
    GND: "back to J1.2: U2(3) 200.00, U3(2) 100.00",
  });
});

test("a rail on two plugs that nobody is said to feed is not followed, and named", () => {
  const plan = planOf(
    made(
      `
      V5: J1.1 J2.1 U3.1
      GND: J1.2 J2.2 U3.2`,
      { U3: 100 },
      { meetings: [] },
    ),
  );
  expect(plan.asks).toEqual([]);
  expect(plan.left).toEqual(["V5: not known where it comes in", "GND: not known where it goes back"]);
});

test("a supply that nobody knows where it comes in takes nothing from what is known of the other", () => {
  const doc = made(
    `
    V5: J1.1 U3.1
    V12: J4.1 J6.1 U5.1
    GND: J1.2 J4.2 J6.2 U3.2 U5.2`,
    { U3: 100, U5: 40 },
  );
  expect(shown(doc)).toEqual({ V5: "from J1.1: U3(1) 100.00", GND: "back to J1.2: U3(2) 100.00" });
  expect(planOf(doc).left).toEqual([
    "V12: not known where it comes in",
    "GND: not known where what V12 gives goes back",
  ]);
});

test("where a rail's volts are not known its resistors are not counted: what feeds it carries at least so much", () => {
  const of = (rail: string) =>
    planOf(
      made(
        `
        V5: J1.1 D9.1
        ${rail}: D9.2 U3.1 R1.1
        GND: J1.2 U3.2 R1.2`,
        { U3: 100 },
        { lines: [line("u", ["U3"], "", "", "TB-U3"), line("r", ["R1"], "1k")] },
      ),
    );
  expect([of("V3V3").isLeast, of("VCC").isLeast]).toEqual([false, true]);
  expect(of("VCC").unknown).toEqual([]);
});

test("two supplies each get their own current back", () => {
  const doc = made(
    `
    V5: J1.1 U3.1
    V12: J4.1 U5.1
    GND: J1.2 J4.2 U3.2 U5.2`,
    { U3: 100, U5: 40 },
  );
  // J4 is the one plug on its rail
  expect(shown(doc).GND).toBe("back to J1.2: U3(2) 100.00, U5(2) 40.00, J4(2) -40.00");
});

test("the way back of what a part switches is that part; of two that may, neither", () => {
  const lamp = (more: string) =>
    made(
      `
      V5: J1.1 R1.1
      A: R1.2 D1.2
      K: D1.1 Q1.3${more}
      GND: J1.2 Q1.2 Q2.2`,
      {},
      { lines: [line("r", ["R1"], "300R"), line("d", ["D1"], "lamp", "LED")] },
    );
  // (5 − 2)/300
  expect(shown(lamp("")).GND).toBe("back to J1.2: Q1(2) 10.00");
  const two = planOf(lamp(" Q2.3"));
  expect(two.asks.map((a) => a.name)).toEqual(["V5"]);
  expect(two.left).toEqual(["not known how the current of D1 and R1 goes back"]);
});
