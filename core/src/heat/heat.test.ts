import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { HeatJudged } from "./judge.ts";
import { at, judgeHeat, secondsWithin } from "./judge.ts";
import { readHeatLog } from "./log.ts";
import { WINDOWS, windowShape } from "./window.ts";

/** A profile of straight pieces: moments and temperatures, sampled every so many seconds. */
const SILVER: readonly (readonly [number, number])[] = [
  [0, 25],
  [60, 150],
  [150, 200],
  [174, 241],
  [190, 241],
  [300, 61],
];
function sampled(points: readonly (readonly [number, number])[], everyS = 1, off = 0): [number, number][] {
  const t = points.map(([x]) => x);
  const p = { name: "p", t, c: points.map(([, y]) => y + off) };
  const end = t.at(-1)!;
  return Array.from({ length: Math.floor(end / everyS) + 1 }, (_, i): [number, number] => [
    i * everyS,
    at(p, i * everyS),
  ]);
}
const rowsOf = (samples: readonly (readonly [number, number])[]) =>
  samples.map(([t, c]) => [String(t), c.toFixed(3)]);
const judged = (cells: string[][], alloy: keyof typeof WINDOWS = "silver", limit?: number) =>
  judgeHeat(cells, WINDOWS[alloy], limit) as HeatJudged;
const tags = (j: HeatJudged) => j.findings.map((f) => `${f.level} ${f.tag}`);

test("a profile of straight pieces, by hand: peak, time above 217, soak, steepest slopes", () => {
  const j = judged([["s", "T1 (°C)"], ...rowsOf(sampled(SILVER))]);
  // 200 to 241 in 24 s passes 217 after 9.951 s; 241 to 61 in 110 s passes it again after 14.667 s
  expect(j.probes).toEqual([
    {
      name: "T1",
      peakC: 241,
      peakAtS: 174,
      secondsAboveLiquidus: expect.closeTo(14.049 + 16 + 14.667, 2),
      soakS: expect.closeTo(90, 2),
      rampCps: expect.closeTo(125 / 60, 3),
      coolCps: expect.closeTo(180 / 110, 3),
    },
  ]);
  expect([j.unit, j.seconds, j.verdict, j.spreadC]).toEqual(["C", 300, "look", undefined]);
  expect(tags(j)).toEqual(["warning heat-liquidus-short"]);
  expect(j.findings[0]).toMatchObject({ probe: "T1", limit: 45 });
});

const shifted = (by: number) => SILVER.map(([t, c]) => [t, t >= 174 && t <= 190 ? c + by : c] as const);
test.each<[string, string[][], keyof typeof WINDOWS, number | undefined, string[]]>([
  [
    "too cold at its peak",
    rowsOf(sampled(shifted(-10))),
    "silver",
    undefined,
    ["error heat-peak-low", "warning heat-liquidus-short"],
  ],
  ["too hot", rowsOf(sampled(shifted(10))), "silver", undefined, ["error heat-peak-high"]],
  [
    "too hot for the weakest part",
    rowsOf(sampled(SILVER)),
    "silver",
    245,
    ["error heat-peak-high", "warning heat-liquidus-short"],
  ],
  [
    "just right for the weakest part",
    rowsOf(sampled(SILVER)),
    "silver",
    246,
    ["warning heat-liquidus-short"],
  ],
  [
    "silver's profile for lead",
    rowsOf(sampled(SILVER)),
    "lead",
    undefined,
    ["error heat-peak-high", "warning heat-liquidus-long", "warning heat-soak"],
  ],
  [
    "and for bismuth, whose bounds have no second ones",
    rowsOf(sampled(SILVER)),
    "bismuth",
    undefined,
    ["error heat-peak-high", "error heat-liquidus-long", "warning heat-soak", "warning heat-ramp"],
  ],
  [
    "quenched",
    rowsOf(sampled([...SILVER.slice(0, 5), [190, 241], [215, 61]])),
    "silver",
    undefined,
    ["warning heat-liquidus-short", "error heat-cool"],
  ],
  [
    "slow",
    rowsOf(
      sampled(
        SILVER.map(([t, c]) => [2 * t + 200, c] as const)
          .concat([[0, 25]])
          .sort((a, b) => a[0] - b[0]),
      ),
    ),
    "silver",
    undefined,
    ["warning heat-soak", "warning heat-slow"],
  ],
])("%s", (_, rows, alloy, limit, want) => {
  expect(tags(judged([["s", "T1 (°C)"], ...rows], alloy, limit))).toEqual(want);
});

test("two probes: their greatest difference while both are above the liquidus, dead ones named, gaps told", () => {
  const a = sampled(SILVER);
  const b = sampled(SILVER, 1, -9);
  const rows = a.map(([t, c], i) => [
    String(t),
    c.toFixed(2),
    b[i]![1].toFixed(2),
    "-999",
    i > 100 && i < 112 ? "" : c.toFixed(2),
  ]);
  const j = judged([["Time", "Top C", "Under C", "Third C", "Fourth C"], ...rows]);
  expect(j.spreadC).toBeCloseTo(9, 1);
  expect(j.probes.map((p) => p.name)).toEqual(["Top", "Under", "Fourth"]);
  expect(j.findings.find((f) => f.tag === "heat-unreadable")).toMatchObject({ probe: "Third" });
  expect(j.findings.filter((f) => f.tag === "heat-gap")).toMatchObject([
    { probe: "Fourth", value: 12, limit: 10 },
  ]);
  const wide = a.map(([t, c]) => [String(t), String(c), String(c - 11)]);
  expect(tags(judged([["s", "a °C", "b °C"], ...wide]))).toContain("warning heat-spread");
});

test("what holds no log, or too little of one, is refused in words", () => {
  const said = (cells: string[][]) => judgeHeat(cells, WINDOWS.lead);
  expect(
    said([
      ["a", "b"],
      ["c", "d"],
    ]),
  ).toMatchObject({ outcome: "reject", reason: /time/ });
  expect(said([["s", "T °C"], ...rowsOf(sampled(SILVER).slice(0, 9))])).toMatchObject({
    reason: "It holds 9 samples; at least 10 are needed.",
  });
  expect(said([["s", "T °C"], ...rowsOf(sampled(SILVER, 0.5).slice(0, 12))])).toMatchObject({
    reason: "It lasts 5.5 s; at least 10 are needed.",
  });
  expect(said([["s", "T °C"], ...sampled(SILVER).map(([t]) => [String(t), "OPEN"])])).toMatchObject({
    reason: /No probe/,
  });
});

/* The ways people's loggers write one and the same profile: each is read as what it is. */
const samples = sampled(SILVER, 2).map(([t, c]) => [t, Math.round(c * 10) / 10] as const);
const p2 = (v: number) => String(v).padStart(2, "0");
const clock = (s: number) => `${p2(Math.floor(s / 3600) % 24)}:${p2(Math.floor(s / 60) % 60)}:${p2(s % 60)}`;
const f = (c: number) => ((c * 9) / 5 + 32).toFixed(2);
const plain = samples.map(([t, c]) => [String(t), String(c)]);
const WAYS: readonly (readonly [string, string[][], string, string])[] = [
  ["seconds and a heading with its unit", [["Time (s)", "T1 (°C)"], ...plain], "T1", "C"],
  [
    "Fahrenheit by heading",
    [["s", "Board [°F]"], ...samples.map(([t, c]) => [String(t), f(c)])],
    "Board",
    "F",
  ],
  [
    "Fahrenheit as a word",
    [["s", "Board Fahrenheit"], ...samples.map(([t, c]) => [String(t), f(c)])],
    "Board",
    "F",
  ],
  ["Fahrenheit nobody says", [["s", "Board"], ...samples.map(([t, c]) => [String(t), f(c)])], "Board", "F"],
  ["a unit after an underscore", [["s", "top_C"], ...plain], "top", "C"],
  ["a unit in a row of its own", [["Time", "Chan 1"], ["s", "°C"], ...plain], "Chan 1", "C"],
  [
    "lines about the logger before",
    [["Logger 7"], ["Start", "12:00:00"], [""], ["s", "T °C"], ...plain],
    "T",
    "C",
  ],
  ["no headings at all", plain, "probe 1", "C"],
  ["clock times", [["Clock", "T °C"], ...samples.map(([t, c]) => [clock(43_200 + t), String(c)])], "T", "C"],
  [
    "over midnight",
    [["Clock", "T °C"], ...samples.map(([t, c]) => [clock(86_300 + t), String(c)])],
    "T",
    "C",
  ],
  [
    "with the day",
    [["When", "T °C"], ...samples.map(([t, c]) => [`2026-11-29 ${clock(3600 + t)}`, String(c)])],
    "T",
    "C",
  ],
  [
    "a column of the day beside",
    [["Date", "Time", "T °C"], ...samples.map(([t, c]) => ["29.11.2026", clock(3600 + t), String(c)])],
    "T",
    "C",
  ],
  [
    "minutes and seconds",
    [["t", "T °C"], ...samples.map(([t, c]) => [`${Math.floor(t / 60)}:${p2(t % 60)}`, String(c)])],
    "T",
    "C",
  ],
  [
    "twelve hours",
    [["Clock", "T °C"], ...samples.map(([t, c]) => [`${clock(3600 + t).replace(/^0?/, "")} PM`, String(c)])],
    "T",
    "C",
  ],
  [
    "minutes as decimals",
    [["Time (min)", "T °C"], ...samples.map(([t, c]) => [(t / 60).toFixed(6), String(c)])],
    "T",
    "C",
  ],
  [
    "minutes behind an underscore",
    [["t_min", "T °C"], ...samples.map(([t, c]) => [(t / 60).toFixed(6), String(c)])],
    "T",
    "C",
  ],
  ["hours", [["Time (h)", "T °C"], ...samples.map(([t, c]) => [(t / 3600).toFixed(9), String(c)])], "T", "C"],
  [
    "milliseconds behind an underscore",
    [["time_ms", "T °C"], ...samples.map(([t, c]) => [String(1000 * t), String(c)])],
    "T",
    "C",
  ],
  ["milliseconds", [["ms", "T °C"], ...samples.map(([t, c]) => [String(1000 * t), String(c)])], "T", "C"],
  [
    "decimal commas",
    [["s", "T °C"], ...samples.map(([t, c]) => [String(t), String(c).replace(".", ",")])],
    "T",
    "C",
  ],
  ["units in the cells", [["s", "T"], ...samples.map(([t, c]) => [String(t), `${c} °C`])], "T", "C"],
  [
    "a number of the row first",
    [["No.", "s", "T °C"], ...samples.map(([t, c], i) => [String(i + 1), String(t), String(c)])],
    "T",
    "C",
  ],
  ["newest first", [["s", "T °C"], ...[...plain].reverse()], "T", "C"],
];
test.each(WAYS)("%s", (_, cells, name, unit) => {
  const j = judged(cells);
  const want = judged(WAYS[0]![1]).probes[0]!;
  expect([j.unit, j.seconds, j.probes.length]).toEqual([unit, 300, 1]);
  const [p] = j.probes;
  expect(p!.name).toBe(name);
  for (const key of ["peakC", "peakAtS", "secondsAboveLiquidus", "soakS", "rampCps", "coolCps"] as const)
    expect([key, p![key]]).toEqual([key, expect.closeTo(want[key]!, 1)]);
  expect(j.findings.filter((x) => x.tag === "heat-unreadable")).toEqual([]);
});

test("a guess of the unit is said, and a row without a time", () => {
  expect(tags(judged([["s", "T"], ...plain]))).toContain("remark heat-unit-assumed");
  const log = readHeatLog([
    ["s", "T °C"],
    ...plain.slice(0, 50),
    ["later", "99"],
    ...plain.slice(50),
    ["301", "warm"],
  ]);
  expect(typeof log === "string" ? log : log.findings.map((x) => x.text)).toEqual([
    "Row 52 has no time that can be read; left out.",
    "One cell of T cannot be read as a temperature; left out.",
  ]);
});

const texts = (j: HeatJudged) => j.findings.map((x) => `${x.level} ${x.text}`);

test("what may be read two ways is said, what is aside is named, what was lost is counted", () => {
  const quarter = samples.map(([t, c]) => [`${Math.floor(t / 60)}:${p2(t % 60)}`, String(c)]);
  expect(texts(judged([["t", "T °C"], ...quarter]))).toContainEqual(
    expect.stringMatching(/^warning Times like 1:30 are taken/),
  );
  expect(texts(judged([["mm:ss", "T °C"], ...quarter])).join()).not.toContain("Times like");
  const words = plain.map(([t, c]) => [t!, c!, "ok"]);
  expect(texts(judged([["s", "T °C", "Status"], ...words]))).toContain(
    "remark The column Status holds words, no temperatures; it is not judged.",
  );
  const loose = plain.map(([t, c], i) => [t!, i === 20 ? "OPEN" : i === 21 ? "1372" : c!]);
  expect(texts(judged([["s", "T °C"], ...loose]))).toContain(
    "warning 2 cells of T say that it was not joined, or lie beyond -60 to 600 °C; left out.",
  );
  // rows are numbered as the file has them, also behind an empty one
  expect(
    texts(judged([["s", "T °C"], ...plain.slice(0, 9), ["", ""], ["x", "30"], ...plain.slice(9)])),
  ).toContain("warning Row 12 has no time that can be read; left out.");
});

test("a column called like a count, a day or a note is a probe where it holds temperatures", () => {
  const j = judged([["s", "N", "Sample"], ...samples.map(([t, c]) => [String(t), String(c), String(c - 1)])]);
  expect(j.probes.map((p) => [p.name, p.peakC])).toEqual([
    ["N", 241],
    ["Sample", 240],
  ]);
});

test("probes called A, B and C are no unit; a letter behind every one of them is", () => {
  const three = (names: string[], at: (c: number) => string) =>
    judged([["s", ...names], ...samples.map(([t, c]) => [String(t), at(c), at(c), at(c)])]);
  expect(three(["Probe A", "Probe B", "Probe C"], f)).toMatchObject({
    unit: "F",
    probes: [{ name: "Probe A", peakC: 241 }, { name: "Probe B" }, { name: "Probe C", peakC: 241 }],
  });
  expect(three(["Top F", "Under F", "Side F"], f)).toMatchObject({
    unit: "F",
    probes: [{ name: "Top" }, { name: "Under" }, { name: "Side" }],
  });
});

test("samples before a probe was joined are part of the log", () => {
  const late = plain.map(([t, c], i) => [t!, i < 5 ? "OPEN" : c!]);
  expect(judged([["s", "T °C"], ...late]).seconds).toBe(300);
});

test("time between two levels is what a sum over many thin slices comes to", () => {
  const curve = fc.array(fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 0, max: 260 })), {
    minLength: 2,
    maxLength: 12,
  });
  fc.assert(
    fc.property(
      curve,
      fc.integer({ min: 20, max: 120 }),
      fc.integer({ min: 121, max: 240 }),
      (pieces, low, high) => {
        let now = 0;
        const t = pieces.map(([d]) => (now += d));
        const p = { name: "p", t, c: pieces.map(([, c]) => c) };
        const n = 20_000;
        const width = (t.at(-1)! - t[0]!) / n;
        let slow = 0;
        for (let i = 0; i < n; i++) {
          const c = at(p, t[0]! + (i + 0.5) * width);
          if (c >= low && c <= high) slow += width;
        }
        expect(secondsWithin(p, low, high)).toBeCloseTo(slow, 0);
      },
    ),
    { numRuns: 40 },
  );
});

test("a window of one's own is held to its form: bounds the wrong way round, and what is no part of it", () => {
  expect(windowShape({ aboveS: [40, 90], rampCps: 2 }, "")).toBeUndefined();
  expect(windowShape({ aboveS: [90, 40] }, "")).toBe("aboveS is from 90 to 40, which is nothing");
  expect(windowShape({ aboveS: [90] }, "")).toBe("aboveS should be 2 values");
  expect(windowShape({ peak: 240 }, "")).toBe("peak is no part of a window");
});
