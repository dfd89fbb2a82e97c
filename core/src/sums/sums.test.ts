import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { type AttachedSum, evaluateSum, normalCdf, readToleranced, standingSum } from "./evaluate.ts";
import { SUM_KINDS, sumKind } from "./kinds.ts";

const exact = (v: Record<string, number>) =>
  Object.fromEntries(Object.entries(v).map(([k, nominal]) => [k, { nominal, tolerance: 0 }]));

test("a lamp at 5 V with 2 V drop and 330 Ω takes 9.09 mA and heats the resistor with 27 mW", () => {
  const r = evaluateSum(
    sumKind("lamp")!,
    exact({ supply: 5, drop: 2, count: 1, resistor: 330, power: 0.1 }),
  )!;
  expect(r.value).toBeCloseTo(3 / 330, 12);
  expect(r.beside.map((b) => [b.label, Number(b.value.toFixed(5))])).toEqual([
    ["left for the resistor", 3],
    ["heat in the resistor", 0.02727],
    ["of its rating", 27.27273],
  ]);
  expect(sumKind("lamp")!.solve!.from({ supply: 5, drop: 2, count: 1 }, 0.01)).toBeCloseTo(300, 9);
});

test("divider, RC time and pull-up by hand", () => {
  const d = evaluateSum(sumKind("divider")!, exact({ input: 12, upper: 30_000, lower: 10_000 }))!;
  expect(d.value).toBeCloseTo(3, 12);
  expect(d.beside[0]!.value).toBeCloseTo(7500, 9);
  // 63.2 % is one time constant to within the digits given: −ln(1 − 0.632) = 0.99967
  const rc = evaluateSum(sumKind("rc")!, exact({ resistor: 10_000, capacitor: 1e-7, share: 63.2 }))!;
  expect(rc.value).toBeCloseTo(0.99967e-3, 8);
  expect(rc.beside[1]!.value).toBeCloseTo(159.155, 3);
  const p = evaluateSum(sumKind("pull")!, exact({ supply: 3.3, resistor: 4700, capacitance: 1e-10 }))!;
  expect(p.value).toBeCloseTo(0.702e-3, 6);
  expect(p.beside[0]!.value).toBeCloseTo(0.8473 * 4700 * 1e-10, 10);
});

test("a divider of two 1 % resistors: worst case by its corners, statistics by its slopes", () => {
  const tol = (nominal: number) => ({ nominal, tolerance: 0.01 });
  const r = evaluateSum(
    sumKind("divider")!,
    { input: { nominal: 10, tolerance: 0 }, upper: tol(1000), lower: tol(1000) },
    [4.95, 5.05],
  )!;
  // 10 · 1010 / (990 + 1010) and 10 · 990 / (1010 + 990)
  expect(r.worst).toEqual([4.95, 5.05]);
  // each slope is 10 · 1000 / 2000² = 2.5 mV/Ω; σ of 1 % of 1 kΩ is 10/3 Ω; √2 · 2.5e-3 · 10/3
  expect(r.sigma).toBeCloseTo(Math.SQRT2 * 0.0025 * (10 / 3), 6);
  // ±4.24 σ
  expect(r.outside!).toBeCloseTo(2 * (1 - normalCdf(0.05 / r.sigma)), 9);
  expect(r.outside!).toBeLessThan(1e-4);
  expect(r.leads!.share).toBeCloseTo(0.5, 3);
});

test("the normal distribution at the points tables give", () => {
  for (const [x, p] of [
    [0, 0.5],
    [1.455, 0.92716],
    [-1.455, 0.07284],
    [3, 0.99865],
  ] as const)
    expect(normalCdf(x)).toBeCloseTo(p, 4);
});

test("no unit drawn within its tolerances falls outside of the worst case", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SUM_KINDS),
      fc.array(fc.double({ min: 0.1, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }),
      fc.array(fc.double({ min: 0, max: 0.2, noNaN: true }), { minLength: 6, maxLength: 6 }),
      fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }),
      (kind, nominals, tolerances, draws) => {
        // the supply stays above the drop, whatever is drawn
        const scale: Record<string, number> = { supply: 100, count: 1, input: 10, share: 60, given: 1 };
        const inputs = Object.fromEntries(
          kind.inputs.map((x, i) => [
            x.key,
            { nominal: nominals[i]! * (scale[x.key] ?? 1), tolerance: tolerances[i]! },
          ]),
        );
        const drawn = Object.fromEntries(
          Object.entries(inputs).map(([k, v], i) => [k, v.nominal * (1 + draws[i]! * v.tolerance)]),
        );
        const r = evaluateSum(kind, inputs)!;
        const y = kind.compute(drawn);
        expect(y).toBeGreaterThanOrEqual(r.worst[0] - 1e-9 * Math.abs(y));
        expect(y).toBeLessThanOrEqual(r.worst[1] + 1e-9 * Math.abs(y));
      },
    ),
  );
});

test.each([
  ["3.3 V ± 5 %", 3.3, 0.05],
  ["3.3 V", 3.3, 0],
  ["10 mA ± 2 mA", 0.01, 0.2],
])("“%s” is read with its tolerance", (text, nominal, tolerance) => {
  const r = readToleranced(text)!;
  expect([r.nominal, r.tolerance]).toEqual([expect.closeTo(nominal, 12), expect.closeTo(tolerance, 12)]);
});
test("what is no number is none", () => {
  for (const t of ["", "much", "3 V ± some"]) expect(readToleranced(t)).toBeUndefined();
});

test("an attached sum follows its line: off when the value changes, missing when there is none", () => {
  const sum: AttachedSum = {
    id: "1",
    kind: "lamp",
    name: "",
    given: { supply: "5 V", drop: "2 V", count: "1" },
    lines: { resistor: "r" },
    wanted: "9 mA",
    withinPct: 10,
  };
  const at = (ohm: number | undefined) =>
    standingSum(sum, () => (ohm === undefined ? undefined : { nominal: ohm, tolerance: 0.01 }))!;
  expect(at(330).isOff).toBe(false);
  expect(at(470).isOff).toBe(true);
  expect(at(undefined)).toMatchObject({ missing: ["resistor"] });
  expect(at(undefined).isOff).toBeUndefined();
  expect(standingSum({ ...sum, kind: "none" }, () => undefined)).toBeUndefined();
});
