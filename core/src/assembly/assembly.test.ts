import { expect, test } from "@jest/globals";
import { needOf } from "./attrition.ts";
import type { Method } from "./method.ts";
import { shapeOf } from "./package-class.ts";
import { boardTime } from "./time.ts";
import {
  betaBinomialAtLeast,
  binomialAtLeast,
  boardsToStart,
  type CountedPart,
  estimateYield,
  lnGamma,
} from "./yield.ts";

const part = (
  kind: CountedPart["kind"],
  count: number,
  joints: number,
  method: Method,
  isPolarised = false,
): CountedPart => ({ kind, count, joints, method, isPolarised });
/** Board K of the worked examples: 26 two-ended chips, one 32-lead part, one regulator, two connectors of 4 and 6 pins. */
const boardK = (method: Method): CountedPart[] => [
  part("chip", 24, 2, method),
  part("chip", 1, 2, method, true),
  part("diode", 1, 2, method, true),
  part("gull", 1, 32, method, true),
  part("small", 1, 4, method),
  part("through", 1, 4, method === "house" ? "house" : method, true),
  part("through", 1, 6, method),
];

test("Board K takes 888 s by iron and 496.8 s with a stencil (worked example)", () => {
  expect(boardTime(boardK("iron")).total).toBeCloseTo(888, 6);
  expect(boardTime(boardK("stencil")).total).toBeCloseTo(496.8, 6);
});

test.each([
  ["iron", 0.0938, 0.9105, 0.98756, 0.957],
  // biome-ignore lint/suspicious/noApproximativeNumericConstant: minutes of rework, not a root
  ["stencil", 0.0686, 0.9337, 0.98955, 0.707],
  ["house", 0.00792, 0.9921, 0.99437, 0.079],
] as const)(
  "Board K by %s: λ %d, first pass %d, final %d, rework %d min (worked table)",
  (method, lambda, first, final, rework) => {
    const y = estimateYield(boardK(method));
    expect(y.lambda).toBeCloseTo(lambda, 5);
    expect(y.firstPass).toBeCloseTo(first, 4);
    expect(y.final).toBeCloseTo(final, 5);
    expect(y.reworkMin).toBeCloseTo(rework, 3);
  },
);

test.each([
  [30, 0.95, 0.5, 31],
  [30, 0.95, 0.9, 33],
  [30, 0.95, 0.95, 34],
  [30, 0.98, 0.9, 32],
  [10, 0.9, 0.9, 13],
  [100, 0.97, 0.9, 105],
  [5, 0.8, 0.9, 8],
  [30, 0.98955, 0.9, 31],
])("for %d good at yield %d and confidence %d start %d (worked table)", (good, y, confidence, n) => {
  expect(boardsToStart(good, confidence, (k) => binomialAtLeast(k, good, y))).toBe(n);
});

// the chance of enough at the count above, and with one board fewer
test.each([
  [30, 0.95, 31, 0.5366, 0.2146],
  [30, 0.95, 33, 0.9192, 0.7861],
  [30, 0.95, 34, 0.9741, 0.9192],
  [30, 0.98, 32, 0.9742, 0.8728],
  [10, 0.9, 13, 0.9658, 0.8891],
  [100, 0.97, 105, 0.9033, 0.7971],
  [5, 0.8, 8, 0.9437, 0.852],
  [30, 0.98955, 31, 0.9584, 0.7297],
])("%d good at yield %d of %d started: %d, of one fewer %d (worked table)", (good, y, n, at, before) => {
  expect(binomialAtLeast(n, good, y)).toBeCloseTo(at, 4);
  expect(binomialAtLeast(n - 1, good, y)).toBeCloseTo(before, 4);
});

test("98 joints at 500 DPMO: first pass 0.9522 (worked example)", () => {
  // joints alone: a part whose placing costs nothing is no part, so its share is taken out again
  const joints = estimateYield([part("gull", 1, 98, "iron")]);
  expect(joints.lambda - 1500 / 1e6).toBeCloseTo((98 * 500) / 1e6, 12);
  expect(Math.exp(-(joints.lambda - 1500 / 1e6))).toBeCloseTo(0.9522, 4);
});

test.each([
  ["prior and record, Beta(47, 3)", 47, 3, 0.9, 34, 0.904, 0.8262],
  ["the same at 95 %", 47, 3, 0.95, 36, 0.9723, undefined],
  ["flat prior and record, Beta(29, 3)", 29, 3, 0.9, 37, 0.9238, undefined],
  ["prior alone, Beta(19, 1)", 19, 1, 0.9, 34, 0.903, undefined],
])("30 good by %s (worked example)", (_, a, b, confidence, n, at, before) => {
  const chance = (k: number) => betaBinomialAtLeast(k, 30, a, b);
  expect(boardsToStart(30, confidence, chance)).toBe(n);
  expect(chance(n)).toBeCloseTo(at, 4);
  if (before !== undefined) expect(chance(n - 1)).toBeCloseTo(before, 4);
});

test("with a record the count is beta-binomial: 34, and 36 at 95 % (worked example)", () => {
  const chance = (n: number) => betaBinomialAtLeast(n, 30, 47, 3);
  expect(boardsToStart(30, 0.9, chance)).toBe(34);
  expect(boardsToStart(30, 0.95, chance)).toBe(36);
  expect(chance(34)).toBeCloseTo(0.904, 4);
  expect(chance(33)).toBeCloseTo(0.8262, 4);
});

test("of 31 started by Beta(47, 3) thirty are good in one of two (EX 8.7)", () => {
  expect(betaBinomialAtLeast(31, 30, 47, 3)).toBeCloseTo(0.4951, 4);
});

test("a hopeless process is refused in words", () => {
  expect(() => boardsToStart(10, 0.9, () => 0.1)).toThrow("would not give 10 good");
});

test("ln Γ at known places", () => {
  expect(lnGamma(50)).toBeCloseTo(144.565743946, 8);
  expect(lnGamma(0.5)).toBeCloseTo(0.572364943, 9);
});

test("31 boards with eight chips by hand need 261 (worked example)", () => {
  expect(needOf(31, 8, "chip", "hand")).toBe(261);
  expect(needOf(31, 1, "diode", "hand")).toBe(33);
  expect(needOf(31, 1, "gull", "hand")).toBe(32);
  expect(needOf(0, 8, "chip", "hand")).toBe(0);
});

test.each([
  ["0603", "R1", true, "chip", 2],
  ["C_0402", "C1", true, "chip0402", 2],
  ["SOD-123", "D1", true, "diode", 2],
  ["SOT-23", "Q1", true, "small", 3],
  ["SOT-23-5", "U1", true, "small", 5],
  ["SOT-223", "U4", true, "tab", 4],
  ["SOIC-8", "U2", true, "gull", 8],
  ["QFP-48", "U1", true, "gullFine", 48],
  ["QFN-32", "U1", true, "leadless", 33],
  ["BGA-64", "U1", true, "ball", 64],
  ["HDR-1x6", "J2", false, "through", 6],
  ["TERM-4", "J3", false, "through", 4],
])("package %s of %s (placed: %s) is %s with %d joints", (pkg, ref, placed, kind, joints) => {
  expect(shapeOf(pkg as string, ref as string, placed as boolean)).toMatchObject({ kind, joints });
});
