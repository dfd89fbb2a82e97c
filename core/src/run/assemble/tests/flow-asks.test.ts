import { expect, test } from "@jest/globals";
import { flowPlan } from "./flow-asks.ts";
import { part, powered, SUPPLY } from "./powered.fixture.ts";

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
