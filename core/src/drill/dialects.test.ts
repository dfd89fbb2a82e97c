import { expect, test } from "@jest/globals";
import { readBoard } from "../board/read.ts";
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
    ["unknown-command remark", "drill-not-expanded error"],
  ],
  ["more holes than a board has", "M25\nX1.0Y1.0\nM01\nR900000M02X1.0", "1,1", ["drill-not-expanded error"]],
  ["a hole repeated without end", "X1.0Y1.0\nR500000X2.0\nX3.0Y3.0", "1,1 3,3", ["drill-not-expanded error"]],
  ["a hole repeated no times", "X1.0Y1.0\nR0X2.0\nX3.0Y3.0", "1,1 3,3", []],
  ["a hole repeated less than never", "X1.0Y1.0\nR-5X2.0\nX3.0Y3.0", "1,1 3,3", ["drill-not-expanded error"]],
  ["a hole repeated two and a half times", "X1.0Y1.0\nR2.5X2.0", "1,1", ["drill-not-expanded error"]],
  ["a pattern laid less than never", "M25\nX1.0Y1.0\nM01\nR-1M02X1.0", "1,1", ["drill-not-expanded error"]],
  ["an origin moved to itself", "G93X0Y0\nX1.0Y1.0", "1,1", []],
  ["an origin moved elsewhere", "G93X5.0Y5.0\nX1.0Y1.0", "1,1", ["drill-origin-moved error"]],
])("%s", (_, body, want, said) => {
  expect(places(body)).toBe(want);
  expect(tags(body)).toEqual(said);
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
