import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { clipAreas, shrinkAreas } from "../../geometry/clip.ts";
import { readLayer } from "../../gerber/read.ts";
import { ringsOfSolid, type Solids, solidCovers, solidsOf } from "../../gerber/solids.ts";
import { Worst } from "../worst.ts";
import { addSpaces, analyseLayer, unionArea } from "./copper.ts";
import { ringAround } from "./holes.ts";
import { findIslands, TOUCH_MM } from "./near.ts";

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
      fc.constantFrom("line", "rect", "oval", "area", "wide"),
      fc.integer({ min: 0, max: 7999 }),
      fc.integer({ min: 0, max: 7999 }),
      fc.integer({ min: -1999, max: 1999 }),
      fc.integer({ min: -1999, max: 1999 }),
    ),
    { minLength: 2, maxLength: 12 },
  )
  .map((list) =>
    list
      .map(([kind, a, b, c, d]) => {
        // steps of 2 µm: no gap is exactly the micrometre at which copper counts as touching
        const [x, y, u, v] = [a, b, c, d].map((q) => Math.round(q / 2) / 500) as [
          number,
          number,
          number,
          number,
        ];
        if (kind === "line") return `D10*\nX${nm(x)}Y${nm(y)}D02*\nG01X${nm(x + u)}Y${nm(y + v)}D01*\n`;
        if (kind === "rect") return `D11*\nX${nm(x)}Y${nm(y)}D03*\n`;
        if (kind === "oval") return `D12*\nX${nm(x)}Y${nm(y)}D03*\n`;
        const w = kind === "wide" ? 4 : 0.3 + Math.abs(u);
        return `G36*\nX${nm(x)}Y${nm(y)}D02*\nG01X${nm(x + w)}Y${nm(y)}D01*\nX${nm(x + w)}Y${nm(y + w)}D01*\nX${nm(x)}Y${nm(y)}D01*\nG37*\n`;
      })
      .join(""),
  );

/** The slow and obvious way: points along both outlines, every pair. */
function slowDistance(s: Solids, a: number, b: number): number {
  const points = (k: number) => {
    const out: [number, number][] = [];
    const e = s.edges;
    for (let i = s.firstEdge[k]! * 4; i < s.firstEdge[k + 1]! * 4; i += 4)
      for (let t = 0; t <= 60; t++)
        out.push([e[i]! + ((e[i + 2]! - e[i]!) * t) / 60, e[i + 1]! + ((e[i + 3]! - e[i + 1]!) * t) / 60]);
    return out;
  };
  const [pa, pb] = [points(a), points(b)];
  if (pa.some(([x, y]) => solidCovers(s, b, x, y)) || pb.some(([x, y]) => solidCovers(s, a, x, y))) return 0;
  let best = Number.POSITIVE_INFINITY;
  for (const [x, y] of pa) for (const [u, v] of pb) best = Math.min(best, Math.hypot(x - u, y - v));
  return Math.max(0, best - s.radius[a]! - s.radius[b]!);
}

/**
 * Islands by another way altogether: the clipping package's union counts them. Undefined where shapes grown by a few
 * micrometres would make fewer: those that barely touch are judged by tolerance on either side.
 */
function slowIslands(s: Solids): number | undefined {
  const plain = clipAreas("union", Array.from({ length: s.count }, (_, k) => ringsOfSolid(s, k)).flat(), []);
  const grown = clipAreas("union", shrinkAreas(plain, -0.005).flat(), []);
  return grown.length === plain.length ? plain.length : undefined;
}

const leastSpace = (body: string) => {
  const worst = new Worst();
  addSpaces(worst, analyseLayer(layer(body), "a"));
  return worst.least;
};

test("the grid finds the gaps between islands that trying every pair finds", () => {
  fc.assert(
    fc.property(anyBody, (body) => {
      const s = solidsOf(layer(body));
      const reach = 1;
      const { groups, near } = findIslands(s, reach);
      const found = new Map<string, number>();
      for (let i = 0; i < near.count; i++) {
        const key = [near.a[i]!, near.b[i]!].sort((x, y) => x - y).join(" ");
        found.set(key, Math.min(found.get(key) ?? 9, near.mm[i]!));
      }
      for (let a = 0; a < s.count; a++)
        for (let b = a + 1; b < s.count; b++) {
          const slow = slowDistance(s, a, b);
          if (slow < TOUCH_MM) expect(groups.find(a)).toBe(groups.find(b));
          if (groups.find(a) === groups.find(b)) continue;
          const fast = found.get(`${a} ${b}`);
          // sampling can only overestimate, by a little less than its step
          if (slow < reach - 0.05) expect(fast).toBeDefined();
          if (fast !== undefined) expect(Math.abs(slow - fast)).toBeLessThan(0.06);
        }
    }),
    { numRuns: 10 },
  );
});

test("islands are as many as the union by the clipping package has", () => {
  fc.assert(
    fc.property(anyBody, (body) => {
      const l = analyseLayer(layer(body), "a");
      const slow = slowIslands(l.solids);
      fc.pre(slow !== undefined);
      expect(l.islands.groups.count()).toBe(slow);
    }),
    { numRuns: 120 },
  );
});

test("turning and moving a layer changes no gap, no island, no area", () => {
  fc.assert(
    fc.property(anyBody, fc.integer({ min: -50, max: 50 }), (body, dx) => {
      const turned = body.replace(/X(-?\d+)Y(-?\d+)/g, (_, x, y) => `X${-Number(y) + nm(dx)}Y${x}`);
      const flipStamps = `%ADD11R,0.5X0.8*%\n%ADD12O,0.4X0.9*%\n${turned}`;
      const [a, b] = [analyseLayer(layer(body), "a"), analyseLayer(layer(flipStamps), "b")];
      expect(b.islands.groups.count()).toBe(a.islands.groups.count());
      const [ga, gb] = [leastSpace(body), leastSpace(flipStamps)];
      if (ga !== undefined && ga < 10) expect(gb).toBeCloseTo(ga, 4);
      expect(unionArea(b)).toBeCloseTo(unionArea(a), 2);
    }),
    { numRuns: 40 },
  );
});

test("edges on one slanted line that end before each other do not meet", () => {
  const corner = (x: number, y: number, s: number) =>
    `G36*\nX${x}Y${y}D02*\nG01X${x + s}Y${y}D01*\nX${x + s}Y${y + s}D01*\nX${x}Y${y}D01*\nG37*\n`;
  const body = corner(1560000, 1122000, 1722000) + corner(3330000, 2892000, 330000);
  expect(analyseLayer(layer(body), "a").islands.groups.count()).toBe(2);
  expect(leastSpace(body)).toBeCloseTo(0.048 * Math.SQRT2, 6);
});

test("touching copper is one island, a micrometre apart too, more is two", () => {
  const two = (gap: number) =>
    findIslands(solidsOf(layer(`D11*\nX0Y0D03*\nX${nm(0.8 + gap)}Y0D03*\n`)), 0.3).groups.count();
  expect([two(-0.1), two(0), two(TOUCH_MM / 2), two(0.01)]).toEqual([1, 1, 1, 2]);
});

test("the ring around a hole is that of the worst direction; beside the copper there is none", () => {
  const pad = analyseLayer(layer("D11*\nX0Y0D03*\n"), "top");
  expect(ringAround(pad, 0, 0, 0.15)!.mm).toBeCloseTo(0.25 - 0.15, 9);
  expect(ringAround(pad, 0.2, 0, 0.15)!.mm).toBeCloseTo(0.2 - 0.15, 9);
  expect(ringAround(pad, 2, 2, 0.15)).toBeUndefined();
});

test("the worst places are kept apart, ascending, twenty at most", () => {
  const w = new Worst();
  for (let i = 0; i < 60; i++) w.add(1 - i / 100, "top", i % 30, 0);
  w.add(0.1, "top", 3.1, 0);
  const at = (w.keys("k") as { kAt: { x: number; mm: number }[] }).kAt;
  expect(at).toHaveLength(20);
  expect(at[0]).toMatchObject({ x: 3.1, mm: 0.1 });
  expect(at.filter((p) => Math.abs(p.x - 3) < 0.3)).toHaveLength(1);
  expect(at.map((p) => p.mm)).toEqual([...at.map((p) => p.mm)].sort((a, b) => a - b));
});
