import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readLayer } from "../../gerber/read.ts";
import { chainOutline } from "./outline.ts";

interface Piece {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly centre?: readonly [number, number];
}
const nm = (v: number) => Math.round(v * 1e6);
const profile = (pieces: readonly Piece[]) => {
  const words = pieces.map(
    ({ from, to, centre }) =>
      `${centre ? "G03" : "G01"}*\nX${nm(from[0])}Y${nm(from[1])}D02*\nX${nm(to[0])}Y${nm(to[1])}${centre ? `I${nm(centre[0] - from[0])}J${nm(centre[1] - from[1])}` : ""}D01*\n`,
  );
  return chainOutline(
    readLayer(
      new TextEncoder().encode(`%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10C,0.1*%\nD10*\n${words.join("")}M02*\n`),
      "edge.gbr",
    ),
    "edge.gbr",
  );
};
const rounded = (w: number, h: number, r: number, x = 0, y = 0): Piece[] => [
  { from: [x + r, y], to: [x + w - r, y] },
  { from: [x + w - r, y], to: [x + w, y + r], centre: [x + w - r, y + r] },
  { from: [x + w, y + r], to: [x + w, y + h - r] },
  { from: [x + w, y + h - r], to: [x + w - r, y + h], centre: [x + w - r, y + h - r] },
  { from: [x + w - r, y + h], to: [x + r, y + h] },
  { from: [x + r, y + h], to: [x, y + h - r], centre: [x + r, y + h - r] },
  { from: [x, y + h - r], to: [x, y + r] },
  { from: [x, y + r], to: [x + r, y], centre: [x + r, y + r] },
];
const square = (x: number, y: number, s: number): Piece[] => [
  { from: [x, y], to: [x + s, y] },
  { from: [x + s, y], to: [x + s, y + s] },
  { from: [x + s, y + s], to: [x, y + s] },
  { from: [x, y + s], to: [x, y] },
];

test("100 × 60 mm with four corners of 3 mm has 5992.2743 mm² (worked example)", () => {
  const o = profile(rounded(100, 60, 3));
  expect(o).toMatchObject({ isClosed: true, widthMm: 100, heightMm: 60, cutouts: 0, findings: [] });
  expect(o.areaMm2).toBeCloseTo(5992.2743, 4);
  expect(o.perimeterMm).toBeCloseTo(2 * (94 + 54) + 2 * Math.PI * 3, 4);
});

test("the order of the pieces and where they lie change nothing", () => {
  const base = rounded(40, 30, 2);
  fc.assert(
    fc.property(
      fc.shuffledSubarray(base, { minLength: base.length }),
      fc.integer({ min: -200, max: 200 }),
      (order, dx) => {
        const moved = order.map((p) => ({
          from: [p.from[0] + dx, p.from[1]] as const,
          to: [p.to[0] + dx, p.to[1]] as const,
          ...(p.centre ? { centre: [p.centre[0] + dx, p.centre[1]] as const } : {}),
        }));
        const o = profile(moved);
        expect([o.isClosed, o.widthMm, o.heightMm]).toEqual([true, 40, 30]);
        expect(o.areaMm2).toBeCloseTo(1200 - (4 - Math.PI) * 4, 5);
      },
    ),
    { numRuns: 40 },
  );
});

test.each([
  [0.008, true, []],
  [0.04, true, ["remark"]],
  [0.2, true, ["warning"]],
  [0.4, false, ["error"]],
])("a gap of %d mm is closed: %s, said as %j", (gap, isClosed, levels) => {
  const [a, b, c] = square(0, 0, 20);
  const o = profile([a!, b!, c!, { from: [0, 20], to: [0, gap] }]);
  expect(o.isClosed).toBe(isClosed);
  expect(o.findings.map((f) => f.level)).toEqual(levels);
  if (!isClosed) expect(o.widthMm).toBeUndefined();
});

test("a cut-out takes its area away and stays out of the perimeter", () => {
  const o = profile([...square(0, 0, 20), ...square(5, 5, 4)]);
  expect(o).toMatchObject({ cutouts: 1, areaMm2: 384, perimeterMm: 80, minInnerRadiusMm: 0 });
});

test("a cut-out far along a long board is one, and what lies beside the board is none", () => {
  const wide = rounded(100, 10, 1);
  expect(profile([...wide, ...square(80, 3, 4)])).toMatchObject({ cutouts: 1 });
  expect(profile([...wide, ...square(3, 80, 4)]).cutouts).toBe(0);
});

test("a stray line inside is said and does not open the outline", () => {
  const o = profile([...square(0, 0, 20), { from: [5, 5], to: [9, 5] }]);
  expect(o.isClosed).toBe(true);
  expect(o.findings).toEqual([
    expect.objectContaining({ tag: "outline-stray", at: { layer: "profile", x: 5, y: 5 } }),
  ]);
});

test("an outline that crosses itself blocks, with the place", () => {
  const o = profile([
    { from: [0, 0], to: [10, 10] },
    { from: [10, 10], to: [10, 0] },
    { from: [10, 0], to: [0, 10] },
    { from: [0, 10], to: [0, 0] },
  ]);
  expect(o.findings.map((f) => f.tag)).toContain("outline-self-crossing");
});

test("an outline with a side left out is open over just that side, whichever piece comes first", () => {
  const base = rounded(40, 30, 2);
  base.forEach((missing, i) => {
    const rest = base.filter((_, k) => k !== i);
    for (let turn = 0; turn < rest.length; turn++) {
      const o = profile([...rest.slice(turn), ...rest.slice(0, turn)]);
      expect(o).toMatchObject({ isClosed: false, loops: [] });
      expect(o.widthMm).toBeUndefined();
      const wide = Math.hypot(missing.to[0] - missing.from[0], missing.to[1] - missing.from[1]);
      expect(o.findings[0]).toMatchObject({ tag: "outline-open", level: "error" });
      expect(o.findings[0]!.text).toContain(`the next end is ${wide.toFixed(2)} mm away`);
      expect(o.largestGapMm).toBeCloseTo(wide, 6);
    }
  });
});
