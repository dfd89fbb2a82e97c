import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { signedArea } from "../geometry/polygon.ts";
import { KIND } from "./image.ts";
import { readLayer } from "./read.ts";
import { ringsOf, shapesOf } from "./shapes.ts";

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (body: string, head = "%FSLAX46Y46*%\n%MOMM*%\n") =>
  readLayer(bytes(`${head}${body}M02*\n`), "a.gbr");
const area = (body: string) =>
  shapesOf(read(body)).reduce((s, x) => s + ringsOf(x).reduce((t, r) => t + signedArea(r), 0), 0);
const tags = (body: string, head?: string) => read(body, head).findings.map((f) => f.tag);

test.each([
  ["leading zeros left out, 4.6 mm", "%FSLAX46Y46*%\n%MOMM*%\n", "X12700000Y-5080000D03*", 12.7, -5.08],
  ["leading zeros left out, 2.4 inch", "%FSLAX24Y24*%\n%MOIN*%\n", "X12500Y0D03*", 31.75, 0],
  ["trailing zeros left out, 2.4 inch", "%FSTAX24Y24*%\n%MOIN*%\n", "X0125Y0D03*", 31.75, 0],
  ["units by the old words", "%FSLAX24Y24*%\nG70*\n", "X12500Y0D03*", 31.75, 0],
])("coordinates: %s", (_, head, word, x, y) => {
  const image = read(`%ADD10C,0.1*%\nD10*\n${word}\n`, head);
  expect([image.geo[0], image.geo[1]]).toEqual([expect.closeTo(x, 9), expect.closeTo(y, 9)]);
});

test("a circle, a rectangle, an obround and a hexagon have their areas", () => {
  expect(area("%ADD10C,2*%\nD10*\nX0Y0D03*\n")).toBeCloseTo(Math.PI, 2);
  expect(area("%ADD10R,2X3*%\nD10*\nX0Y0D03*\n")).toBeCloseTo(6, 9);
  expect(area("%ADD10O,2X1*%\nD10*\nX0Y0D03*\n")).toBeCloseTo(1 + Math.PI / 4, 2);
  // each with a round hole of 0.5 in it: less π/16
  for (const [aperture, whole] of [
    ["C,2", Math.PI],
    ["R,2X3", 6],
    ["O,2X1", 1 + Math.PI / 4],
    ["P,2X6X0", (3 * Math.sqrt(3)) / 2],
  ] as const)
    expect(area(`%ADD10${aperture}X0.5*%\nD10*\nX0Y0D03*\n`)).toBeCloseTo(whole - Math.PI / 16, 2);
  expect(area("%ADD10P,2X6*%\nD10*\nX0Y0D03*\n")).toBeCloseTo((3 * Math.sqrt(3)) / 2, 6);
});

test("clear paint cuts what was drawn before it, not what comes after", () => {
  const square = (x: number) =>
    `G36*\nX${x}000000Y0D02*\nX${x + 10}000000Y0D01*\nX${x + 10}000000Y10000000D01*\nX${x}000000Y10000000D01*\nX${x}000000Y0D01*\nG37*\n`;
  expect(area(`G01*\n${square(0)}%LPC*%\n${square(5)}`)).toBeCloseTo(50, 6);
  expect(area(`G01*\n%LPC*%\n${square(5)}%LPD*%\n${square(0)}`)).toBeCloseTo(100, 6);
});

test("a full circle as region, by the offset to its centre, has π r²", () => {
  const image = read("G75*\nG36*\nX2000000Y0D02*\nG03*\nX2000000Y0I-2000000J0D01*\nG37*\n");
  const ring = Array.from(image.points);
  expect(Math.abs(signedArea(ring))).toBeCloseTo(Math.PI * 4, 2);
});

test("an area drawn clockwise is kept counter-clockwise, corner by corner", () => {
  const corners = [
    [0, 0],
    [0, 3],
    [1, 3],
    [1, 1],
    [4, 1],
    [4, 0],
  ];
  const at = ([x, y]: number[], d: string) => `X${x! * 1e6}Y${y! * 1e6}${d}*\n`;
  const body = `G36*\n${at(corners[0]!, "D02")}G01*\n${[...corners.slice(1), corners[0]!].map((c) => at(c, "D01")).join("")}G37*\n`;
  const ring = Array.from(read(body).points);
  // 3 high and 1 wide, and 3 wide and 1 high beside it
  expect(signedArea(ring)).toBeCloseTo(6, 9);
  const kept = Array.from({ length: ring.length / 2 }, (_, i) => `${ring[2 * i]} ${ring[2 * i + 1]}`);
  expect(kept).toEqual([...corners].reverse().map(([x, y]) => `${x} ${y}`));
});

test("a macro with arithmetic and exposure draws its ring", () => {
  expect(
    area("%AMRING*$3=$1x0.5*1,1,$1,0,0*1,0,$3+$2,0,0*%\n%ADD10RING,4X1*%\nD10*\nX0Y0D03*\n"),
  ).toBeCloseTo(Math.PI * 4 - Math.PI * 2.25, 1);
});

test("step and repeat copies, a block is stamped, turned and mirrored", () => {
  expect(read("%ADD10C,1*%\n%SRX3Y2I5J4*%\nD10*\nX0Y0D03*\n%SR*%\n").n).toBe(6);
  const block = read("%ADD10C,1*%\n%ABD20*%\nD10*\nX2000000Y0D03*\n%AB*%\n%LR90*%\nD20*\nX10000000Y0D03*\n");
  expect([block.geo[0], block.geo[1]]).toEqual([expect.closeTo(10, 9), expect.closeTo(2, 9)]);
});

test.each([
  ["one axis", "%MIA1B0*%", -1, 1, true],
  ["the other", "%MIA0B1*%", 1, -1, true],
  ["both, which is half a turn", "%MIA1B1*%", -1, -1, false],
  ["neither", "%MIA0B0*%", 1, 1, false],
])(
  "a whole image mirrored about %s: its arcs run the way round they then must",
  (_, command, sx, sy, turns) => {
    const arc = "%ADD10C,0.1*%\nG75*\nD10*\nX2000000Y1000000D02*\nG03X1000000Y2000000I-1000000J0D01*\n";
    const [plain, image] = [read(arc), read(`${command}\n${arc}`)];
    expect([...image.geo.subarray(0, 4)]).toEqual([2 * sx, sy, sx, 2 * sy].map((v) => expect.closeTo(v, 9)));
    expect(plain.kind[0]).toBe(KIND.arcCcw);
    expect(image.kind[0]).toBe(turns ? KIND.arcCw : KIND.arcCcw);
  },
);

test.each([
  ["as drawn", "", KIND.arcCcw],
  ["turned", "%LR90*%\n", KIND.arcCcw],
  ["mirrored", "%LMX*%\n", KIND.arcCw],
  ["mirrored about both, which is half a turn", "%LMXY*%\n", KIND.arcCcw],
])("a block stamped %s: its line stays a line, its arc runs as it then must", (_, how, arc) => {
  const drawn = "D10*\nX0Y0D02*\nG01X1000000Y0D01*\nG75*\nG03X0Y1000000I-1000000J0D01*\n";
  const block = read(`%ADD10C,0.1*%\n%ABD20*%\n${drawn}%AB*%\n${how}D20*\nX0Y0D03*\n`);
  expect([...block.kind.subarray(0, block.n)]).toEqual([KIND.line, arc]);
  const stepped = read(`%ADD10C,0.1*%\n%SRX2Y1I5J0*%\n${drawn}%SR*%\n`);
  expect([...stepped.kind.subarray(0, stepped.n)]).toEqual([KIND.line, KIND.arcCcw, KIND.line, KIND.arcCcw]);
});

test("what a file deletes of its attributes is gone, and the rest stays", () => {
  const image = read(
    "%ADD10C,1*%\nD10*\n%TO.N,GND*%\n%TO.P,R1,2*%\nX0Y0D03*\n%TD.N*%\nX1000000Y0D03*\n%TD.P*%\nX2000000Y0D03*\n%TO.N,VCC*%\n%TD*%\nX3000000Y0D03*\n",
  );
  const of = (i: number) => image.attributeTable[image.attributes[i]!] ?? {};
  expect([0, 1, 2, 3].map(of)).toEqual([
    { net: "GND", ref: "R1", pin: "2" },
    { ref: "R1", pin: "2" },
    {},
    {},
  ]);
});

test("attributes name function, net and pin, also when hidden in comments", () => {
  const image = read(
    "%TF.FileFunction,Copper,L1,Top*%\n%TA.AperFunction,ViaPad*%\n%ADD10C,1*%\n%TD*%\nG04 #@! TO.N,GND*\nD10*\nX0Y0D03*\n",
  );
  expect(image.fileAttributes.FileFunction).toEqual(["Copper", "L1", "Top"]);
  expect(image.apertures[0]!.function).toEqual(["ViaPad"]);
  expect(image.attributeTable[image.attributes[0]!]).toEqual({ net: "GND" });
});

test.each([
  ["an aperture that is not defined", "D77*\nX0Y0D03*\n", "undefined-aperture"],
  ["a macro that is not there", "%ADD10NONE,1*%\n", "macro-error"],
  ["a code nobody knows", "G99*\n", "unknown-command"],
  [
    "an area that is not closed",
    "G36*\nX0Y0D02*\nX1000000Y0D01*\nX1000000Y1000000D01*\nG37*\n",
    "region-open",
  ],
  ["a point metres away", "%ADD10C,1*%\nD10*\nX99999999999Y0D03*\n", "value-out-of-range"],
])("%s is said, the rest is read", (_, body, tag) => {
  const image = read(`${body}%ADD11C,1*%\nD11*\nX5000000Y0D03*\n`);
  expect(image.findings.map((f) => f.tag)).toContain(tag);
  expect(image.findings.every((f) => f.file === "a.gbr" && (f.line ?? 0) > 0)).toBe(true);
  expect(image.kind[image.n - 1]).toBe(KIND.flash);
});

// a millimetre is 1000000; the pad before and the pad after each are drawn
test.each<[string, string, number, string]>([
  ["a letter without its number", "X1000000YD03*", 0, "parse-error error"],
  ["a comma", "X1,5Y2D03*", 0, "parse-error error"],
  ["two signs", "X--1Y0D03*", 0, "parse-error error"],
  ["a place twice", "X1000000X2000000Y0D03*", 0, "parse-error error"],
  ["two codes of drawing", "X1000000Y0D01D03*", 0, "parse-error error"],
  ["a code without its number", "X1000000Y0D*", 0, "parse-error error"],
  ["a power of ten", "X1E6Y0D03*", 0, "parse-error error"],
  ["spaces within", "X 1000000 Y 0 D03*", 0, "parse-error error"],
  ["small letters", "x1000000y0d03*", 0, "parse-error error"],
  ["a choice that is no number", "D1O*", 0, "parse-error error"],
  ["a mode without its number", "G*", 0, "parse-error error"],
  ["a code of drawing nobody knows", "X1000000Y0D04*", 0, "unknown-command error"],
  ["a place and a choice in one", "X1000000Y0D10*", 0, "parse-error error"],
  ["lines ten times as large", "G10*", 0, "unknown-command error"],
  ["a word that draws nothing", "Q7*", 0, "parse-error warning"],
  ["a choice and a place in one", "D11X1000000Y0D03*D10*", 1, ""],
  ["a choice and a mode in one", "G54D11*X1000000Y0D03*D10*", 1, ""],
  ["a place that goes on with the code before", "X1000000Y0*", 1, ""],
  ["a comment that looks like it", "G04 X1Y1D03*", 0, ""],
])("a word with %s", (_, word, more, said) => {
  const image = read(`%ADD10C,1*%\n%ADD11C,2*%\nD10*\nX0Y0D03*\n${word}\nX5000000Y0D03*\n`);
  expect(image.findings.map((f) => `${f.tag} ${f.level}`).join()).toBe(said);
  expect(image.n).toBe(2 + more);
  expect([...image.aperture.subarray(0, image.n)]).toEqual(
    more && word.includes("D11") ? [0, 1, 0] : Array(2 + more).fill(0),
  );
});

// an aperture or macro of which part would be guessed is refused; one that leaves nothing is said where it is used
test.each<[string, string, string]>([
  [
    "more parameters than a circle takes",
    "%ADD10C,1X2X3X4*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "more parameters than a rectangle takes",
    "%ADD10R,1X1X0.2X0.2X0.2*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "four and a half corners",
    "%ADD10P,1X4.5*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "a hole less than nothing",
    "%ADD10C,1X-0.2*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  ["a hole larger than itself", "%ADD10C,1X2*%", "undefined-aperture error"],
  ["no height", "%ADD10R,1X0*%", "undefined-aperture error"],
  ["a macro whose size is not given", "%AMA*1,1,$1,0,0*%%ADD10A*%", "undefined-aperture error"],
  [
    "a primitive without its place",
    "%AMA*1,1,1,0*%%ADD10A*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "a line without its width",
    "%AMA*21,1,1,0,0*%%ADD10A*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "a polygon of four and a half",
    "%AMA*5,1,4.5,0,0,1,0*%%ADD10A*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  [
    "an outline of more corners than it says",
    "%AMA*4,1,3,0,0,1,0,1,1,0,1,0,0,0*%%ADD10A*%",
    "macro-error error, undefined-aperture error, undefined-aperture error",
  ],
  ["a turn left out", "%AMA*21,1,1,1,0,0*4,1,3,0,0,1,0,1,1,0,0*%%ADD10A*%", ""],
  ["another size the second time", "%ADD10C,1*%%ADD10C,2*%", "defined-twice warning"],
  ["the same size twice", "%ADD10C,1*%%ADD10C,1*%", ""],
  ["another macro the second time", "%AMA*1,1,1,0,0*%%AMA*1,1,2,0,0*%%ADD10A*%", "defined-twice warning"],
  [
    "another unit the second time",
    "%MOIN*%%ADD10C,0.1*%%MOMM*%",
    "defined-twice warning, defined-twice warning",
  ],
  ["a unit by its old code", "%ADD10C,1*%G70*G71*", "defined-twice warning, defined-twice warning"],
  [
    "another format the second time",
    "%ADD10C,1*%%FSLAX24Y24*%%FSLAX46Y46*%",
    "defined-twice warning, defined-twice warning",
  ],
  ["no word on zeros", "%ADD10C,1*%%FSAX46Y46*%", "defined-twice warning, parse-error warning"],
  ["copies without a step", "%ADD10C,1*%%SRX2*%", "parse-error error"],
  ["copies without a step up", "%ADD10C,1*%%SRX2Y2I1*%", "parse-error error"],
  ["a mirroring nobody knows", "%ADD10C,1*%%LMQ*%", "parse-error error"],
  ["what knocks out", "%ADD10C,1*%%KOC*%", "unknown-command error"],
  ["a block nobody knows", "%ADD10C,1*%%ZZD1*%", "unknown-command warning"],
])("a layer with %s", (_, head, said) => {
  const image = read(`${head}\nD10*\nX0Y0D03*\n`);
  expect(image.findings.map((f) => `${f.tag} ${f.level}`).join(", ")).toBe(said);
});

test("an aperture without an area is said once, and what it would flash draws nothing", () => {
  const image = read("%ADD10C,1X2*%\nD10*\nX0Y0D03*\nX1000000Y0D03*\n");
  expect(image.findings).toMatchObject([{ line: 5, text: expect.stringMatching(/^D10 has no area/) }]);
  for (const drawn of ["X0Y0D02*\nX1000000Y0D01*", "G75*\nX0Y0D02*\nG03X1000000Y0I500000J0D01*"])
    expect(read(`%ADD10R,1X0*%\nD10*\n${drawn}\n`).findings).toMatchObject([
      { level: "error", text: expect.stringMatching(/^D10 has no area/) },
    ]);
  expect(area("%ADD10C,1X2*%\nD10*\nX0Y0D03*\n")).toBe(0);
});

test("a hole may be a rectangle, as very old writers drill it", () => {
  const rings = (definition: string) => read(`%ADD10${definition}*%\n`).apertures[0]!.areas[0]!;
  expect(rings("R,2X2X1X0.5").map((ring) => Math.abs(signedArea(ring)))).toEqual([4, 0.5]);
  expect(rings("C,2X1X0.5").map((ring) => Math.abs(signedArea(ring)))[1]).toBeCloseTo(0.5, 6);
  expect(Math.abs(signedArea(rings("R,2X2X1")[1]!))).toBeCloseTo(Math.PI / 4, 2);
});

test("a block that is never closed loses what it swallows, and says so", () => {
  const image = read("%ADD10C,1*\nD10*\nX0Y0D03*\n%ADD11C,1*%\n");
  expect(image.findings.filter((f) => f.level === "error").map((f) => f.text.slice(0, 12))).toEqual(
    expect.arrayContaining(["“D10” cannot", "“X0Y0D03” ca"]),
  );
});

test("the object before the end mark is drawn though the star between is forgotten", () => {
  const image = readLayer(bytes("%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,1*%\nD10*\nX0Y0D03\nM02*\n"), "a.gbr");
  expect([image.n, image.findings]).toEqual([1, []]);
});

test("a file without its end, its unit or its format says so", () => {
  const cut = readLayer(bytes("%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,1*%\nD10*\nX0Y0D03*\n"), "cut.gbr");
  expect(cut.findings.map((f) => f.tag)).toEqual(["missing-end"]);
  expect(tags("%ADD10C,1*%\nD10*\nX0Y0D03*\n", "%FSLAX46Y46*%\n")).toContain("missing-unit");
  expect(tags("%ADD10C,1*%\nD10*\nX0Y0D03*\n", "%MOMM*%\n")).toContain("coordinates-before-format");
});

const SAMPLE =
  "%FSLAX46Y46*%%MOMM*%%AMA*1,1,$1,0,0*%%ADD10C,0.2*%%ADD11A,0.4*%G75*G36*X0Y0D02*G01X1000Y0D01*G03X0Y1000I-500J500D01*G37*D10*X1Y1D02*X5Y5D01*%SRX2Y2I1J1*%D11*X9Y9D03*%SR*%%ABD20*%D10*X0Y0D03*%AB*%D20*X1Y1D03*M02*";

test("broken input never throws and never hangs", () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.nat(SAMPLE.length),
          fc.constantFrom("%", "*", "D", "G36", "X9", "-", "", "AB", "\u0000", "SR", "9".repeat(12)),
        ),
        { maxLength: 8 },
      ),
      (edits) => {
        let text = SAMPLE;
        for (const [at, put] of edits) text = text.slice(0, at) + put + text.slice(at + 1);
        const image = readLayer(bytes(text), "f.gbr", { maxObjects: 2000 });
        shapesOf(image);
        expect(image.n).toBeLessThanOrEqual(2000);
      },
    ),
    { numRuns: 400 },
  );
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 400 }), (u8) => {
      readLayer(u8, "noise.gbr");
    }),
  );
});
