import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { MOST_HOLES } from "./pattern.ts";
import { READINGS, readDrill } from "./read.ts";

test.each([
  ["zeros kept in front, 3.3", "METRIC,LZ", "X0125Y0", 12.5],
  ["zeros kept behind, 3.3", "METRIC,TZ", "X12500Y0", 12.5],
  ["decimal points decide", "METRIC,LZ", "X12.5Y0", 12.5],
  ["inch 2.4, zeros kept behind", "INCH,TZ", "X5000Y0", 12.7],
])("coordinates: %s", (_, unit, word, x) => {
  const d = readDrill(`M48\n${unit}\nT1C0.8\n%\nT1\n${word}\nM30\n`, "a.drl");
  expect(d.hits[0]!.x).toBeCloseTo(x, 9);
});

test("places count from the one before while that is said, and from the origin again after", () => {
  const d = readDrill(
    "M48\nMETRIC\nT1C0.8\n%\nG91\nT1\nX1.0Y1.0\nX2.0Y0.0\nG90\nX5.0Y5.0\nX6.0Y5.0\nM30\n",
    "a.drl",
  );
  expect(d.hits.map((h) => [h.x, h.y])).toEqual([
    [1, 1],
    [3, 1],
    [5, 5],
    [6, 5],
  ]);
});

test("a stated slot is a slot, a routed line stays a path", () => {
  const g85 = readDrill("M48\nMETRIC\nT1C1.0\n%\nT1\nX8.0Y6.0G85X8.0Y9.0\nM30\n", "a.drl");
  const routed = readDrill(
    "M48\nMETRIC\nT1C1.0\n%\nG05\nT1\nG00X8.0Y6.0\nM15\nG01X8.0Y9.0\nX9.0Y9.0\nM16\nG05\nX1.0Y1.0\nM30\n",
    "a.drl",
  );
  const way = [
    [8, 6],
    [8, 9],
  ];
  expect(g85.routs).toMatchObject([{ points: way, widthMm: 1, plated: undefined, isSlot: true }]);
  expect(routed.routs).toMatchObject([
    { points: [...way, [9, 9]], widthMm: 1, plated: undefined, isSlot: false },
  ]);
  expect(routed.hits).toMatchObject([{ x: 1, y: 1, diameterMm: 1, plated: undefined }]);
});

test.each([
  ["Plated,PTH", true],
  ["ViaDrill", true],
  ["ComponentDrill", true],
  ["CastellatedDrill", true],
  ["NonPlated,NPTH", false],
  ["MechanicalDrill", false],
  ["Other", undefined],
])("a tool said to be for %s is plated: %s; the next one is not until it is said", (fn, plated) => {
  const d = readDrill(
    `M48\nMETRIC\n; #@! TA.AperFunction,${fn}\nT1C1.0\n; #@! TD\nT2C2.0\n%\nT1\nX1.0Y1.0\nT2\nX5.0Y5.0\nM30\n`,
    "a.drl",
  );
  expect(d.hits.map((h) => h.plated)).toEqual([plated, undefined]);
});

test("a cutter that goes down and up on the spot leaves a hole; one that is up leaves nothing", () => {
  const d = readDrill(
    "M48\nMETRIC\nT1C1.0\n%\nT1\nG00X8.0Y6.0\nM15\nM16\nM16\nG00X9.0Y6.0\nG01X12.0Y6.0\nM16\nM30\n",
    "a.drl",
  );
  expect(d.hits).toMatchObject([{ x: 8, y: 6, diameterMm: 1 }]);
  expect([d.routs, d.findings]).toEqual([[], []]);
});

test("plating comes from attributes and from comments, per tool", () => {
  const byAttribute = readDrill(
    "M48\n; #@! TF.FileFunction,NonPlated,1,2,NPTH\nMETRIC\nT1C3.2\n%\nT1\nX1.0Y1.0\nM30\n",
    "a.drl",
  );
  expect(byAttribute.plated).toBe(false);
  const mixed = readDrill(
    "M48\nMETRIC\n;TYPE=PLATED\nT1C0.8\n;TYPE=NON_PLATED\nT2C3.0\n%\nT1\nX1.0Y1.0\nT2\nX2.0Y2.0\nM30\n",
    "a.drl",
  );
  expect(mixed.hits.map((h) => h.plated)).toEqual([true, false]);
});

test("repeats are unrolled, an unknown tool is said with its line", () => {
  const d = readDrill("M48\nMETRIC\nT1C0.8\n%\nT1\nX1.0Y1.0\nR3X2.0\nT9\nX5.0Y5.0\nM30\n", "a.drl");
  expect(d.hits.map((h) => h.x)).toEqual([1, 3, 5, 7]);
  expect(d.findings).toContainEqual(expect.objectContaining({ tag: "undefined-tool", line: 8 }));
});

test("a file that states nothing is not certain, and any stated reading can be laid over it", () => {
  const text = "M48\nT1C0.0315\n%\nT1\nX010000Y005000\nM30\n";
  expect(readDrill(text, "a.drl").isCertain).toBe(false);
  const inch = readDrill(text, "a.drl", READINGS[1]);
  expect(inch.hits[0]).toMatchObject({
    x: 25.4,
    y: 12.7,
    diameterMm: expect.closeTo(0.8001, 6),
    plated: undefined,
  });
});

test("broken drill files never throw", () => {
  const sample = "M48\nMETRIC,LZ\nT1C0.8\n%\nT1\nX1Y1\nR3X2\nX1Y1G85X2Y2\nG00X1Y1\nM15\nG01X2Y2\nM16\nM30\n";
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.nat(sample.length),
          fc.constantFrom("T", "C", "R99999999", "-", "\n", "G85", "M15", "X", "é"),
        ),
        { maxLength: 6 },
      ),
      (edits) => {
        let text = sample;
        for (const [at, put] of edits) text = text.slice(0, at) + put + text.slice(at + 1);
        expect(readDrill(text, "f.drl").hits.length).toBeLessThan(MOST_HOLES + sample.length);
      },
    ),
    { numRuns: 300 },
  );
});

test.each([
  ["0", false],
  ["0.0", false],
  ["0.001", true],
  ["49.999", true],
  ["50", false],
])("a tool of %s mm is one: %s", (size, isOne) => {
  const d = readDrill(
    `M48\nMETRIC\nT1C${size.includes(".") ? size : `${size}.`}\n%\nT1\nX1.0Y1.0\nM30\n`,
    "a.drl",
  );
  expect(d.findings.some((f) => /diameter of tool 1/.test(f.text))).toBe(!isOne);
});

// from 0, 0 to 2, 0 about a radius of 2: the middle of the cut is 2 − √3 = 0.268 from the chord
test.each([
  ["G03", -0.268],
  ["G02", 0.268],
])("a cut by %s about a radius longer than half its chord bulges to %f", (code, bulge) => {
  const d = readDrill(
    `M48\nMETRIC\nT1C1.0\n%\nT1\nG00X0.0Y0.0\nM15\n${code}X2.0Y0.0A2.0\nM16\nM30\n`,
    "a.drl",
  );
  const ys = d.routs[0]!.points.map(([, y]) => y);
  expect(bulge < 0 ? Math.min(...ys) : Math.max(...ys)).toBeCloseTo(bulge, 2);
  expect(bulge < 0 ? Math.max(...ys) : Math.min(...ys)).toBeCloseTo(0, 6);
});

test("an arc of a cut without a centre is a straight line, and said; after a move with the cutter up a cut is straight again", () => {
  const cut = (lines: string) => {
    const d = readDrill(`M48\nMETRIC\nT1C1.0\n%\nT1\nG00X0.0Y0.0\nM15\n${lines}\nM16\nM30\n`, "a.drl");
    return [d.routs.at(-1)!.points.length, d.findings.map((f) => f.tag)];
  };
  expect(cut("G03X2.0Y0.0")).toEqual([2, ["arc-invalid"]]);
  expect(cut("G02X2.0Y0.0A0.5")).toEqual([2, ["arc-invalid"]]);
  expect(cut("G02X2.0Y0.0I90000.0")).toEqual([2, ["arc-invalid"]]);
  expect(cut("G02X2.0Y0.0I1.0\nM16\nG00X5.0Y0.0\nM15\nX7.0Y0.0")).toEqual([2, []]);
});

test.each([
  ["PLATED", true],
  ["NON-PLATED", false],
  ["non plated", false],
  ["not plated", false],
  ["NOT_PLATED", false],
  ["unplated", false],
  ["NPTH", false],
  ["PLATED and NON-PLATED", undefined],
  ["not plated, others plated", undefined],
  ["drilled", undefined],
])("a tool's comment “%s” says of its plating: %s", (words, plated) => {
  const d = readDrill(`M48\nMETRIC\nT1C1.0 ;${words}\n%\nT1\nX1.0Y1.0\nM30\n`, "a.drl");
  expect(d.hits[0]!.plated).toBe(plated);
  const before = readDrill(`M48\nMETRIC\n;${words}\nT1C1.0\n%\nT1\nX1.0Y1.0\nM30\n`, "a.drl");
  expect(before.hits[0]!.plated).toBe(plated);
});
