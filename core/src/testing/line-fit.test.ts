import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { fitLine, fitPieces, linesOf, lineValue, lineWords, lineWrong, offWords } from "./line-fit.ts";

const points = (...list: [applied: number, reading: number][]) =>
  list.map(([applied, reading]) => ({ applied, reading }));

test("two points give gain and offset and miss neither; by hand", () => {
  // g = 2028 / 2 = 1014 a volt, o = 512 − 507 = 5
  const fit = fitLine(points([0.5, 512], [2.5, 2540]))!;
  expect(fit.gain).toBeCloseTo(1 / 1014, 12);
  expect(fit.offset).toBeCloseTo(-5 / 1014, 12);
  expect(fit.points.map((p) => Math.abs(p.off) < 1e-12)).toEqual([true, true]);
  expect(lineWords(fit, "V", "pieces")).toBe("true V = 0.000986193 × what is read − 0.00493097");
});

test("three points: the error is in the reading, told in what was applied, with the point that is farthest off; by hand", () => {
  // x̄ 1, ȳ 1.1, Sxy = −1 × −1 + 0 + 1 × 1.1 = 2.1, Sxx 2: g 1.05, o 0.05; (1.0 − 0.05) / 1.05 = 0.904762
  const fit = fitLine(points([0, 0.1], [1, 1], [2, 2.2]))!;
  expect(fit.gain).toBeCloseTo(0.952381, 6);
  expect(fit.offset).toBeCloseTo(-0.047619, 6);
  expect(fit.points.map((p) => Number(p.off.toFixed(6)))).toEqual([0.047619, -0.095238, 0.047619]);
  expect(fit.worst).toBe(1);
  expect(lineWords(fit, "V", "V")).toBe("true V = 0.952381 × read V − 0.047619");
  expect(lineWords(fitLine(points([0, 0], [1, 2]))!, "mV", "V")).toBe("true mV = 0.5 × read V");
});

test.each([
  [0.016852, "0.05", "0.017"],
  [-0.016852, undefined, "0.017"],
  // two digits would say that what is too much is just allowed
  [0.0501, "0.05", "0.0501"],
  [0.04996, "0.05", "0.04996"],
  [0, "0.05", "0"],
  [12.34, "5", "12"],
])("%d off beside %s is %s", (off, allowed, is) => expect(offWords(off, allowed)).toBe(is));

test("the least that an input stands is the least in volts, whichever way round they are", () => {
  const at = (applied: string, most: string) => ({
    name: applied,
    unit: "V",
    point: { of: "input", applied, unit: "V", most },
  });
  expect(linesOf([at("-5", "-12"), at("2", "9")])[0]!.most).toBe("9");
});

test("what is bent goes straight from point to point, in order of what is applied; what turns back could not be told from it", () => {
  const bent = fitPieces(points([10, 300], [1000, 3900], [100, 2100]))!;
  expect(lineWords(bent, "lx", "pieces")).toBe(
    "straight from point to point: 300 is 10 lx, 2100 is 100 lx, 3900 is 1000 lx",
  );
  expect(lineWords(fitPieces(points([0, 3.2], [50, 1.1]))!, "°C", "V")).toBe(
    "straight from point to point: 3.2 V is 0 °C, 1.1 V is 50 °C",
  );
  expect(fitPieces(points([10, 300], [100, 2100], [1000, 2000]))).toBeUndefined();
  expect(fitPieces(points([10, 300], [100, 300], [1000, 2000]))).toBeUndefined();
  expect(fitPieces(points([10, 300], [100, 300]))).toBeUndefined();
  expect(fitPieces(points([10, 300]))).toBeUndefined();
  const at = (applied: string, form?: "pieces") => ({
    name: applied,
    unit: "V",
    point: { of: "light", applied, unit: "lx", ...(form ? { form } : {}) },
  });
  // one point that says so speaks for the line; nothing can be off it, so nothing is missing
  const [line] = linesOf([at("10"), at("100", "pieces"), at("1000")]);
  expect(line!.form).toBe("pieces");
  expect(lineWrong(line!)).toBeUndefined();
  expect(lineWrong(linesOf([at("10", "pieces"), at("100")])[0]!)).toBeUndefined();
  expect(lineWrong(linesOf([at("10", "pieces")])[0]!)?.isNone).toBe(true);
});

test("a value of a board is a constant where it is called after its line, however the name is spelt", () => {
  const lines = [
    { of: "Light  input", fit: fitLine(points([0.5, 512], [2.5, 2540]))! },
    { of: "lamp", fit: fitPieces(points([10, 300], [100, 2100]))! },
  ];
  expect(lineValue("light input gain", lines)).toBe("0.000986193");
  expect(lineValue(" Light input Offset", lines)).toBe("-0.00493097");
  expect(lineValue("lamp points", lines)).toBe("300:10 2100:100");
  // not what is called a little like it
  for (const name of ["light input", "input gain", "lamp gain", "light input points", "gain"])
    expect(lineValue(name, lines)).toBeUndefined();
});

test("what does not follow makes no line", () => {
  expect(fitLine(points([1, 5]))).toBeUndefined();
  expect(fitLine(points([1, 5], [1, 6]))).toBeUndefined();
  expect(fitLine(points([0, 0.1], [1, 0.1], [2, 0.1]))).toBeUndefined();
  expect(fitLine([])).toBeUndefined();
  // the mean of three equal readings is not always the reading
  expect(fitLine(points([0.1, 0.1], [0.2, 0.1], [0.7, 0.1]))).toBeUndefined();
});

test("law: points on a line give it back, whichever way it falls, in any order", () => {
  const n = fc.integer({ min: -50, max: 50 });
  fc.assert(
    fc.property(fc.uniqueArray(n, { minLength: 2, maxLength: 8 }), n, n, (xs, slope, origin) => {
      fc.pre(slope !== 0);
      const fit = fitLine(xs.map((applied) => ({ applied, reading: slope * applied + origin })))!;
      for (const x of xs) expect(fit.gain * (slope * x + origin) + fit.offset).toBeCloseTo(x, 8);
      expect(Math.abs(fit.points[fit.worst]!.off)).toBeLessThan(1e-8);
    }),
  );
});

test("lines of a plan: the least that is said counts, and what makes none is told", () => {
  const at = (applied: string, more: object = {}, unit: string | undefined = "V") => ({
    name: `at ${applied}`,
    ...(unit ? { unit } : {}),
    point: { of: "input", applied, unit: "mV", ...more },
  });
  const plan = [
    at("5", { worst: "0.10", days: 365 }),
    { name: "rail", unit: "V" },
    at("20", { worst: "0.05" }),
    at("40", { most: "60", days: 30 }),
  ];
  const [line, ...rest] = linesOf(plan);
  expect(rest).toEqual([]);
  expect(line).toMatchObject({ of: "input", unit: "mV", read: "V", worst: "0.05", most: "60", days: 30 });
  expect(line!.items.map((t) => t.name)).toEqual(["at 5", "at 20", "at 40"]);
  expect(lineWrong(line!)).toBeUndefined();
  const why = (...list: ReturnType<typeof at>[]) => lineWrong(linesOf(list)[0]!);
  expect(why(at("5"))).toEqual({ because: "one point makes no line", isNone: true });
  expect(why(at("5"), at("5.0"))).toMatchObject({ because: "a point is in it twice", isNone: true });
  expect(why(at("5"), at("6", { unit: "V" }))).toMatchObject({ isNone: true });
  expect(why(at("5"), at("6", {}, "mV"))).toMatchObject({ isNone: true });
  expect(why(at("5"), at("6", {}, ""))).toMatchObject({ isNone: true });
  expect(why(at("5"), at("6"))).toMatchObject({ isNone: false });
  expect(why(at("5"), at("6"), at("7"))).toMatchObject({ isNone: false });
});
