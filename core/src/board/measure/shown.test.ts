import { expect, test } from "@jest/globals";
import { diffBoards } from "../diff/diff.ts";
import { measureBoard } from "../measure.ts";
import { readBoard } from "../read/read.ts";

/* What the Board page shows with its place: the drill table, contacts, half holes, the tightest inner corner, differences. */

const u = (v: number) => Math.round(v * 1e6);
const HEAD = "%FSLAX46Y46*%%MOMM*%G75*%LPD*%%ADD10C,0.2*%%ADD11C,1.6*%%ADD12R,1.4X5*%";
const box = (x0: number, y0: number, x1: number, y1: number) =>
  `X${u(x0)}Y${u(y0)}D02*G01X${u(x1)}D01*Y${u(y1)}D01*X${u(x0)}D01*Y${u(y0)}D01*`;
const EDGE = `${HEAD}D10*${box(0, 0, 40, 30)}M02*`;
const flash = (stamp: number, x: number, y: number) => `D${stamp}*X${u(x)}Y${u(y)}D03*`;
const read = (files: Readonly<Record<string, string>>) =>
  readBoard(Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })));
const measured = (files: Readonly<Record<string, string>>) => measureBoard(read(files));
const PADS = `${HEAD}${flash(11, 5, 5)}${flash(11, 10, 5)}${flash(11, 15, 5)}M02*`;
const board = (drill: string, name = "b.drl") => ({ "b.GTL": PADS, "b.GKO": EDGE, [name]: drill });

const table = (drill: string, name?: string) =>
  measured(board(drill, name)).drillTable?.map((r) =>
    [
      r.tool,
      r.diameterMm,
      r.plated ? "plated" : "unplated",
      `${r.holes}+${r.slots}`,
      ...(r.use ? [r.use] : []),
      ...(r.toleranceMm ? [`+${r.toleranceMm[0]} -${r.toleranceMm[1]}`] : []),
    ].join(" "),
  );
const drl = (head: string, body: string, unit = "METRIC") => `M48\n${unit}\n${head}%\n${body}M30\n`;

test.each<readonly [string, string, readonly string[]]>([
  [
    "two tools",
    drl("T1C0.3\nT2C1.0\n", "T1\nX5.0Y5.0\nX10.0Y5.0\nT2\nX15.0Y5.0\n"),
    ["T1 0.3 plated 2+0", "T2 1 plated 1+0"],
  ],
  [
    "ordered by size, not by number",
    drl("T1C1.0\nT2C0.3\n", "T1\nX5.0Y5.0\nT2\nX10.0Y5.0\n"),
    ["T2 0.3 plated 1+0", "T1 1 plated 1+0"],
  ],
  ["a tool that drills nothing is no row", drl("T1C0.3\nT7C3.0\n", "T1\nX5.0Y5.0\n"), ["T1 0.3 plated 1+0"]],
  [
    "two tools of one size stay two",
    drl("T1C0.3\nT2C0.3\n", "T1\nX5.0Y5.0\nT2\nX10.0Y5.0\n"),
    ["T1 0.3 plated 1+0", "T2 0.3 plated 1+0"],
  ],
  ["slots beside holes", drl("T1C0.8\n", "T1\nX5.0Y5.0\nX9.7Y5.0G85X10.3Y5.0\n"), ["T1 0.8 plated 1+1"]],
  [
    "a routed path",
    drl("T1C1.0\n", "T1\nG00X20.0Y20.0\nM15\nG01X25.0Y20.0\nX25.0Y22.0\nM16\nG05\n"),
    ["T1 1 unplated 0+1"],
  ],
  [
    "plating that the copper settles, by hole",
    drl("T1C1.0\n", "T1\nX5.0Y5.0\nX30.0Y20.0\n"),
    ["T1 1 plated 1+0", "T1 1 unplated 1+0"],
  ],
  [
    "what the attribute says of a tool",
    drl(
      ";#@! TA.AperFunction,Plated,PTH,ViaDrill\nT1C0.3\n;#@! TA.AperFunction,Plated,PTH,ComponentDrill,PressFit\nT2C1.0\n;#@! TD\nT3C2.0\n",
      "T1\nX5.0Y5.0\nT2\nX10.0Y5.0\nT3\nX15.0Y5.0\n",
    ),
    ["T1 0.3 plated 1+0 via", "T2 1 plated 1+0 component, press fit", "T3 2 unplated 1+0"],
  ],
  [
    "its tolerance",
    drl(";#@! TA.DrillTolerance,0.05,0.02\nT1C1.0\n", "T1\nX5.0Y5.0\n"),
    ["T1 1 plated 1+0 +0.05 -0.02"],
  ],
  [
    "its tolerance in inches",
    drl(";#@! TA.DrillTolerance,0.002,0.001\nT1C0.04\n", "T1\nX0.19685Y0.19685\n", "INCH"),
    ["T1 1.016 plated 1+0 +0.0508 -0.0254"],
  ],
  [
    "a tolerance that is no number is none",
    drl(";#@! TA.DrillTolerance,tight\nT1C1.0\n", "T1\nX5.0Y5.0\n"),
    ["T1 1 plated 1+0"],
  ],
])("the drill table: %s", (_, drill, rows) => {
  expect(table(drill)).toEqual(rows);
});

test("a drill file written as a layer has its stamps as tools, with what they say", () => {
  const layer = `%TF.FileFunction,Plated,1,2,PTH*%%FSLAX46Y46*%%MOMM*%%TA.AperFunction,ComponentDrill*%%TA.DrillTolerance,0.1,0.05*%%ADD20C,1*%%TD*%%ADD21C,0.3*%G75*${flash(20, 5, 5)}${flash(21, 10, 5)}M02*`;
  expect(table(layer, "b-pth.gbr")).toEqual(["D21 0.3 plated 1+0", "D20 1 plated 1+0 component +0.1 -0.05"]);
});

test("each row knows where its holes are, twenty at most", () => {
  const many = Array.from({ length: 30 }, (_, i) => `X${(1 + i).toFixed(1)}Y20.0\n`).join("");
  const [row] = measured(board(drl("T1C0.5\n", `T1\n${many}`))).drillTable!;
  expect(row!.holes).toBe(30);
  expect(row!.at).toHaveLength(20);
  expect(row!.at[2]).toEqual({ layer: "drill", x: 3, y: 20 });
});

test("contacts, half holes and the tightest inner corner have a place", () => {
  const contacts = Array.from({ length: 5 }, (_, i) => flash(12, 10 + 2 * i, 3)).join("");
  const m = measured({
    "b.GTL": `${HEAD}${contacts}${flash(11, 40, 15)}M02*`,
    "b.GTS": `${HEAD}M02*`,
    // a notch whose corners have a radius of 1 mm at 19, 29 and 21, 29
    "b.GKO": `${HEAD}D10*X0Y0D02*G01X${u(40)}D01*Y${u(30)}D01*X${u(25)}D01*Y${u(28)}D01*G02X${u(24)}Y${u(27)}I${u(-1)}J0D01*G01X${u(16)}D01*G02X${u(15)}Y${u(28)}I0J${u(1)}D01*G01Y${u(30)}D01*X0D01*Y0D01*M02*`,
    "b.drl": drl(";TYPE=PLATED\nT1C0.8\n", "T1\nX40.0Y15.0\n"),
  });
  expect(m.edgeContacts?.top).toMatchObject({ count: 5, edge: "bottom", at: { x: 14, y: 3 } });
  expect(m.castellatedHoles).toMatchObject({ count: 1, at: { x: 40, y: 15 } });
  expect(m.outline?.minInnerRadiusMm).toBe(1);
  const [at] = m.outline!.minInnerRadiusAt!;
  // the middle of one of the two arcs about 24, 28 and 16, 28
  expect([at!.x < 20 ? 40 - at!.x : at!.x, at!.y]).toEqual(
    [24 + Math.SQRT1_2, 28 - Math.SQRT1_2].map((v) => Math.round(v * 1e6) / 1e6),
  );
});

test("differences of two revisions have their places, the largest first, laid on each other by the outline", () => {
  const set = (top: string, drill: string, dx = 0) =>
    read({
      "b.GTL": `${HEAD}${top}M02*`,
      "b.GKO": `${HEAD}D10*${box(dx, 0, 40 + dx, 30)}M02*`,
      "b.drl": drl("T1C0.5\n", `T1\n${drill}`),
    });
  const track = (y: number, dx = 0) => `D10*X${u(2 + dx)}Y${u(y)}D02*G01X${u(12 + dx)}D01*`;
  const was = set(track(5) + flash(11, 30, 20), "X30.0Y20.0\nX20.0Y20.0\n");
  const now = set(track(5) + track(8) + flash(11, 30, 20.5), "X30.0Y20.0\nX21.0Y20.0\n");
  const d = diffBoards(now, was);
  expect(d.changed).toEqual(["copper-top", "drill"]);
  expect(d.places["copper-top"]![0]).toEqual({
    x: 7,
    y: 8,
    widthMm: expect.closeTo(10.195, 2),
    heightMm: expect.closeTo(0.195, 2),
    kind: "added",
  });
  expect(d.places["copper-top"]![1]).toMatchObject({ x: 30, y: 20.25 });
  expect(d.places["copper-top"]).toHaveLength(2);
  expect(d.places.drill).toEqual([{ x: 20.5, y: 20, widthMm: 1.5, heightMm: 0.5, kind: "moved", byMm: 1 }]);
  // about another origin, with one hole moved: that hole alone, where it is on this board
  const shifted = set(track(5, 100) + flash(11, 130, 20), "X130.0Y20.0\nX121.0Y20.0\n", 100);
  expect(diffBoards(shifted, was)).toMatchObject({
    changed: ["drill"],
    places: { drill: [{ x: 120.5, y: 20, widthMm: 1.5, heightMm: 0.5 }] },
  });
  // the same board about another origin is no other board
  const moved = set(track(5, 100) + flash(11, 130, 20), "X130.0Y20.0\nX120.0Y20.0\n", 100);
  expect(diffBoards(moved, was)).toMatchObject({ changed: [], places: {} });
  expect(diffBoards(was, was).places).toEqual({});
});
