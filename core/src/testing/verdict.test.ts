import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { capabilityOf, judgeReading, limitsWrong, limitText, testLimits } from "./verdict.ts";

test("limits are drawn in by what a reading may be off by, exactly (domain.md EX 9.4)", () => {
  const l = { min: "4.90", max: "5.10", guard: "0.02" };
  expect(testLimits(l)).toEqual({ min: "4.92", max: "5.08" });
  expect(["4.92", "5.08", "4.919", "5.081", "4.91"].map((v) => judgeReading(l, v))).toEqual([
    "pass",
    "pass",
    "fail",
    "fail",
    "fail",
  ]);
  // 0.1 + 0.2 is 0.3 here
  expect(judgeReading({ min: "0.1", guard: "0.2" }, "0.3")).toBe("pass");
  expect(judgeReading({ max: "5" }, "-1000")).toBe("pass");
});

test.each([
  [{ min: "3.2", max: "3.4", unit: "V" }, "3.2 to 3.4 V"],
  [{ min: "165", unit: "Ω" }, "at least 165 Ω"],
  [{ max: "5", unit: "mA", guard: "0" }, "at most 5 mA"],
  [{ min: "60", max: "60", unit: "pieces" }, "60 pieces"],
  [{ min: "3.2", max: "3.4", guard: "0.01", unit: "V" }, "3.21 to 3.39 V (3.2 to 3.4, the meter ± 0.01)"],
  [{ max: "5", guard: "0.5", unit: "mA" }, "at most 4.5 mA (at most 5, the meter ± 0.5)"],
  [{ unit: "V" }, ""],
])("limits in words: %j", (limits, words) => expect(limitText(limits)).toBe(words));

test("limits that are crossed, leave nothing or judge nothing are told", () => {
  expect(limitsWrong({ min: "1", max: "2" })).toBeUndefined();
  expect(limitsWrong({ min: "2", max: "2" })).toBeUndefined();
  expect(limitsWrong({ min: "3", max: "2" })).toBe("its limits are crossed: at least 3 and at most 2");
  expect(limitsWrong({ min: "1", max: "2", guard: "0.6" })).toMatch(/nothing passes/);
  expect(limitsWrong({})).toMatch(/no limit/);
  expect(limitsWrong({ min: "1", guard: "-1" })).toMatch(/less than nothing/);
});

test("more than and less than pass or fail only where every value they may be does", () => {
  const step = fc.integer({ min: -20, max: 20 });
  fc.assert(
    fc.property(
      fc.option(step, { nil: undefined }),
      fc.option(step, { nil: undefined }),
      step,
      fc.constantFrom(">" as const, "<" as const),
      (min, max, value, bound) => {
        // crossed limits are refused before anything is judged by them
        fc.pre(min === undefined || max === undefined || min <= max);
        const l = {
          ...(min === undefined ? {} : { min: String(min) }),
          ...(max === undefined ? {} : { max: String(max) }),
        };
        // every half step beyond the bound, far past both limits
        const all = Array.from(
          { length: 200 },
          (_, i) => value + (bound === ">" ? 1 : -1) * (i + 1) * 0.5,
        ).map((x) => judgeReading(l, String(x)));
        const is = all.every((a) => a === "pass")
          ? "pass"
          : all.every((a) => a === "fail")
            ? "fail"
            : "error";
        expect(judgeReading(l, String(value), bound)).toBe(is);
      },
    ),
  );
});

test("how readings lie within their limits (domain.md EX 9.5)", () => {
  const values = [5.013, 5.021, 4.998, 5.007, 5.017, 5.01, 4.995, 5.004];
  const c = capabilityOf(values, { min: "4.90", max: "5.10" })!;
  expect(c.mean).toBeCloseTo(5.008125, 9);
  expect(c.deviation).toBeCloseTo(0.0089831, 7);
  expect(c.cpk).toBeCloseTo(3.409, 3);
  expect([c.n, c.isIndicative, c.isNarrow]).toEqual([8, true, false]);
  // one side alone: only its room counts
  expect(capabilityOf(values, { min: "4.90" })!.cpk).toBeCloseTo(0.108125 / (3 * 0.0089831), 3);
  expect(capabilityOf(values, { min: "4.99" })!.isNarrow).toBe(true);
  expect(capabilityOf([5, 5, 5], { max: "6" })).toMatchObject({ n: 3, deviation: 0 });
  expect(capabilityOf([5, 5, 5], { max: "6" })!.cpk).toBeUndefined();
  expect(capabilityOf([], { max: "6" })).toBeUndefined();
  expect(
    capabilityOf(
      Array.from({ length: 10 }, (_, i) => i),
      { max: "60" },
    )!.isIndicative,
  ).toBe(false);
});
