import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readLayer } from "../gerber/read.ts";
import { covers, type Shape, shapesOf } from "../gerber/shapes.ts";
import { analyseLayer, leastSpace, ringAround, unionArea } from "./copper.ts";
import { findGaps, islandsOf, TOUCH_MM } from "./gaps.ts";

const nm = (v: number) => Math.round(v * 1e6);
const layer = (body: string) =>
  readLayer(
    new TextEncoder().encode(
      `%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10C,0.3*%\n%ADD11R,0.8X0.5*%\n%ADD12O,0.9X0.4*%\n${body}M02*\n`,
    ),
    "a.gbr",
  );
const anyBody = fc
  .array(
    fc.tuple(
      fc.constantFrom("line", "rect", "oval", "area"),
      fc.integer({ min: 0, max: 80 }),
      fc.integer({ min: 0, max: 80 }),
      fc.integer({ min: -20, max: 20 }),
      fc.integer({ min: -20, max: 20 }),
    ),
    { minLength: 2, maxLength: 9 },
  )
  .map((list) =>
    list
      .map(([kind, a, b, c, d]) => {
        const [x, y, u, v] = [a / 10, b / 10, c / 10, d / 10];
        if (kind === "line") return `D10*\nX${nm(x)}Y${nm(y)}D02*\nG01X${nm(x + u)}Y${nm(y + v)}D01*\n`;
        if (kind === "rect") return `D11*\nX${nm(x)}Y${nm(y)}D03*\n`;
        if (kind === "oval") return `D12*\nX${nm(x)}Y${nm(y)}D03*\n`;
        const w = 0.3 + Math.abs(u);
        return `G36*\nX${nm(x)}Y${nm(y)}D02*\nG01X${nm(x + w)}Y${nm(y)}D01*\nX${nm(x + w)}Y${nm(y + w)}D01*\nX${nm(x)}Y${nm(y)}D01*\nG37*\n`;
      })
      .join(""),
  );

/** The slow and obvious way: points along both outlines, every pair. */
function slowDistance(a: Shape, b: Shape): number {
  const points = (s: Shape) => {
    const out: [number, number][] = [];
    for (let k = 0; k < s.edges.length; k += 4)
      for (let t = 0; t <= 60; t++)
        out.push([
          s.edges[k]! + ((s.edges[k + 2]! - s.edges[k]!) * t) / 60,
          s.edges[k + 1]! + ((s.edges[k + 3]! - s.edges[k + 1]!) * t) / 60,
        ]);
    return out;
  };
  const [pa, pb] = [points(a), points(b)];
  if (pa.some(([x, y]) => covers(b, x, y)) || pb.some(([x, y]) => covers(a, x, y))) return 0;
  let best = Number.POSITIVE_INFINITY;
  for (const [x, y] of pa) for (const [u, v] of pb) best = Math.min(best, Math.hypot(x - u, y - v));
  return Math.max(0, best - a.r - b.r);
}

test("the grid finds the gaps that trying every pair finds", () => {
  fc.assert(
    fc.property(anyBody, (body) => {
      const shapes = shapesOf(layer(body));
      const reach = 1;
      const found = new Map(findGaps(shapes, reach).map((g) => [`${g.a} ${g.b}`, Math.max(0, g.mm)]));
      for (let a = 0; a < shapes.length; a++)
        for (let b = a + 1; b < shapes.length; b++) {
          const slow = slowDistance(shapes[a]!, shapes[b]!);
          const fast = found.get(`${a} ${b}`);
          // sampling can only overestimate, by a little less than its step
          if (slow < reach - 0.05) expect(fast).toBeDefined();
          if (fast !== undefined && slow > 0) expect(Math.abs(slow - fast)).toBeLessThan(0.06);
        }
    }),
    { numRuns: 60 },
  );
});

test("turning and moving a layer changes no gap, no island, no area", () => {
  fc.assert(
    fc.property(anyBody, fc.integer({ min: -50, max: 50 }), (body, dx) => {
      const turned = body.replace(/X(-?\d+)Y(-?\d+)/g, (_, x, y) => `X${-Number(y) + nm(dx)}Y${x}`);
      const flipStamps = `%ADD11R,0.5X0.8*%\n%ADD12O,0.4X0.9*%\n${turned}`;
      const [a, b] = [analyseLayer(layer(body), "a"), analyseLayer(layer(flipStamps), "b")];
      expect(b.islands.count()).toBe(a.islands.count());
      const [ga, gb] = [leastSpace(a)?.mm, leastSpace(b)?.mm];
      if (ga !== undefined && ga < 10) expect(gb).toBeCloseTo(ga, 4);
      expect(unionArea(b.shapes)).toBeCloseTo(unionArea(a.shapes), 2);
    }),
    { numRuns: 40 },
  );
});

test("touching copper is one island, a micrometre apart too, more is two", () => {
  const two = (gap: number) => {
    const shapes = shapesOf(layer(`D11*\nX0Y0D03*\nX${nm(0.8 + gap)}Y0D03*\n`));
    return islandsOf(shapes, findGaps(shapes, 0.3)).count();
  };
  expect([two(-0.1), two(0), two(TOUCH_MM / 2), two(0.01)]).toEqual([1, 1, 1, 2]);
});

test("the ring around a hole is that of the worst direction; beside the copper there is none", () => {
  const pad = analyseLayer(layer("D11*\nX0Y0D03*\n"), "top");
  expect(ringAround(pad, [0], 0, 0, 0.15)!.mm).toBeCloseTo(0.25 - 0.15, 9);
  expect(ringAround(pad, [0], 0.2, 0, 0.15)!.mm).toBeCloseTo(0.2 - 0.15, 9);
  expect(ringAround(pad, [0], 2, 2, 0.15)).toBeUndefined();
});
