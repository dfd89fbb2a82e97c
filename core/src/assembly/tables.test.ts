import { expect, test } from "@jest/globals";
import { ATTRITION, isTaped, leaderPieces, needOf } from "./attrition.ts";
import { houseWork } from "./house-price.ts";
import { type PackageClass, shapeOf } from "./package-class.ts";
import { boardTime, setupMinutes } from "./time.ts";
import {
  binomialAtLeast,
  boardsToStart,
  type CountedPart,
  estimateYield,
  LOST,
  lnGamma,
  REPAIRABLE,
} from "./yield.ts";

/*
 * The tables of domain.md 3.7, 7.3 and 7.4 as the page has them, class by class; where the page groups classes they stand
 * one by one here, and what it leaves out is told by its neighbour.
 */
const one = (
  kind: PackageClass,
  method: CountedPart["method"],
  joints = 4,
  isPolarised = false,
): CountedPart => ({
  kind,
  count: 1,
  joints,
  method,
  isPolarised,
});

// class, seconds by iron of a part with 4 joints, seconds to place
test.each<[PackageClass, number, number]>([
  ["chip", 25, 6],
  ["chip0402", 40, 9],
  ["chip0201", 90, 18],
  ["diode", 25, 6],
  ["small", 30, 8],
  ["tab", 30, 8],
  ["gull", 20 + 3 * 4, 12],
  ["gullFine", 40 + 3.5 * 4, 20],
  ["leadless", 120, 20],
  ["ball", 240, 30],
  ["connector", 30 + 4 * 4, 15],
])("a %s takes %d s by iron and %d s to place (7.3)", (kind, iron, place) => {
  expect(boardTime([one(kind, "iron")]).solder).toBe(iron);
  expect(boardTime([one(kind, "iron", 4, true)]).solder).toBe(iron + 2);
  expect(boardTime([one(kind, "stencil")])).toMatchObject({ place, solder: 0 });
  expect(boardTime([one(kind, "stencil", 4, true)]).place).toBe(place + 2);
  // what a house solders takes no time here
  expect(boardTime([one(kind, "house")]).total).toBe(0);
});

test("what goes through the board is soldered by iron in either way, 8 a part and 7 a joint, whichever way round", () => {
  for (const method of ["iron", "stencil"] as const)
    for (const isPolarised of [false, true])
      expect(boardTime([one("through", method, 6, isPolarised)])).toMatchObject({
        solder: 8 + 7 * 6,
        place: 0,
        print: 0,
        reflow: 0,
        inspect: 0,
      });
  expect(boardTime([{ ...one("loose", "iron"), joints: 0 }]).total).toBe(0);
  expect(boardTime([{ ...one("chip", "stencil"), count: 0 }]).total).toBe(0);
});

test("print 60 and reflow 360 a side, shared by the boards of a load; inspection 20 a board and 0.6 a joint (7.3)", () => {
  const chips = [{ ...one("chip", "stencil", 2), count: 10 }];
  expect(boardTime(chips, 1)).toMatchObject({ print: 60, reflow: 360, inspect: 20 + 0.6 * 20 });
  expect(boardTime(chips, 6, 2, 3)).toMatchObject({ print: 180, reflow: 180, inspect: 40 + 0.6 * 20 });
  expect(boardTime(chips).reflow).toBe(90);
});

test("set-up: a stencil 35 min a side, an iron 15 and a house 30 a design (7.3)", () => {
  expect([setupMinutes("stencil", 2, 3), setupMinutes("iron", 2, 3), setupMinutes("house", 2, 3)]).toEqual([
    105, 30, 60,
  ]);
});

// class, defects per million joints by iron, stencil, house; minutes to mend one
test.each<[PackageClass, number, number, number, number]>([
  ["chip", 400, 250, 40, 3],
  ["chip0402", 900, 500, 60, 3],
  ["chip0201", 3000, 1500, 100, 3],
  ["diode", 400, 250, 40, 3],
  ["small", 500, 300, 50, 5],
  ["tab", 500, 300, 50, 5],
  ["gull", 500, 300, 50, 5],
  ["gullFine", 1500, 900, 120, 5],
  ["leadless", 3000, 1200, 150, 12],
  ["ball", 10000, 1500, 80, 40],
  ["connector", 800, 600, 120, 5],
  ["through", 400, 400, 200, 3],
])(
  "a joint of a %s fails %d, %d, %d times in a million, and takes %d min (7.4)",
  (kind, iron, stencil, house, each) => {
    const placing = { iron: 1500, stencil: 1200, house: 60 };
    for (const [method, dpmo] of Object.entries({ iron, stencil, house }) as [
      CountedPart["method"],
      number,
    ][]) {
      const y = estimateYield([one(kind, method)]);
      const defects = (4 * dpmo + placing[method]) / 1e6;
      expect(y.lambda).toBeCloseTo(defects, 12);
      const minutes = (4 * dpmo * each + placing[method] * 5) / 1e6 + 6 * (1 - Math.exp(-defects));
      expect(y.reworkMin).toBeCloseTo(minutes, 12);
      expect(y.final).toBeCloseTo(Math.exp(-defects * 0.08) * 0.995, 12);
      // one that works one way round may be turned, too
      expect(estimateYield([one(kind, method, 4, true)]).lambda).toBeCloseTo(
        defects + placing[method] / 1e6,
        12,
      );
    }
  },
);

test("a part that somebody else places counts with their placing; nothing fitted never fails", () => {
  const y = estimateYield([{ ...one("chip", "iron"), placing: "house" }]);
  expect(y.lambda).toBeCloseTo((4 * 400 + 60) / 1e6, 12);
  expect(estimateYield([{ ...one("chip", "iron"), count: 0 }, one("loose", "iron")]).lambda).toBe(0);
  expect([REPAIRABLE, LOST]).toEqual([0.92, 0.005]);
  expect(estimateYield([]).final).toBeCloseTo(0.995, 12);
});

test("boards to start reach to five times as many and no further", () => {
  expect(boardsToStart(1, 0.9, (n) => (n >= 5 ? 1 : 0))).toBe(5);
  expect(boardsToStart(3, 0.9, (n) => (n >= 15 ? 0.9 : 0.899))).toBe(15);
  expect(() => boardsToStart(3, 0.9, (n) => (n >= 16 ? 1 : 0))).toThrow("Even 15 boards");
});

// domain.md 8.5, and Γ at a half by its reflection
test.each([
  [50, 144.565743946],
  [0.5, 0.572364943],
  [0.25, 1.2880225246980774],
  [1, 0],
])("ln Γ(%d) is %d", (x, value) => {
  expect(lnGamma(x)).toBeCloseTo(value, 8);
});

// class: share and least by hand, by machine (3.7); what the page does not have loses one at most
test.each<[keyof typeof ATTRITION, number, number, number, number]>([
  ["chip0201", 0.1, 10, 0.05, 50],
  ["chip0402", 0.08, 5, 0.03, 20],
  ["chip", 0.05, 3, 0.02, 10],
  ["diode", 0.03, 2, 0.02, 5],
  ["small", 0.03, 2, 0.02, 5],
  ["tab", 0.02, 1, 0.01, 1],
  ["gull", 0.02, 1, 0.01, 1],
  ["gullFine", 0.02, 1, 0.01, 1],
  ["leadless", 0.02, 1, 0.01, 1],
  ["ball", 0, 1, 0, 1],
  ["connector", 0.01, 1, 0.01, 2],
  ["through", 0, 1, 0, 1],
  ["loose", 0, 0, 0, 0],
  ["costly", 0, 1, 0, 1],
])("of %s: %d and %d by hand, %d and %d by machine", (kind, share, least, ofMachine, leastOf) => {
  expect(ATTRITION[kind]).toEqual({ hand: [share, least], machine: [ofMachine, leastOf] });
  expect(needOf(10, 1, kind, "hand")).toBe(10 + Math.max(Math.ceil(10 * share), least));
  expect(needOf(1000, 4, kind, "machine")).toBe(4000 + Math.max(Math.ceil(4000 * ofMachine - 1e-9), leastOf));
});

test("a share that comes out whole is not rounded up; the shop's own losses go before the usual ones", () => {
  // 300 × 0.01 is 3 and a hair
  expect(needOf(300, 1, "gull", "machine")).toBe(303);
  expect(needOf(10, 2, "chip", "hand", { chip: { hand: [0.5, 1], machine: [0, 0] } })).toBe(30);
});

test("strips leave a leader of their pockets, 2 or 4 mm apart; what comes in no strip leaves none (EX 3.3)", () => {
  expect([leaderPieces("chip", 150), leaderPieces("chip0402", 150), leaderPieces("chip0201", 150)]).toEqual([
    38, 75, 75,
  ]);
  expect([leaderPieces("diode", 152), leaderPieces("small", 4), leaderPieces("gull", 150)]).toEqual([
    38, 1, 0,
  ]);
  expect([isTaped("chip"), isTaped("small"), isTaped("gull"), isTaped("costly")]).toEqual([
    true,
    true,
    false,
    false,
  ]);
});

test.each<[string, string | undefined, boolean, PackageClass, number]>([
  ["", undefined, true, "loose", 0],
  ["KEY 6x6", "SW1", true, "connector", 4],
  ["HDR-2x10", "J1", true, "through", 20],
  ["HDR-4x10", "J1", true, "through", 40],
  ["HDR-5x10", "J1", true, "through", 10],
  ["CONN-8", "J1", true, "connector", 8],
  ["JACK", "J1", false, "through", 2],
  ["TO-220", "Q1", false, "through", 3],
  ["TO-220-5", "Q1", false, "through", 5],
  ["TO-92", "Q1", false, "through", 3],
  ["RADIAL-D8", "C1", false, "through", 2],
  ["AXIAL-0.4", "R1", false, "through", 2],
  ["DIP-8", "U1", false, "through", 8],
  ["SOT-23-8", "U1", true, "small", 8],
  ["SOT-363", "U1", true, "small", 6],
  ["SOT-353", "U1", true, "small", 5],
  ["SOT-143", "U1", true, "small", 4],
  ["SOT-323", "Q1", true, "small", 3],
  ["SC-88A", "U1", true, "small", 5],
  ["anything", "SW2", false, "through", 2],
  ["anything", "R2", false, "through", 2],
  ["anything", "R2", true, "chip", 2],
  ["LGA-12", "U1", true, "ball", 12],
  ["BGA", "U1", true, "ball", 4],
  ["DFN", "U1", true, "leadless", 5],
  ["SON", "U1", true, "leadless", 5],
  ["SOT-89", "U1", true, "tab", 4],
  ["DPAK", "U1", true, "tab", 4],
  ["TO-252", "U1", true, "tab", 4],
  ["SC-70-6", "U1", true, "small", 6],
  ["SC-88", "U1", true, "small", 6],
  ["MELF", "D1", true, "diode", 2],
  ["SMB", "D1", true, "diode", 2],
  ["QFP-32", "U1", true, "gull", 32],
  ["QFP-44", "U1", true, "gullFine", 44],
  ["LQFP", "U1", true, "gull", 8],
  ["TSSOP-20", "U1", true, "gull", 20],
  ["MSOP", "U1", true, "gull", 5],
  ["XTAL 3225", "Y1", true, "small", 4],
  ["0201", "C1", true, "chip0201", 2],
  ["01005", "C1", true, "chip0201", 2],
  ["0402", "C1", false, "chip0402", 2],
  ["0805", "C1", false, "chip", 2],
  ["2512", "R1", false, "chip", 2],
])("a package “%s” of %s (placed: %s) is a %s of %d joints", (pkg, ref, placed, kind, joints) => {
  expect(shapeOf(pkg, ref, placed)).toMatchObject({ kind, joints });
});

test.each([
  ["SOD-123", "D1", true],
  ["QFN-16", "IC2", true],
  ["TANT-A", "C1", true],
  ["ELEC-8", "C1", true],
  ["CASE-B", "C1", true],
  ["CASE-F", "C1", false],
  ["0603", "LED3", true],
  ["0603", "R1", false],
  ["HOLDER", "BT1", true],
])("%s of %s works one way round: %s", (pkg, ref, is) => {
  expect(shapeOf(pkg, ref, true).isPolarised).toBe(is);
});

test("boards that never fail give as many as are begun", () => {
  expect([binomialAtLeast(5, 5, 1), binomialAtLeast(4, 5, 1), binomialAtLeast(6, 5, 1.1)]).toEqual([1, 0, 1]);
});

test("a house counts what it places, its own feeders and the joints of each kind; hand work alone has no side to print", () => {
  const part = (id: string, pkg: string, count: number, method: "house" | "iron" = "house") => ({
    ...shapeOf(pkg, id, true),
    id,
    count,
    method,
  });
  const bill = [
    part("R1", "0603", 4),
    part("R2", "0603", 2),
    part("U1", "LQFP-48", 1),
    part("J1", "HDR-6", 2),
    part("R9", "0603", 3, "iron"),
    part("R8", "0603", 0),
  ];
  const feeder = (p: { id: string }) => (p.id.startsWith("R") ? "tape" : p.id);
  const through = bill.filter((p) => p.kind === "through");
  expect(through.map((p) => p.joints)).toEqual([6]);
  expect(houseWork(bill, 2, 10, feeder, (f) => f === "U1")).toEqual({
    sides: 2,
    unique: 2,
    special: 1,
    joints: 6 * 2 + 48,
    handJoints: 12,
    products: 10,
  });
  expect(houseWork(through, 2, 10, feeder, () => false)).toMatchObject({ sides: 0, unique: 0, joints: 0 });
});
