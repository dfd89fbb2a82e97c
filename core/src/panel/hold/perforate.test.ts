import { expect, test } from "@jest/globals";
import { pointSegment2 } from "../../geometry/segment.ts";
import { rect, ringed, solved, spec } from "../designs.fixture.ts";
import { edgeNear } from "../shape/edge-points.ts";
import { laidOut } from "../shape/laid.ts";
import type { PanelDesign, PanelLayout } from "../spec.ts";
import { insetOf, PERFORATION, rowBetween } from "./perforate.ts";
import { TabSites } from "./tab-sites.ts";

const disc = (d: number, n = 96) =>
  ringed(
    `disc ${d}`,
    Array.from({ length: n }, (_, i) => [
      (d / 2) * (1 + Math.cos((2 * Math.PI * i) / n)),
      (d / 2) * (1 + Math.sin((2 * Math.PI * i) / n)),
    ]).flat(),
  );
const ell = ringed("L", [0, 0, 80, 0, 80, 25, 40, 25, 40, 50, 0, 50]);
const tee = ringed("T", [0, 30, 20, 30, 20, 0, 40, 0, 40, 30, 60, 30, 60, 45, 0, 45]);
const wedge = ringed("wedge", [5, 5, 45, 5, 5, 35]);
const house = ringed("house", [0, 0, 40, 0, 40, 25, 20, 45, 0, 25]);
const close = (d: PanelDesign, mm: number): PanelDesign => ({ ...d, copperToEdge: { mm, x: 0, y: 0 } });

/** How deep points lie in a board, mm; below 0 how far outside. */
function depthIn(ring: readonly number[], inside: boolean, x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    best = Math.min(best, pointSegment2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  return (inside ? 1 : -1) * Math.sqrt(best);
}

/** Perforations that stand deeper in their board than they should, or reach into one beside it. */
function wrong(designs: readonly PanelDesign[], made: PanelLayout): string[] {
  const r = PERFORATION.diameterMm / 2;
  const laid = laidOut(designs, made.places);
  const out: string[] = [];
  for (const t of made.tabs)
    for (const [x, y] of t.at) {
      const depths = laid
        .map((l) => ({ l, mm: depthIn(l.ring, l.strips.inside(x, y), x, y) }))
        .sort((a, b) => b.mm - a.mm);
      const [own, next] = depths;
      const least = insetOf(own!.l.design.copperToEdge?.mm);
      if (own!.mm > least + 0.01 || own!.mm < -r - 0.05)
        out.push(`${x} ${y}: ${own!.mm.toFixed(3)} deep in ${own!.l.place.copy}`);
      if (next && next.mm > -r + 1e-3) out.push(`${x} ${y}: reaches into ${next.l.place.copy}`);
    }
  return out;
}

test.each<[string, PanelDesign, Parameters<typeof spec>[0]]>([
  ["two discs", disc(40), { counts: [2], maxWidthMm: 120, maxHeightMm: 60 }],
  ["many discs", disc(20), { counts: ["fill"], maxWidthMm: 130, maxHeightMm: 100 }],
  ["small discs", disc(13), { counts: ["fill"], maxWidthMm: 80, maxHeightMm: 80, tabMm: 3 }],
  ["discs close together", disc(30), { counts: [6], maxWidthMm: 130, maxHeightMm: 130, gapMm: 0.6 }],
  [
    "discs with copper at their edge",
    close(disc(30), 0.3),
    { counts: [6], maxWidthMm: 130, maxHeightMm: 130 },
  ],
  ["rectangles close together, copper at their edge", close(rect(30, 20), 0.2), { counts: [9], gapMm: 0.5 }],
  ["boards in each other's corners", ell, { counts: [4], maxWidthMm: 200, maxHeightMm: 150 }],
  ["T and T", tee, { counts: [6], maxWidthMm: 200, maxHeightMm: 160 }],
  ["wedges", wedge, { counts: [6], maxWidthMm: 160, maxHeightMm: 120 }],
  ["houses", house, { counts: [6], maxWidthMm: 200, maxHeightMm: 160 }],
])("perforations of %s stand at their own board's edge and in no other", (_, design, s) => {
  const made = solved([design], spec({ separation: "tabs", ...s }));
  expect(made.tabs.some((t) => t.at.length > 0)).toBe(true);
  expect(wrong([design], made)).toEqual([]);
});

test("a row between two edges stands half way, along both; none where one of them ends", () => {
  // one edge rises by 0.2 a millimetre, the other lies 2 in front
  const row = rowBetween(
    2,
    (s) => 0.2 * s,
    () => 2,
  )!;
  expect(row.map(([s, out]) => [s, Number(out.toFixed(9))])).toEqual([
    [-0.4, 0.96],
    [0.4, 1.04],
  ]);
  const ends = (s: number) => (s > 0 ? undefined : 0);
  expect(rowBetween(2, ends, () => 2)).toBeUndefined();
  expect(rowBetween(2, () => 0, ends)).toBeUndefined();
});

test("a third board in the gap keeps a tab away by four tenths of it, on either hand", () => {
  // a tab of 5 at 20 between two boards 2 apart wants 16.7 to 23.3 for itself
  const tabBeside = (x: number) => {
    const designs = [rect(40, 20), rect(10, 1)];
    const at = (copy: number, board: number, xMm: number, yMm: number) => ({
      copy,
      board,
      xMm,
      yMm,
      turnDeg: 0,
    });
    const laid = laidOut(designs, [at(1, 0, 0, 0), at(2, 0, 0, 22), at(3, 1, x, 20.5)]);
    return typeof new TabSites({ laid, frame: [], gapMm: 2 }, 5).tabAt(laid[0]!, edgeNear(laid[0]!, 20, 20));
  };
  expect([23.4, 23.2].map(tabBeside)).toEqual(["object", "string"]);
  expect([6.6, 6.8].map(tabBeside)).toEqual(["object", "string"]);
});
