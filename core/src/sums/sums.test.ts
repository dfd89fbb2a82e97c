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

// by hand, beside what stands above: every figure a kind gives, and the value that gives a wanted one
test.each<[string, Record<string, number>, number, Record<string, number>]>([
  [
    "divider",
    { input: 12, upper: 30_000, lower: 10_000 },
    3,
    { "source resistance": 7500, "current it draws": 0.0003 },
  ],
  [
    "rc",
    { resistor: 10_000, capacitor: 1e-7, share: 50 },
    0.001 * Math.LN2,
    { "time constant": 0.001, corner: 159.1549 },
  ],
  ["pull", { supply: 5, resistor: 10_000 }, 0.0005, {}],
  [
    "lamp",
    { supply: 12, drop: 3, count: 2, resistor: 300 },
    0.02,
    { "left for the resistor": 6, "heat in the resistor": 0.12 },
  ],
  ["chain", { given: 2, above1: 3, above2: 5, below1: 4, below2: 6 }, 30 / 24, {}],
  ["chain", { given: 2 }, 2, {}],
])("%s of %j is %d, with %j", (key, given, value, beside) => {
  const r = evaluateSum(sumKind(key)!, exact(given))!;
  expect(r.value).toBeCloseTo(value, 9);
  expect(Object.fromEntries(r.beside.map((b) => [b.label, Number(b.value.toFixed(6))]))).toEqual(
    Object.fromEntries(Object.entries(beside).map(([k, v]) => [k, expect.closeTo(v, 3)])),
  );
});

test("the part that is chosen last gives the figure that was wanted", () => {
  const given: Record<string, number> = {
    supply: 12,
    drop: 2,
    count: 2,
    input: 12,
    upper: 30_000,
    capacitor: 1e-7,
    share: 50,
  };
  for (const kind of SUM_KINDS) {
    if (!kind.solve) continue;
    const { key, from } = kind.solve;
    for (const wanted of [0.004, 0.011])
      expect(kind.compute({ ...given, [key]: from(given, wanted) })).toBeCloseTo(wanted, 9);
  }
  expect(SUM_KINDS.filter((k) => !k.solve).map((k) => k.key)).toEqual(["chain"]);
});

test("without tolerances a figure is inside its band or outside, the edges being inside", () => {
  const pull = sumKind("pull")!;
  const at = (supply: number) => evaluateSum(pull, exact({ supply, resistor: 1000 }), [0.004, 0.006])!;
  expect([3.9, 4, 5, 6, 6.1].map((v) => at(v).outside)).toEqual([1, 0, 0, 0, 1]);
  expect(at(5).sigma).toBe(0);
  expect(at(5).leads).toBeUndefined();
  expect(evaluateSum(pull, exact({ supply: 5, resistor: 1000 }))!.outside).toBeUndefined();
});

test("what leads is the input that moves the figure most; a number of nothing has no tolerance", () => {
  const r = evaluateSum(sumKind("pull")!, {
    supply: { nominal: 5, tolerance: 0.01 },
    resistor: { nominal: 1000, tolerance: 0.02 },
  })!;
  // variances as 1 to 4
  expect(r.leads).toEqual({ key: "resistor", share: expect.closeTo(0.8, 4) });
  expect(r.worst).toEqual([expect.closeTo(4.95 / 1020, 12), expect.closeTo(5.05 / 980, 12)]);
  const zero = evaluateSum(sumKind("pull")!, {
    supply: { nominal: 0, tolerance: 0.5 },
    resistor: { nominal: 1, tolerance: 0 },
  })!;
  expect([zero.value, zero.worst]).toEqual([0, [0, 0]]);
  expect(evaluateSum(sumKind("pull")!, exact({ supply: 5, resistor: 0 }))).toBeUndefined();
  expect(evaluateSum(sumKind("pull")!, exact({ supply: 5 }))).toBeUndefined();
});

test("a wanted figure at the edge of its band is not off; beyond it, on either side, it is", () => {
  const at = (supply: string, wanted = "10 mA") =>
    standingSum(
      { kind: "pull", given: { supply, resistor: "1k" }, lines: {}, wanted, withinPct: 10 },
      () => undefined,
    )!;
  expect(["8.99 V", "9 V", "11 V", "11.01 V"].map((v) => at(v).isOff)).toEqual([true, false, false, true]);
  expect(at("9 V").band).toEqual([expect.closeTo(0.009, 12), expect.closeTo(0.011, 12)]);
  expect([at("9 V", "").isOff, at("9 V", "").band, at("9 V", "").missing]).toEqual([
    undefined,
    undefined,
    [],
  ]);
  // an optional input that is typed and no number is missing; left out it is not
  const odd = {
    kind: "pull",
    given: { supply: "5 V", resistor: "1k", capacitance: "some" },
    lines: {},
    wanted: "",
    withinPct: 0,
  };
  expect(standingSum(odd, () => undefined)!.missing).toEqual(["capacitance"]);
});

test.each([
  ["2 V ± 0 %", 0],
  ["-2 V ± 1 V", 0.5],
  ["2 V ± -1 %", undefined],
])("the tolerance of “%s” is %s", (text, tolerance) => {
  expect(readToleranced(text)?.tolerance).toBe(tolerance);
});
