import { expect, test } from "@jest/globals";
import { bodySize, type PadSpan } from "./size.ts";

const span = (alongMm: number, acrossMm: number): PadSpan => ({ alongMm, acrossMm });

// ways packages are written, odd ones first: length × width, height and where each is from, lies; worked out by hand
test.each([
  ["RESC1608X55N", "R", undefined, [1.6, 0.8, 0.55, "package", "package", "row"]],
  ["CAPC2012X140N", "C", undefined, [2, 1.25, 1.4, "package", "package", "row"]],
  // 1311 is no size with a code: 1.3 × 1.1
  ["CAPC1311X60N", "C", undefined, [1.3, 1.1, 0.6, "package", "package", "row"]],
  ["QFN50P500X400X90-33N", "U", undefined, [5, 4, 0.9, "package", "package", "longest"]],
  // without pads three steps of 1.27 and the moulding beyond them: 3.81 + 1.1
  ["SOIC127P600X175-8N", "U", undefined, [4.91, 6, 1.75, "package", "package", "row"]],
  ["SOIC127P600X175-8N", "U", span(3.8, 5.4), [4.9, 6, 1.75, "package", "package", "row"]],
  ["0603M", "R", undefined, [0.6, 0.3, 0.26, "package", "usual", "row"]],
  ["1608 metric", "C", undefined, [1.6, 0.8, 0.95, "package", "usual", "row"]],
  ["R_0603_1608Metric", "R", undefined, [1.6, 0.8, 0.55, "package", "usual", "row"]],
  ["3216", "F", undefined, [3.2, 1.6, 1.8, "package", "usual", "row"]],
  ["C_0402", "C", undefined, [1, 0.5, 0.6, "package", "usual", "row"]],
  ["LED_0805", "D", undefined, [2, 1.25, 1.45, "package", "usual", "row"]],
  // a crystal of that size is no chip: its height is its own
  ["XTAL-3225", "Y", undefined, [3.2, 2.5, undefined, "package", undefined, "row"]],
  ["SOIC-8", "U", span(3.81, 5.4), [4.91, 6, 1.75, "package", "usual", "row"]],
  ["SSOP-20", "U", span(5.85, 7), [6.95, 7.6, 2, "package", "usual", "row"]],
  ["TSSOP-20", "U", span(5.85, 5.6), [6.95, 6.2, 1.2, "package", "usual", "row"]],
  ["LQFP-48", "U", span(8.5, 8.5), [9.1, 9.1, 1.6, "package", "usual", "row"]],
  ["SOT-23", "Q", span(1.9, 2), [2.9, 2.4, 1.3, "package", "usual", "row"]],
  ["SOT-223", "U", span(4.6, 6), [6.5, 7, 1.8, "package", "usual", "row"]],
  ["D2PAK", "Q", span(5, 9), [9, 11, 4.7, "package", "usual", "row"]],
  ["DPAK", "Q", span(4.6, 6), [6.6, 8, 2.5, "package", "usual", "row"]],
  // a family by its name alone says no size
  ["SOIC-8", "U", undefined, undefined],
  ["HDR-1x6", "J", undefined, [15.24, 2.54, undefined, "package", undefined, "longest"]],
  ["PinHeader_2x05_P1.27mm", "J", undefined, [6.35, 2.54, undefined, "package", undefined, "longest"]],
  // the pitch of its pads, whichever way they run: 10 / (6 − 1)
  ["HDR-1x6", "J", span(0, 10), [12, 2, undefined, "package", undefined, "longest"]],
  ["KEY-6x6", "SW", undefined, [6, 6, undefined, "package", undefined, "longest"]],
  ["IND 12x10.5x7.3mm", "L", undefined, [12, 10.5, 7.3, "package", "package", "longest"]],
  // rows and columns are no millimetres
  ["PLUG_A2_1x02_P2.50mm", "J", undefined, [5, 2.5, undefined, "package", undefined, "longest"]],
  ["PLUG-2x4", "J", undefined, undefined],
  ["TERM 3.5x2", "J", undefined, [3.5, 2, undefined, "package", undefined, "longest"]],
  // cans: across and high, not long and wide; what lies on its wires is as high as it is thick
  ["CP_Elec_6.3x5.4", "C", undefined, [6.3, 6.3, 5.4, "package", "package", "row"]],
  ["CP_Radial_D5.0mm_P2.00mm", "C", span(2, 0), [5, 5, undefined, "package", undefined, "row"]],
  ["CP_Radial_D8.0mm_H11.5mm_P3.50mm", "C", undefined, [8, 8, 11.5, "package", "package", "row"]],
  ["R_Axial_L6.3mm_D2.5mm_P10.16mm", "R", undefined, [6.3, 2.5, 2.5, "package", "package", "row"]],
  ["TERM-4", "J", span(15.24, 0), [15.24, 0, undefined, "pads", undefined, "row"]],
  ["", "J", span(3, 4), [3, 4, undefined, "pads", undefined, "row"]],
  ["", "J", undefined, undefined],
] as const)("%s of %s with pads %j", (text, letters, pads, expected) => {
  const s = bodySize(text, letters, pads);
  expect(s && [s.lengthMm, s.widthMm, s.heightMm, s.sizeFrom, s.heightFrom, s.lies]).toEqual(expected);
});

test("what the library states wins, side by side with what else is known", () => {
  expect(bodySize("0603", "R", undefined, { heightMm: 0.4 })).toMatchObject({
    lengthMm: 1.6,
    heightMm: 0.4,
    heightFrom: "stated",
    sizeFrom: "package",
  });
  // the longer of both is the length, whichever was typed first
  expect(bodySize("TERM-2", "J", span(5.08, 0), { bodyLengthMm: 7.6, bodyWidthMm: 10.2 })).toEqual({
    lengthMm: 10.2,
    widthMm: 7.6,
    sizeFrom: "stated",
    lies: "longest",
  });
  // one side alone is no size
  expect(bodySize("", "J", undefined, { bodyLengthMm: 7.6 })).toBeUndefined();
});

// domain.md 3.4: imperial and metric name, length × width
test.each([
  ["01005", "0402", 0.4, 0.2],
  ["0201", "0603", 0.6, 0.3],
  ["0402", "1005", 1, 0.5],
  ["0603", "1608", 1.6, 0.8],
  ["0805", "2012", 2, 1.25],
  ["1206", "3216", 3.2, 1.6],
  ["1210", "3225", 3.2, 2.5],
  ["1806", "4516", 4.5, 1.6],
  ["1812", "4532", 4.5, 3.2],
  ["2010", "5025", 5, 2.5],
  ["2220", "5750", 5.7, 5],
  ["2512", "6332", 6.3, 3.2],
])("%s is %s metric: %d × %d", (imperial, metric, length, width) => {
  for (const text of [imperial, `C_${imperial}_${metric}Metric`, `${metric}M`]) {
    const s = bodySize(text, "C")!;
    expect([text, s.lengthMm, s.widthMm]).toEqual([text, length, width]);
  }
});
