import { expect, test } from "@jest/globals";
import { Work } from "../../geometry/work.ts";
import { diffBoards } from "../diff/diff.ts";
import { measureBoard } from "../measure.ts";
import type { Measure } from "../measure-document.ts";
import { readBoard } from "./read.ts";

/*
 * Files that would take for ever. A layer with each object on one spot many times over is the same board as with each
 * once, however the copies are written. What is tangled beyond any board is given up, and says so: no figure that was
 * not measured to its end, and an error that names what is missing.
 */

const HEAD = "%FSLAX46Y46*%%MOMM*%G75*%LPD*%%ADD10C,0.2*%%ADD11R,1X1.5*%%ADD12C,1*%";
const mm = (v: number) => Math.round(v * 1e6);
const EDGE = `${HEAD}D10*X0Y0D02*G01X${mm(60)}D01*Y${mm(40)}D01*X0D01*Y0D01*M02*`;
/** Twelve pads, each with a track of 0.2 mm. */
const BODY = Array.from({ length: 12 }, (_, i) => {
  const [x, y] = [5 + (i % 4) * 6, 5 + Math.floor(i / 4) * 6];
  return `D11*X${mm(x)}Y${mm(y)}D03*D10*X${mm(x)}Y${mm(y)}D02*G01X${mm(x + 4)}Y${mm(y + 2)}D01*`;
}).join("");
const repeat = (n: number, dx: number, dy: number, what: string) => `%SRX${n}Y${n}I${dx}J${dy}*%${what}%SR*%`;

const measured = (files: Readonly<Record<string, string>>, work?: Work) =>
  measureBoard(
    readBoard(Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) }))),
    undefined,
    work,
  );
const board = (top: string, more: Readonly<Record<string, string>> = {}) => ({
  "a-F.GTL": `${HEAD}${top}M02*`,
  "a.GKO": EDGE,
  ...more,
});
const figures = ({ layers: _, copperFlashes: __, findings, ...m }: Measure) => ({
  ...m,
  findings: findings.map((f) => f.text),
});
const gaveUp = (m: Measure) => m.findings.filter((f) => f.tag === "budget-reached");

/** Steps that any honest small board takes a fraction of; the true bound would make these tests slow. */
const SMALL = 60_000_000;

const ONE = figures(measured(board(BODY)));

test.each<readonly [string, string]>([
  ["step and repeat, 30 × 30", repeat(30, 0, 0, BODY)],
  ["step and repeat, 100 × 100", repeat(100, 0, 0, BODY)],
  ["step and repeat, 300 × 300", repeat(300, 0, 0, BODY)],
  ["step and repeat in one direction only", `%SRX900Y1I0J0*%${BODY}%SR*%`],
  ["a block stamped 900 times", `%ABD20*%${BODY}%AB*%D20*${"X0Y0D03*".repeat(900)}`],
  ["a block stamped 10,000 times", `%ABD20*%${BODY}%AB*%D20*${"X0Y0D03*".repeat(10_000)}`],
  [
    "a block in a block",
    `%ABD20*%${BODY}%AB*%%ABD21*%D20*${"X0Y0D03*".repeat(100)}%AB*%D21*${"X0Y0D03*".repeat(100)}`,
  ],
  ["the text written 900 times", BODY.repeat(900)],
  ["each object written ten times in a row", BODY.replace(/X\d+Y\d+D03\*/g, (flash) => flash.repeat(10))],
  ["copies of copies", repeat(30, 0, 0, `%ABD20*%${BODY}%AB*%D20*${"X0Y0D03*".repeat(30)}`)],
])("copies on one spot are one: %s", (_, top) => {
  expect(figures(measured(board(top)))).toEqual(ONE);
});

test("a stroke over what was taken away is no copy of the one below it", () => {
  const bar = `D10*X${mm(10)}Y${mm(10)}D02*G01X${mm(20)}D01*`;
  const cut = `%LPC*%D12*X${mm(15)}Y${mm(10)}D03*%LPD*%`;
  expect(measured(board(bar + cut)).copperIslands).toEqual({ top: 2 });
  expect(measured(board(bar + cut + bar)).copperIslands).toEqual({ top: 1 });
});

test("objects of other nets on one spot are kept apart, and said", () => {
  const pad = (net: string) => `%TO.N,${net}*%D11*X${mm(10)}Y${mm(10)}D03*`;
  expect(measured(board(pad("A") + pad("A"))).findings.some((f) => f.tag === "net-short")).toBe(false);
  expect(measured(board(pad("A") + pad("B"))).findings.some((f) => f.tag === "net-short")).toBe(true);
});

const around = (n: number, put: (x: number, y: number) => string) =>
  Array.from({ length: n }, (_, i) =>
    put(mm(30 + 25 * Math.cos((i / n) * 6.28)), mm(20 + 15 * Math.sin((i / n) * 6.28))),
  ).join("");
const CENTRE = `X${mm(30)}Y${mm(20)}`;
const PLANE = `G36*X0Y0D02*G01X${mm(60)}D01*Y${mm(40)}D01*X0D01*Y0D01*G37*`;
const HOLES = "M48\nMETRIC,TZ\nT1C0.8\n%\nT1\n";

const FAN = `G36*${CENTRE}D02*G01*${around(60_000, (x, y) => `X${x}Y${y}D01*${CENTRE}D01*`)}G37*`;
const TANGLE = `${PLANE}%LPC*%D10*${around(5_000, (x, y) => `${CENTRE}D02*G01X${x}Y${y}D01*`)}`;

test.each<readonly [string, Readonly<Record<string, string>>, RegExp]>([
  ["a fan of 60,000 edges", board(FAN), /The copper top \(a-F\.GTL\) was given up/],
  [
    "strokes by the thousand taken out of a plane through one point",
    board(TANGLE),
    /The copper top \(a-F\.GTL\) was given up/,
  ],
  [
    "copies a micrometre apart",
    board(repeat(60, 0.001, 0.001, BODY)),
    /The copper top \(a-F\.GTL\) was given up/,
  ],
  [
    "more pads than a board has",
    board(repeat(560, 0.2, 0.2, "%ADD13C,0.05*%D13*X1000000Y1000000D03*")),
    /it has more than 300,000 pads/,
  ],
  [
    "a mask of crossing strokes",
    board(BODY, { "a.GTS": `${HEAD}${TANGLE}M02*` }),
    /The mask top \(a\.GTS\) was given up/,
  ],
])("what is beyond any board is refused in words: %s", (name, files, says) => {
  const m = measured(files, name.includes("pads") ? undefined : new Work(SMALL));
  expect(m.outcome).toBe("reject");
  expect(m.reason).toMatch(says);
  expect(gaveUp(m)).toHaveLength(1);
  const known = [m.minTrackMm, m.minSpaceMm, m.nets, m.copperAreaMm2.top];
  expect(known).toEqual([undefined, undefined, undefined, undefined]);
});

test.each<readonly [string, Readonly<Record<string, string>>, RegExp, (m: Measure) => unknown]>([
  [
    "1,000 strokes of one net through one point",
    board(`D10*${around(1_000, (x, y) => `${CENTRE}D02*G01X${x}Y${y}D01*`)}`),
    /The area of the copper top was given up/,
    (m) => m.copperAreaMm2.top,
  ],
  [
    "paste taken out of paste through one point",
    board(BODY, { "a.GTP": `${HEAD}${TANGLE}M02*` }),
    /The paste top \(a\.GTP\) was given up.*openings of the stencil on the top are not known/,
    (m) => m.paste.top,
  ],
  [
    "silkscreen likewise",
    board(BODY, { "a.GTO": `${HEAD}${TANGLE}M02*` }),
    /The silkscreen top \(a\.GTO\) was given up.*Lines and text on the top are not known/,
    (m) => m.minLegendLineMm,
  ],
  [
    "slots on each other",
    board(BODY, {
      "a.drl": `${HOLES}${Array.from({ length: 2_000 }, (_, k) => `X5.0Y5.0G85X20.0Y${(5 + k * 0.005).toFixed(4)}\n`).join("")}M30\n`,
    }),
    /Comparing the holes with each other was given up/,
    (m) => m.minHoleToHoleMm,
  ],
])("what is not measured to its end is no figure, and the rest stands: %s", (_, files, says, figure) => {
  const m = measured(files, new Work(SMALL));
  expect(m.outcome).toBe("accept");
  const said = gaveUp(m);
  expect(said.map((f) => f.text).join("\n")).toMatch(says);
  expect(said.every((f) => f.level === "error" && f.do)).toBe(true);
  expect(figure(m)).toBeUndefined();
  expect(Object.keys(m.copperIslands)).toEqual(["top"]);
});

test("an outline written thousands of times, each a little beside the last, has no size", () => {
  const once = `X0Y0D02*G01X${mm(50)}D01*Y${mm(30)}D01*X0D01*Y0D01*`;
  const m = measured(board(BODY, { "a.GKO": `${HEAD}D10*${repeat(120, 0.01, 0.01, once)}M02*` }));
  expect(gaveUp(m)[0]?.text).toMatch(/57600 objects.*the board's size is not known/);
  expect(m.outline).toEqual({ closed: false, cutouts: 0 });
});

test("whatever the budget, a figure is the true one or is not there and an error says so", () => {
  const star = `D10*${around(60, (x, y) => `${CENTRE}D02*G01X${x}Y${y}D01*`)}`;
  const files = board(BODY + star, {
    "a.GTS": `${HEAD}${BODY}M02*`,
    "a.GTP": `${HEAD}${BODY}M02*`,
    "a.GTO": `${HEAD}${BODY}M02*`,
    "a.drl": `${HOLES}X5.0Y5.0\nX11.0Y5.0\nX5.0Y11.0\nM30\n`,
  });
  const full = measured(files) as unknown as Record<string, unknown>;
  let [partial, rejected] = [0, 0];
  for (let steps = 1_000; steps < 30_000_000; steps = Math.ceil(steps * 1.3)) {
    const m = measured(files, new Work(steps));
    const isWhole = gaveUp(m).length === 0;
    if (m.outcome === "reject") {
      rejected++;
      expect(gaveUp(m).length).toBeGreaterThan(0);
      continue;
    }
    if (!isWhole) partial++;
    for (const [key, value] of Object.entries(m)) {
      if (["findings", "copperAreaMm2", "copperShare", "paste", "stencil"].includes(key)) continue;
      expect([key, value]).toEqual([key, full[key]]);
    }
    for (const key of Object.keys(full)) if (!(key in m)) expect(isWhole).toBe(false);
  }
  expect(partial).toBeGreaterThan(3);
  expect(rejected).toBeGreaterThan(3);
});

test("pieces of a work have two fifths of it each, and all of it together", () => {
  const whole = new Work(100);
  expect(() => whole.part().spend(41)).toThrow("more steps than a board can need");
  whole.part().spend(40);
  whole.part().spend(40);
  whole.part().spend(20);
  expect(() => whole.part().spend(1)).toThrow("more steps than a board can need");
});

test("what cannot be compared is not called unchanged", () => {
  const set = (top: string) =>
    readBoard(
      Object.entries(board(top)).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
    );
  expect(diffBoards(set(FAN), set(FAN)).changed).toContain("copper-top");
  expect(diffBoards(set(BODY), set(BODY)).changed).toEqual([]);
});
