import { expect, test } from "@jest/globals";
import type { Measure } from "../board/measure-document.ts";
import { bothSizes, isAmbiguousSize, padSpans, sizeMisfit, sizeSystem } from "./chip-size.ts";

// spans of pads as layouts have them: 0603 about 1.6 mm, the metric 0603 about 0.6
test.each([
  ["0603", 1.6, undefined],
  ["R_0603", 1.5, undefined],
  ["0402", 1.0, undefined],
  ["0402", 0.96, undefined],
  ["0603", 0.6, ["0201 (0603 metric)"]],
  ["0402", 0.42, ["01005 (0402 metric)", "0201 (0603 metric)"]],
  ["0603M", 0.6, undefined],
  ["1608M", 1.6, undefined],
  ["0805", 3.1, ["1206 (3216 metric)", "1210 (3225 metric)"]],
  ["R_0603_1608", 1.6, undefined],
  ["SOIC-8", 5, undefined],
])("%s on pads %s mm apart fits %j instead", (text, span, fits) => {
  expect(sizeMisfit(text, span)?.fits).toEqual(fits);
});

test("spans come from pins of parts with just two", () => {
  const pad = (pin: string, x: number, y: number) => ({ layer: "top", x, y, pin });
  const measure = {
    nets: {
      count: 3,
      islands: [
        { net: 1, pads: [pad("R1.1", 0, 0), pad("U1.1", 5, 5)] },
        { net: 2, pads: [pad("R1.2", 1.2, 1.6), pad("U1.2", 6, 5), pad("TP.1", 1, 1)] },
        { net: 3, pads: [pad("U1.3", 7, 5)] },
      ],
    },
  } as unknown as Measure;
  expect([...padSpans(measure)]).toEqual([["R1", 2]]);
});

test.each([
  ["0603", "0603 (1608 metric)"],
  ["R_0603", "R_0603 (1608 metric)"],
  ["1608M", "1608M (0603 imperial)"],
  ["R_0603_1608Metric", "R_0603_1608Metric"],
  ["SOIC-8", "SOIC-8"],
])("documents write %s as %s", (text, both) => {
  expect(bothSizes(text)).toBe(both);
});

test("a bill tells its system by sizes that exist in one only; digits of both alone are ambiguous", () => {
  expect(sizeSystem(["0603", "C_0805"])).toBe("imperial");
  expect(sizeSystem(["0603", "1608"])).toBe("metric");
  expect(sizeSystem(["0603", "0805", "1608"])).toBeUndefined();
  expect(sizeSystem(["0603", "SOIC-8"])).toBeUndefined();
  expect(["0603", "C0402", "0603M", "0805", "R_0603_1608"].map(isAmbiguousSize)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ]);
});
