import { expect, test } from "@jest/globals";
import { readBoard } from "../board/read/read.ts";
import { readDrill } from "./read.ts";

const read = (body: string) => readDrill(`M48\nMETRIC\nT1C1.0\n%\nT1\n${body}\nM30\n`, "a.drl");
const places = (body: string) =>
  read(body)
    .hits.map((h) => `${+h.x.toFixed(3)},${+h.y.toFixed(3)}`)
    .join(" ");
const tags = (body: string) => read(body).findings.map((f) => `${f.tag} ${f.level}`);

// patterns are expanded, or refused; never read as one hole more
test.each<[string, string, string, string[]]>([
  ["a row by repeat", "X1.0Y1.0\nR3X2.0", "1,1 3,1 5,1 7,1", []],
  ["a column by repeat", "X1.0Y1.0\nR2Y2.0", "1,1 1,3 1,5", []],
  ["a pattern laid once more", "M25\nX1.0Y1.0\nX2.0Y1.0\nM01\nM02X10.0\nM08", "1,1 2,1 11,1 12,1", []],
  ["a pattern laid three times", "M25\nX1.0Y1.0\nM01\nR3M02X10.0\nM08", "1,1 11,1 21,1 31,1", []],
  ["a pattern laid across and up", "M25\nX1.0Y1.0\nM01\nM02X10.0\nM02Y5.0\nM08", "1,1 11,1 11,6", []],
  ["a step with no pattern", "X1.0Y1.0\nM02X10.0Y0.0", "1,1", ["drill-not-expanded error"]],
  ["a cycle for a package", "X1.0Y1.0\nG82X5.0Y5.0\nX9.0Y9.0", "1,1 9,9", ["drill-not-expanded error"]],
  ["another cycle", "G83X5.0Y5.0", "", ["drill-not-expanded error"]],
  [
    "a text and its place",
    "X1.0Y1.0\nM97,REV A\nX20.0Y20.0\nX3.0Y3.0",
    "1,1 3,3",
    ["drill-not-expanded error"],
  ],
  ["more holes than a board has", "M25\nX1.0Y1.0\nM01\nR900000M02X1.0", "1,1", ["drill-not-expanded error"]],
  ["a hole repeated without end", "X1.0Y1.0\nR500000X2.0\nX3.0Y3.0", "1,1 3,3", ["drill-not-expanded error"]],
  ["a hole repeated no times", "X1.0Y1.0\nR0X2.0\nX3.0Y3.0", "1,1 3,3", []],
  ["a hole repeated less than never", "X1.0Y1.0\nR-5X2.0\nX3.0Y3.0", "1,1 3,3", ["drill-not-expanded error"]],
  ["a hole repeated two and a half times", "X1.0Y1.0\nR2.5X2.0", "1,1", ["drill-not-expanded error"]],
  ["a pattern laid less than never", "M25\nX1.0Y1.0\nM01\nR-1M02X1.0", "1,1", ["drill-not-expanded error"]],
  ["a pattern mirrored", "M25\nX1.0Y1.0\nM01\nM02X9.0Y0.0M80\nM08", "1,1", ["drill-not-expanded error"]],
  ["a pattern turned", "M25\nX1.0Y1.0\nM01\nM02X9.0Y0.0M70\nM08", "1,1", ["drill-not-expanded error"]],
  ["a code of the machine with a place", "M18X5.0Y5.0\nX9.0Y9.0", "9,9", ["drill-not-expanded error"]],
  ["an origin moved to itself", "G93X0Y0\nX1.0Y1.0", "1,1", []],
  ["an origin moved elsewhere", "G93X5.0Y5.0\nX1.0Y1.0", "1,1", ["drill-origin-moved error"]],
])("%s", (_, body, want, said) => {
  expect(places(body)).toBe(want);
  expect(tags(body)).toEqual(said);
});

// what says a place or a tool and cannot be read is missing and said; nothing is made of half of it
test.each<[string, string, string, string[]]>([
  ["two points in a number", "X1.2.3Y4.0\nX2.0Y2.0", "2,2", ["parse-error error"]],
  ["a comma in a number", "X1,5Y2,5", "", ["parse-error error"]],
  ["two signs", "X+-1.0Y1.0", "", ["parse-error error"]],
  ["no number behind a letter", "X1.0Y", "", ["parse-error error"]],
  ["a sign alone", "X-Y1.0", "", ["parse-error error"]],
  ["a point alone", "X.Y1.0", "", ["parse-error error"]],
  ["letters alone", "XY", "", ["parse-error error"]],
  ["a letter twice", "X1.0X2.0Y1.0", "", ["parse-error error"]],
  ["a power of ten", "X1E1Y1.0", "", ["parse-error error"]],
  ["times by another letter", "X1.0Y1.0L3", "", ["parse-error error"]],
  ["a slash before it", "/X1.0Y1.0", "", ["parse-error error"]],
  ["a repeat without a number", "X1.0Y1.0\nRX2.0", "1,1", ["parse-error error"]],
  ["a tool without a number", "X1.0Y1.0\nT\nX2.0Y2.0", "1,1", ["parse-error error"]],
  ["a tool of a comma", "X1.0Y1.0\nT2C0,6\nX2.0Y2.0", "1,1", ["parse-error error"]],
  ["a tool and a place in one", "X1.0Y1.0\nT2C0.6X2.0Y2.0", "1,1", ["parse-error error"]],
  ["a comment behind it", "X1.0Y1.0 ; the first\nX2.0Y1.0 (the second)", "1,1 2,1", []],
  ["a comment alone", "(X5Y5)\n;X5Y5\nX1.0Y1.0", "1,1", []],
  ["spaces within", "X 1.0 Y 2.0", "1,2", []],
  ["small letters", "x1.0y2.0", "1,2", []],
  ["a line's number, feed, depth", "N10X1.0Y2.0F200S30Z-2.0", "1,2", []],
  ["two modes and a place", "G90G81X1.0Y2.0\nG91G05X1.0Y0.0", "1,2 2,2", []],
  ["a mode and a place", "G90X1.0Y2.0", "1,2", []],
  ["a wait", "X1.0Y1.0\nG04X5.0\nG4 X 2\nG04 EXACT", "1,1", []],
  ["a word for the person", "M47,EXCHANGE X5Y5\nX1.0Y1.0", "1,1", []],
  [
    "words nobody knows",
    "EXIT\nLAYER1\nX1.0Y1.0",
    "1,1",
    ["unknown-command remark", "unknown-command remark"],
  ],
])("a drill line with %s", (_, body, want, said) => {
  expect(places(body)).toBe(want);
  expect(tags(body)).toEqual(said);
});

test.each([
  ["X1.2.3Y4.0", "“.3” belongs to no letter"],
  ["X1,5Y2,5", "“,5” belongs to no letter"],
  ["X+-1.0Y1.0", "“-1.0” belongs to no letter"],
  ["/X1.0Y1.0", "“/” belongs to no letter"],
  ["X1.0Y1.0L3", "what L says there is not known"],
  ["X1.0Y", "Y has no number"],
  ["X1.0X2.0Y1.0", "X stands twice"],
  ["X1.0Y1.0G85", "the slot has no end"],
])("what keeps %s from being read is told", (line, why) => {
  const text = `“${line}” cannot be read: ${why}; what it drills or cuts is missing.`;
  expect(read(line).findings).toMatchObject([{ level: "error", line: 6, text }]);
});

test("a cut or slot whose line cannot be read is missing and said", () => {
  const cut = (line: string) => {
    const { routs, findings } = read(`G00X0.0Y0.0\nM15\nG01X5.0Y0.0\n${line}\nM16`);
    return [routs.map((r) => r.points.at(-1)), findings.map((f) => [f.tag, f.level, f.line])];
  };
  expect(cut("R3X2.0")).toEqual([[[5, 0]], [["drill-not-expanded", "error", 9]]]);
  expect(cut("G03X7.0Y0.0A")).toEqual([[[5, 0]], [["parse-error", "error", 9]]]);
  expect(cut("X7.0Y0.0")).toEqual([[[7, 0]], []]);
  const slot = (line: string) => {
    const { routs, findings } = read(`X1.0Y1.0\n${line}`);
    return [routs.map((r) => r.points), findings.map((f) => f.tag)];
  };
  const from = [1, 1];
  expect(slot("X2.0Y1.0G85X4.0Y3.0")).toEqual([
    [
      [
        [2, 1],
        [4, 3],
      ],
    ],
    [],
  ]);
  expect(slot("G85X4.0")).toEqual([[[from, [4, 1]]], []]);
  expect(slot("X2.0Y1.0G85")).toEqual([[], ["parse-error"]]);
  expect(slot("X2.0Y1.0G85X4.0.0Y3.0")).toEqual([[], ["parse-error"]]);
  expect(slot("X2.0Y1.0G85X4.0X5.0")).toEqual([[], ["parse-error"]]);
});

test("a tool's line may have spaces and a comment, which says whether it plates", () => {
  const head = ["T1 C0.8 ; non-plated", "T2C1.0 (plated)", "T3F200S50C1.2"].join("\n");
  const d = readDrill(`M48\nMETRIC, TZ\n${head}\n%\nT1\nX1000Y0\nT2\nX2000Y0\nT3\nX3000Y0\nM30\n`, "a.drl");
  expect(d.hits.map((h) => [h.x, h.diameterMm, h.plated])).toEqual([
    [1, 0.8, false],
    [2, 1, true],
    [3, 1.2, undefined],
  ]);
  expect([d.isCertain, d.findings]).toEqual([true, []]);
});

test("a tool told its size among the holes is the one that drills on; one told in the head waits to be called", () => {
  const mm = (text: string) => readDrill(text, "a.drl").hits.map((h) => h.diameterMm);
  expect(mm("M48\nMETRIC\nT1C1.0\n%\nT1\nX1.0Y1.0\nT2C0.6\nX2.0Y1.0\nM30\n")).toEqual([1, 0.6]);
  expect(mm("M48\nMETRIC\nT1C1.0\nT2C0.6\n%\nT1\nX1.0Y1.0\nX2.0Y1.0\nM30\n")).toEqual([1, 1]);
});

test("what repeats add up to is bounded, of paths as of holes: a short file fills no memory", () => {
  const lines = read(`X1.0Y1.0\n${"R9999X0.0\n".repeat(200)}`);
  expect(lines.hits.length).toBeLessThanOrEqual(500_000);
  expect(lines.hits.length).toBeGreaterThan(490_000);
  expect(lines.findings.map((f) => f.tag)).toContain("drill-not-expanded");
  const paths = read("M25\nG00X0.0Y0.0\nM15\nG01X5.0Y0.0\nM16\nM01\nR99999999M02X1.0");
  expect([paths.routs.length, paths.findings.map((f) => f.tag)]).toEqual([1, ["drill-not-expanded"]]);
  const few = read("M25\nG00X0.0Y0.0\nM15\nG01X5.0Y0.0\nM16\nM01\nR2M02X10.0Y1.0");
  expect(few.routs.map((r) => r.points)).toEqual([
    [
      [0, 0],
      [5, 0],
    ],
    [
      [10, 1],
      [15, 1],
    ],
    [
      [20, 2],
      [25, 2],
    ],
  ]);
});

test("what is drilled or cut before a tool is chosen is missing, and said", () => {
  const untooled = (body: string) => readDrill(`M48\nMETRIC\nT1C1.0\n%\n${body}\nM30\n`, "a.drl");
  for (const [body, line] of [
    ["X1.0Y1.0", 5],
    ["G00X0.0Y0.0\nM15\nG01X5.0Y0.0\nM16", 8],
  ] as const)
    expect(untooled(body)).toMatchObject({
      hits: [],
      routs: [],
      findings: [{ tag: "undefined-tool", level: "error", line, do: expect.stringContaining("tool chosen") }],
    });
});

test("a cut beside its line is said to be one", () => {
  const body = "G00X0.0Y0.0\nM15\nG41\nG01X5.0Y0.0\nG01X5.0Y5.0\nG40\nM16";
  expect(read(body).findings).toMatchObject([
    { tag: "drill-compensation", level: "warning", text: expect.stringContaining("left") },
  ]);
  expect(read("G00X0.0Y0.0\nM15\nG40\nG01X5.0Y0.0\nM16").findings).toEqual([]);
});

// pads all over a board of 60 × 50 mm, and the same holes written in every dialect that leaves something open
const PADS = Array.from({ length: 20 }, (_, i): [number, number] => [
  2.54 * (2 + (i % 5) * 4),
  2.54 * (2 + Math.floor(i / 5) * 4),
]);
const copperOf = (pads: readonly (readonly [number, number])[]) =>
  `%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,1.6*%\nD10*\n${pads.map(([x, y]) => `X${Math.round(x * 1e6)}Y${Math.round(y * 1e6)}D03*\n`).join("")}M02*\n`;
const utf8 = (t: string) => new TextEncoder().encode(t);
const pad = (v: number, n: number) => String(Math.round(v)).padStart(n, "0");
const drop = (
  head: string,
  write: (x: number, y: number) => string,
  shift = 0,
  more: readonly (readonly [number, number])[] = [],
) => {
  const drill = `${head}%\nT1\n${PADS.map(([x, y]) => write(x + shift, y + shift)).join("\n")}\nM30\n`;
  const set = readBoard([
    { path: "top.gtl", bytes: utf8(copperOf([...PADS, ...more])) },
    { path: "holes.drl", bytes: utf8(drill) },
  ]);
  const hits = set.files.find((f) => f.role === "drill")!.drill!.hits;
  return {
    near: hits.filter((h, i) => Math.hypot(h.x - PADS[i]![0], h.y - PADS[i]![1]) < 0.05).length,
    said: set.findings.filter((f) => f.tag === "drill-unit-unknown"),
  };
};
const inch = (v: number) => v / 25.4;
test.each<[string, string, (x: number, y: number) => string, boolean]>([
  [
    "millimetres with points, and says so",
    "M48\nMETRIC\nT1C0.8\n",
    (x, y) => `X${x.toFixed(3)}Y${y.toFixed(3)}`,
    true,
  ],
  [
    "inches with points, and says so",
    "M48\nINCH\nT1C0.0315\n",
    (x, y) => `X${inch(x).toFixed(4)}Y${inch(y).toFixed(4)}`,
    true,
  ],
  [
    "inches with points, and says nothing",
    "M48\nT1C0.0315\n",
    (x, y) => `X${inch(x).toFixed(4)}Y${inch(y).toFixed(4)}`,
    false,
  ],
  [
    "inches 2.4 without points, zeros kept behind, and says nothing",
    "M48\nT1C0.0315\n",
    (x, y) => `X${Math.round(inch(x) * 1e4)}Y${Math.round(inch(y) * 1e4)}`,
    false,
  ],
  [
    "inches 2.4, all digits, and says nothing",
    "M48\nT1C0.0315\n",
    (x, y) => `X${pad(inch(x) * 1e4, 6)}Y${pad(inch(y) * 1e4, 6)}`,
    false,
  ],
  [
    "inches 2.4, zeros kept in front, and says nothing",
    "M48\nT1C0.0315\n",
    (x, y) => `X${pad(inch(x) * 1e4, 6).replace(/0+$/, "")}Y${pad(inch(y) * 1e4, 6).replace(/0+$/, "")}`,
    false,
  ],
  [
    "millimetres 3.3, zeros kept behind, and says nothing",
    "M48\nT1C0.8\n",
    (x, y) => `X${Math.round(x * 1e3)}Y${Math.round(y * 1e3)}`,
    false,
  ],
  [
    "millimetres 3.3, all digits, and says nothing",
    "M48\nT1C0.8\n",
    (x, y) => `X${pad(x * 1e3, 6)}Y${pad(y * 1e3, 6)}`,
    false,
  ],
  [
    "millimetres 3.2, zeros kept behind, and says nothing",
    "M48\nT1C0.8\n",
    (x, y) => `X${Math.round(x * 1e2)}Y${Math.round(y * 1e2)}`,
    false,
  ],
  [
    "millimetres 3.2, zeros kept in front, and says nothing",
    "M48\nT1C0.8\n",
    (x, y) => `X${pad(x * 1e2, 5).replace(/0+$/, "")}Y${pad(y * 1e2, 5).replace(/0+$/, "")}`,
    false,
  ],
  [
    "millimetres, zeros kept in front, and says only millimetres",
    "M48\nMETRIC\nT1C0.8\n",
    (x, y) => `X${pad(x * 1e3, 6).replace(/0+$/, "")}Y${pad(y * 1e3, 6).replace(/0+$/, "")}`,
    false,
  ],
  [
    "inches, zeros kept behind, and says only inches",
    "M48\nINCH\nT1C0.0315\n",
    (x, y) => `X${Math.round(inch(x) * 1e4)}Y${Math.round(inch(y) * 1e4)}`,
    false,
  ],
])("a drill file in %s", (_, head, write, isStated) => {
  const { near, said } = drop(head, write);
  expect(near).toBe(20);
  // a guess that fits is still said, with how it fared
  expect(said.length).toBe(isStated ? 0 : 1);
  if (!isStated) {
    const [, other] = said[0]!.text.match(/100 % of its holes lie on pads, read otherwise (\d+) % at most/)!;
    // a close second reading is worth a look
    expect(said[0]!.level).toBe(Number(other) < 50 ? "remark" : "warning");
  }
});

test("holes a hair beside their pads count, to the left and below as to the right and above", () => {
  for (const shift of [0.08, -0.08]) {
    const { said } = drop(
      "M48\nT1C0.0315\n",
      (x, y) => `X${inch(x).toFixed(4)}Y${inch(y).toFixed(4)}`,
      shift,
    );
    expect(said[0]!.text).toContain("100 %");
  }
});

test("a reading that meets all pads wins over one that meets more than half by chance, with a caution", () => {
  const write = (x: number, y: number) => `X${inch(x).toFixed(4)}Y${inch(y).toFixed(4)}`;
  // read as millimetres, twelve of the twenty lie on pads of a small copy of the pattern
  const small = PADS.slice(0, 12).map(([x, y]) => [x / 25.4, y / 25.4] as const);
  const { near, said } = drop("M48\nT1C0.0315\n", write, 0, small);
  expect(near).toBe(20);
  expect(said).toMatchObject([
    { level: "warning", text: expect.stringMatching(/100 % of its holes .* read otherwise \d\d % at most/) },
  ]);
});

test("where no reading meets the pads, the guess is a blocker", () => {
  const { said } = drop(
    "M48\nT1C0.0315\n",
    (x, y) => `X${(inch(x) * 1.7 + 0.3).toFixed(4)}Y${(inch(y) * 0.6 + 0.7).toFixed(4)}`,
  );
  expect(said[0]!.level).toBe("error");
});
