import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, test } from "@jest/globals";
import { type BoardSet, type LayerImage, measureBoard, readBoard, ringsOf, shapesOf } from "@kobbin/core";
import { openDrop } from "@kobbin/formats";
import { Clipper, EndType, FillRule, JoinType, type Path64, type Paths64 } from "clipper2-ts";

// The same questions answered by another way altogether: polygons of the clipping package instead of capsules, a grid
// and union-find. Slow, and independent of how core finds islands, gaps and nets.

const boards = fileURLToPath(new URL("../../demo/boards/", import.meta.url));
const SCALE = 1e6;

const toPath = (ring: readonly number[]): Path64 => {
  const out: Path64 = [];
  for (let i = 0; i < ring.length; i += 2)
    out.push({ x: Math.round(ring[i]! * SCALE), y: Math.round(ring[i + 1]! * SCALE) });
  return out;
};
const unite = (image: LayerImage): Paths64 =>
  Clipper.union(shapesOf(image).flatMap((s) => ringsOf(s).map(toPath)) as Paths64, FillRule.NonZero);
const isOuter = (p: Path64) => Clipper.area(p) > 0;
const count = (paths: Paths64) => paths.filter(isOuter).length;
const grow = (paths: Paths64, mm: number) =>
  Clipper.union(
    Clipper.inflatePaths(paths, mm * SCALE, JoinType.Round, EndType.Polygon, 2, 200),
    FillRule.NonZero,
  );

/** Even-odd over a polygon. */
function inside(p: Path64, x: number, y: number): boolean {
  let is = false;
  for (let i = 0, j = p.length - 1; i < p.length; j = i++) {
    const [a, b] = [p[i]!, p[j]!];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) is = !is;
  }
  return is;
}

/** Islands as an outer ring with the holes in it. */
const islandsOf = (paths: Paths64) =>
  paths.filter(isOuter).map((outer) => ({
    outer,
    holes: paths.filter((h) => !isOuter(h) && inside(outer, h[0]!.x, h[0]!.y)),
  }));

/** Nets: polygons joined where a plated hole's rim or middle lies in them. */
function countNets(set: BoardSet, layers: readonly Paths64[]): number {
  const islands = layers.map(islandsOf);
  const offset: number[] = [];
  let total = 0;
  for (const l of islands) {
    offset.push(total);
    total += l.length;
  }
  const parent = Array.from({ length: total }, (_, i) => i);
  const find = (i: number): number => (parent[i] === i ? i : find(parent[i]!));
  for (const f of set.files)
    for (const h of f.role === "drill" && f.plated !== false ? f.drill!.hits : []) {
      const points = Array.from({ length: 25 }, (_, k) =>
        k === 0
          ? [h.x, h.y]
          : [
              h.x + (h.diameterMm / 2 - 1e-4) * Math.cos((k * Math.PI) / 12),
              h.y + (h.diameterMm / 2 - 1e-4) * Math.sin((k * Math.PI) / 12),
            ],
      );
      let first = -1;
      islands.forEach((list, i) => {
        list.forEach(({ outer, holes }, k) => {
          const meets = points.some(
            ([x, y]) =>
              inside(outer, x! * SCALE, y! * SCALE) && !holes.some((q) => inside(q, x! * SCALE, y! * SCALE)),
          );
          if (!meets) return;
          const id = offset[i]! + k;
          if (first < 0) first = id;
          else parent[find(id)] = find(first);
        });
      });
    }
  return parent.filter((p, i) => p === i).length;
}

describe.each(["probe-tail", "rack-card", "kiln-watch-a", "kiln-watch-b"])("%s", (name) => {
  const bytes = new Uint8Array(readFileSync(`${boards}${name}.zip`));
  const set = readBoard(openDrop([{ path: "b.zip", bytes }]).files.filter((f) => !/\.csv$/.test(f.path)));
  const m = measureBoard(set);
  const layers = m.layerOrder.map((side) => {
    const f = set.files.find((x) => x.role === "copper" && x.side === side)!;
    return { side, paths: unite(f.layer!) };
  });

  test("areas and islands", () => {
    for (const { side, paths } of layers) {
      const area = paths.reduce((a, p) => a + Clipper.area(p), 0) / SCALE / SCALE;
      expect(Math.abs(m.copperAreaMm2[side]! - area)).toBeLessThan(1e-4 * area);
      expect(count(paths)).toBe(m.copperIslands[side]);
    }
  });

  test("the least gap: a little less growth joins nothing, a little more joins two islands", () => {
    const gap = m.minSpaceMm!;
    const before = layers.reduce((n, l) => n + count(l.paths), 0);
    const grown = (mm: number) => layers.reduce((n, l) => n + count(grow(l.paths, mm)), 0);
    expect(grown(gap / 2 - 0.002)).toBe(before);
    expect(grown(gap / 2 + 0.002)).toBeLessThan(before);
  }, 240_000);

  test("nets", () => {
    expect(
      countNets(
        set,
        layers.map((l) => l.paths),
      ),
    ).toBe(m.nets!.count);
  });
});
