import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { signedArea } from "../geometry/polygon.ts";
import { posed, posedRing, unposed } from "../geometry/turn.ts";
import { rect, refused, ringed, solved, spec } from "./designs.fixture.ts";
import { insetOf, perforations, perforationToCopper, rowAlong } from "./hold/perforate.ts";
import { clashAt } from "./lay/clash.ts";
import { layoutAt } from "./lay/layout.ts";
import { sagMm } from "./lay/sag.ts";
import { scoreDepth, scoreToCopperMm } from "./lay/scores.ts";
import { coverDemand, mixedRun } from "./lay/several.ts";
import { straightShare, stretchesOf, tabPositions, tabsForEdge } from "./shape/stretch.ts";
import { isRefusal, type PanelSpec } from "./spec.ts";

test("EX 6.1: a tab of 5 mm has six perforations over 4.5 mm", () => {
  expect(perforations(5)).toBe(6);
  const row = rowAlong(5, () => 1, 0.25)!;
  expect(row[0]).toEqual([-2, 0.75]);
  expect(row.at(-1)).toEqual([2, 0.75]);
  // from wall to wall 4 + 0.5
  expect(row.at(-1)![0] - row[0]![0] + 0.5).toBeCloseTo(4.5, 9);
  expect([3, 0.5, 0.4, 1.3].map(perforations)).toEqual([4, 1, 0, 2]);
});

test.each([
  ["score", ["top", "bottom"], 150, 134, 0.8955],
  ["tabs", ["top", "bottom"], 154, 142, 0.8231],
  ["tabs", ["left", "right", "top", "bottom"], 172, 142, 0.737],
] as const)("EX 6.2: nine of 50 × 40 by %s, rails %j: %d × %d mm", (separation, rails, w, h, u) => {
  const l = solved([rect(50, 40)], spec({ separation, rails: [...rails] }));
  expect([l.widthMm, l.heightMm]).toEqual([w, h]);
  expect(l.utilisation).toBeCloseTo(u, 4);
});

test.each([
  ["score", 14, 196, 138, 0.8986],
  ["tabs", 12, 178, 144, 0.8127],
] as const)("EX 6.3: 62 × 28 in 200 × 150 by %s: %d boards on %d × %d mm", (separation, n, w, h, u) => {
  const l = solved(
    [rect(62, 28)],
    spec({ counts: ["fill"], separation, rails: ["top", "bottom"], maxWidthMm: 200, maxHeightMm: 150 }),
  );
  expect([l.counts[0], l.widthMm, l.heightMm]).toEqual([n, w, h]);
  expect(l.utilisation).toBeCloseTo(u, 4);
});

test("EX 6.4: sag cold and hot", () => {
  expect(sagMm(200, 1, "cold")).toBeCloseTo(0.24, 2);
  expect(sagMm(200, 1, "hot")).toBeCloseTo(1.59, 2);
  expect(sagMm(200, 1.6, "hot")).toBeCloseTo(0.62, 2);
  expect(sagMm(150, 0.8, "hot")).toBeCloseTo(0.79, 2);
});

test("EX 6.5: a point of a board turned by a quarter and put back to its corner", () => {
  // 90° about the lower left corner of a 50 × 40 board: (x, y) → (h − y, x)
  expect(posed({ xMm: 40, yMm: 0, turnDeg: 90 }, 10, 5)).toEqual([35, 10]);
  fc.assert(
    fc.property(
      fc.record({
        xMm: fc.integer({ min: -500, max: 500 }),
        yMm: fc.integer({ min: -500, max: 500 }),
        turnDeg: fc.integer({ min: 0, max: 359 }),
      }),
      fc.integer({ min: -300, max: 300 }),
      fc.integer({ min: -300, max: 300 }),
      (p, x, y) => {
        const [u, v] = unposed(p, ...posed(p, x, y));
        expect(u).toBeCloseTo(x, 6);
        expect(v).toBeCloseTo(y, 6);
        const ring = posedRing(p, [0, 0, 7, 0, 7, 3, 0, 3]);
        expect(signedArea(ring)).toBeCloseTo(21, 6);
      },
    ),
  );
});

test("EX 6.6 and 6.7: sheets of one layout, and the cheapest of several", () => {
  expect(mixedRun([30, 12, 5], [4, 2, 1])).toEqual({ sheets: 8, made: [32, 16, 8], over: [2, 4, 3] });
  expect(mixedRun([0, 5], [3, 2])).toEqual({ sheets: 3, made: [9, 6], over: [9, 1] });
  const layouts = [
    { counts: [4, 2, 1], cost: 10 },
    { counts: [6, 0, 0], cost: 8.5 },
    { counts: [2, 3, 2], cost: 9.5 },
  ];
  expect(coverDemand([30, 12, 5], layouts)).toEqual({ sheets: [6, 1, 0], cost: 68.5, made: [30, 12, 6] });
  expect(coverDemand([30, 12, 5], [layouts[0]!])).toMatchObject({ sheets: [8], cost: 80 });
  expect(coverDemand([1, 0, 1], [layouts[1]!])).toBeUndefined();
  // a set-up of 30 for each layout: 8 × 10 + 30 against 6 × 10 + 8.5 + 60
  const withSetUp = layouts.map((l) => ({ ...l, cost: (n: number) => 30 + n * l.cost }));
  expect(coverDemand([30, 12, 5], withSetUp)).toEqual({ sheets: [8, 0, 0], cost: 110, made: [32, 16, 8] });
  // cheaper by the dozen: forty of one kind are worth a layout of their own
  const falling = { counts: [6, 0, 0], cost: (n: number) => 5 + n * (n >= 5 ? 3 : 8.5) };
  expect(coverDemand([60, 4, 2], [withSetUp[0]!, falling])).toEqual({
    sheets: [2, 9],
    cost: 50 + 5 + 27,
    made: [62, 4, 2],
  });
});

test("the cover is the cheapest of all there are", () => {
  const small = fc.integer({ min: 0, max: 4 });
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 2, maxLength: 2 }),
      fc.array(
        fc.record({
          counts: fc.tuple(small, small),
          each: fc.integer({ min: 1, max: 30 }),
          setUp: fc.integer({ min: 0, max: 40 }),
        }),
        { minLength: 1, maxLength: 3 },
      ),
      (demand, list) => {
        const layouts = list.map((l) => ({
          counts: l.counts,
          cost: (n: number) => (n === 0 ? 0 : l.setUp + n * l.each),
        }));
        let best: number | undefined;
        const go = (j: number, made: number[], cost: number): void => {
          if (demand.every((d, i) => made[i]! >= d)) best = Math.min(best ?? cost, cost);
          if (j === layouts.length) return;
          for (let n = 0; n <= 9; n++)
            go(
              j + 1,
              made.map((m, i) => m + n * layouts[j]!.counts[i]!),
              cost + layouts[j]!.cost(n),
            );
        };
        go(0, [0, 0], 0);
        expect(coverDemand(demand, layouts)?.cost).toBe(best);
      },
    ),
    { numRuns: 60 },
  );
});

test("score depths and keep-outs by thickness", () => {
  const rows: readonly (readonly [number, number, number, number])[] = [
    [0.8, 0.3, 0.25, 0.134],
    [1, 0.35, 0.325, 0.174],
    [1.2, 0.35, 0.425, 0.228],
    [1.6, 0.4, 0.6, 0.322],
    [2, 0.5, 0.75, 0.402],
  ];
  for (const [t, web, depth, opening] of rows) {
    const d = scoreDepth(t);
    expect([d.webMm, d.depthMm].map((v) => Math.round(v * 1000) / 1000)).toEqual([web, depth]);
    expect(d.openingMm).toBeCloseTo(opening, 3);
  }
  expect(scoreDepth(1.6, 45).openingMm).toBeCloseTo(0.497, 3);
  expect([1, 1.6, 2].map(scoreToCopperMm)).toEqual([0.4, 0.45, 0.6]);
});

test("tabs an edge needs, and where they stand", () => {
  expect([20, 24.9, 25, 40, 50, 80, 101, 120].map((l) => tabsForEdge(l, 1.6))).toEqual([
    1, 1, 2, 2, 2, 2, 3, 3,
  ]);
  expect(tabsForEdge(90, 0.8)).toBe(3);
  expect(tabPositions(20, 1)).toEqual([10]);
  expect(tabPositions(40, 2)).toEqual([10, 30]);
  expect(tabPositions(120, 3)).toEqual([15, 60, 105]);
});

test("straight runs of an outline, and how much of a side is straight", () => {
  const ell = ringed("ell", [0, 0, 60, 0, 60, 20, 30, 20, 30, 40, 0, 40]);
  expect(stretchesOf(ell.outline).map((s) => s.lengthMm)).toEqual([60, 40, 30, 30, 20, 20]);
  const [longest] = stretchesOf(ell.outline);
  expect([longest!.nx, longest!.ny]).toEqual([0, -1]);
  expect(straightShare(ell, "bottom")).toBe(1);
  expect(straightShare(ell, "top")).toBe(0.5);
  expect(straightShare(ell, "right")).toBe(0.5);
});

test("rails carry three fiducials in an L with one askew, tooling holes in the corners, a mark a board", () => {
  const l = solved([rect(50, 40)], spec({ separation: "tabs", rails: ["top", "bottom"] }));
  expect(l.toolingHoles).toEqual([
    { xMm: 5, yMm: 5, diameterMm: 3 },
    { xMm: 149, yMm: 5, diameterMm: 3 },
    { xMm: 5, yMm: 137, diameterMm: 3 },
    { xMm: 149, yMm: 137, diameterMm: 3 },
  ]);
  expect(l.fiducials).toEqual([
    { xMm: 13, yMm: 5 },
    { xMm: 141, yMm: 5 },
    { xMm: 18, yMm: 137 },
  ]);
  expect(l.badMarks.map((b) => b.copy)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
  const all = [...l.fiducials.map((f) => [f.xMm, f.yMm, 2]), ...l.badMarks.map((b) => [b.xMm, b.yMm, 1])];
  all.forEach(([x, y, r], i) => {
    for (const [u, v, q] of all.slice(i + 1))
      expect(Math.hypot(x! - u!, y! - v!)).toBeGreaterThanOrEqual(r! + q!);
  });
  const narrow = solved([rect(50, 40)], spec({ counts: [4], rails: ["top", "bottom"], railMm: 5 }));
  expect(narrow.findings.map((f) => f.tag)).toContain("fiducial-at-clamp");
  const none = solved([rect(50, 40)], spec({ counts: [4], rails: [] }));
  expect(none.findings.map((f) => f.tag)).toEqual(["no-room-on-rails", "no-room-for-bad-marks"]);
});

test("a least size of the sheet is reached by wider rails", () => {
  const l = solved(
    [rect(50, 40)],
    spec({ separation: "score", rails: ["top", "bottom"], minHeightMm: 150, turns: [[0]] }),
  );
  expect([l.widthMm, l.heightMm, l.rails.top, l.rails.bottom]).toEqual([150, 150, 15, 15]);
});

test.each([
  ["too many", { counts: [40] }, /^40 of 50 × 40 do not go on a sheet of 250 × 200 mm/, [20]],
  [
    "larger than the sheet",
    { counts: [1], maxWidthMm: 45, maxHeightMm: 60 },
    /does not go on a sheet of 45 × 60 mm/,
    [],
  ],
  [
    "scored though thin",
    { separation: "score", thicknessMm: 0.6 },
    /A board of 0.6 mm cannot be scored; 0.8 to 2.4 mm can/,
    [],
  ],
] as const)("refused, with what would do: %s", (_, more, reason, nearest) => {
  const r = refused([rect(50, 40)], spec(more as Partial<PanelSpec>));
  expect(r.reason).toMatch(reason);
  expect(r.nearest).toEqual(nearest);
  expect(r.do).toBeTruthy();
});

// what is certain, and what only was not found: an L of 20 × 20 with arms of 6 has 204 mm²
test.each<[string, number, number, number, PanelSpec["separation"], string]>([
  // 13 × 204 = 2652; the sheet has 2400, and 2480 or 2520 with a gap one way
  ["more area than the sheet has", 13, 40, 60, "auto", "count-does-not-fit"],
  // scored it might be: 11 × 204 = 2244; by tabs each wants (√204 + √π)² = 257.8, and the sheet has 42 × 62 = 2604: 11 × 257.8 = 2836
  ["more area with the gaps between them", 11, 40, 60, "tabs", "count-does-not-fit"],
  // 10 × 257.8 = 2578 of 2604
  ["hardly less", 10, 40, 60, "tabs", "no-way-found"],
])("%s", (_, counts, w, h, separation, tag) => {
  const ell = ringed("L", [0, 0, 20, 0, 20, 6, 6, 6, 6, 20, 0, 20]);
  const r = refused(
    [ell],
    spec({
      counts: [counts],
      rails: [],
      maxWidthMm: w,
      maxHeightMm: h,
      separation,
      turns: [[0, 90, 180, 270]],
    }),
  );
  expect(r.tag).toBe(tag);
  expect(r.reason).toMatch(
    tag === "no-way-found" ? /No way was found .* not certain/ : /do not go on a sheet/,
  );
  expect(r.nearest[0]).toBeGreaterThan(3);
});

test("what is larger than the sheet is told with the sheet it needs", () => {
  const big = rect(300, 40);
  const one = (more: Partial<PanelSpec>) => refused([big], spec({ counts: [1], turns: [[0]], ...more })).do;
  expect(one({ rails: [] })).toBe("One needs 300 × 40 mm.");
  // a rail of 7 and a gap of 2 above and below
  expect(one({})).toBe("One needs 300 × 58 mm.");
  expect(one({ rails: ["top"] })).toBe("One needs 300 × 58 mm.");
});

test("a tab keeps half a millimetre to the end of its edge where that is all there is", () => {
  // an edge of 12 mm, forbidden but for its first six: a tab of 5 has its middle from 3 mm on
  const d = rect(12, 60, { bans: [{ box: [6.4, -1, 12, 1], why: "a chip", tabMm: 0.5 }] });
  const l = solved([d], spec({ counts: [1], separation: "tabs", rails: ["top", "bottom"], turns: [[0]] }));
  const [place] = l.places as [(typeof l.places)[number]];
  const low = l.tabs.filter((t) => Math.abs(t.yMm - (place.yMm - 1)) < 0.1);
  expect(low.map((t) => Number((t.xMm - place.xMm).toFixed(3)))).toEqual([3]);
  // the same on upright edges
  const bans = ([-1, 59] as const).map((x) => ({
    box: [x, 6.4, x + 2, 12] as const,
    why: "a chip",
    tabMm: 0.5,
  }));
  const side = rect(60, 12, { bans });
  const s = solved([side], spec({ counts: [1], separation: "tabs", rails: ["left", "right"], turns: [[0]] }));
  const [at] = s.places as [(typeof s.places)[number]];
  for (const x of [at.xMm - 1, at.xMm + 61]) {
    const there = s.tabs.filter((t) => Math.abs(t.xMm - x) < 0.1);
    expect(there.map((t) => Number((t.yMm - at.yMm).toFixed(3)))).toEqual([3]);
  }
});

test("a connector that hangs over refuses the score, and tabs mend it", () => {
  const bans = [
    { box: [48, 10, 54, 20] as const, why: "J3 hangs over the edge", tabMm: 0.5, scoreMm: 0, isHard: true },
  ];
  const d = rect(50, 40, { bans });
  const all = { counts: [4], turns: [[0]], rails: ["left", "right", "top", "bottom"] } as const;
  const r = refused([d], spec({ ...all, separation: "score" } as Partial<PanelSpec>));
  expect(r).toMatchObject({
    tag: "score-refused",
    reason: expect.stringContaining("J3 hangs over the edge"),
  });
  expect(r.do).toMatch(/tabs/);
  expect(solved([d], spec({ ...all, separation: "tabs" } as Partial<PanelSpec>)).separation).toBe("tabs");
  // without being asked it is not scored there; with no rail on that side one column can be
  expect(solved([d], spec(all as unknown as Partial<PanelSpec>)).separation).toBe("mixed");
  const column = solved(
    [d],
    spec({ counts: [4], turns: [[0]], separation: "score", rails: ["top", "bottom"] }),
  );
  expect(new Set(column.places.map((p) => p.xMm)).size).toBe(1);
});

test("what is only nearer to a score than usual is said, not refused", () => {
  const d = rect(50, 40, {
    bans: [
      { box: [20, 37.5, 22, 38.3], why: "C4 is a ceramic chip, which cracks", tabMm: 3, scoreMm: 3 },
      { box: [30, 20, 34, 21], why: "R1 is beside it", tabMm: 1, scoreMm: 1 },
    ],
    copperToEdge: { mm: 0.3, x: 10, y: 0.3 },
    holeToEdge: { mm: 0.6, x: 2, y: 2 },
  });
  const l = solved([d], spec({ counts: [4], separation: "score", turns: [[0]] }));
  expect(l.findings.map((f) => f.tag).filter((t) => t.startsWith("score-"))).toEqual([
    "score-near-part",
    "score-near-copper",
  ]);
  expect(l.findings[0]!.text).toMatch(/passes 1.7 mm from a part, less than 3 mm/);
});

test("contacts that are bevelled lie at the sheet's edge, back to back, and no rail covers them", () => {
  const d = rect(60, 40, { outward: ["bottom"] });
  const l = solved([d], spec({ counts: [4], separation: "tabs" }));
  expect(l.places.map((p) => p.turnDeg).sort()).toEqual([0, 0, 180, 180]);
  expect([l.rails.top, l.rails.bottom]).toEqual([0, 0]);
  expect(l.findings.map((f) => f.tag)).not.toContain("bevel-inside");
  const inside = layoutAt([d], spec({}), {
    widthMm: 78,
    heightMm: 58,
    rails: { left: 7, right: 7, top: 7, bottom: 7 },
    across: "tabs",
    along: "tabs",
    places: [{ board: 0, copy: 1, xMm: 9, yMm: 9, turnDeg: 0 }],
  });
  expect(isRefusal(inside) ? [] : inside.findings.map((f) => f.tag)).toContain("bevel-inside");
});

test.each([
  ["of other layers", { layers: 4 }, /2 copper layers and .* has 4/],
  ["of another thickness", { thicknessMm: 1 }, /1.6 mm thick and .* 1 mm/],
] as const)("two designs %s go on no sheet together", (_, more, reason) => {
  const r = refused(
    [rect(50, 40, { thicknessMm: 1.6 }), rect(20, 20, more)],
    spec({ counts: [1, 1], turns: [[0], [0]] }),
  );
  expect(r.reason).toMatch(reason);
});

test("boards moved by hand: what collides or leaves the sheet is told with its place", () => {
  const d = rect(20, 10);
  const parts = (x: number, y: number) => ({
    widthMm: 70,
    heightMm: 40,
    rails: { left: 0, right: 0, top: 7, bottom: 7 },
    across: "tabs" as const,
    along: "tabs" as const,
    places: [
      { board: 0, copy: 1, xMm: 5, yMm: 10, turnDeg: 0 },
      { board: 0, copy: 2, xMm: x, yMm: y, turnDeg: 0 },
    ],
  });
  expect(clashAt([d], 2, parts(27, 10))).toBeUndefined();
  expect(clashAt([d], 2, parts(26.5, 10))).toMatchObject({
    tag: "boards-collide",
    reason: expect.stringContaining("within 1.50 mm"),
  });
  expect(clashAt([d], 2, parts(20, 12))).toMatchObject({
    reason: expect.stringContaining("lie over each other"),
  });
  expect(clashAt([d], 2, parts(40, 5))).toMatchObject({ tag: "off-the-sheet" });
  expect(clashAt([d], 2, parts(51, 10))).toMatchObject({ tag: "off-the-sheet" });
});

test("every board is held twice and all hang on the frame", () => {
  for (const d of [
    rect(8, 6),
    ringed(
      "disc",
      Array.from({ length: 60 }, (_, i) => [
        9 * Math.cos((Math.PI * i) / 30),
        9 * Math.sin((Math.PI * i) / 30),
      ]).flat(),
    ),
  ]) {
    const l = solved([d], spec({ counts: [6], separation: "tabs" }));
    for (const p of l.places)
      expect(l.tabs.filter((t) => t.between.includes(p.copy)).length).toBeGreaterThanOrEqual(2);
    expect(l.tabs.some((t) => t.between[1] === 0)).toBe(true);
    // a tab to the frame is perforated at the board, one between boards at both
    for (const t of l.tabs) expect(t.holes).toBe((t.between[1] === 0 ? 1 : 2) * perforations(t.widthMm));
  }
});

test("a part that hangs over its neighbour is told with the gap that clears it; over a rail it is not", () => {
  const overhangs = [{ ref: "J1", box: [46, 10, 55, 20] as const, mm: 5 }];
  const d = rect(50, 40, { overhangs });
  const two = (gapMm: number) =>
    solved(
      [d],
      spec({
        counts: [4],
        turns: [[0]],
        separation: "tabs",
        rails: ["left", "right", "top", "bottom"],
        gapMm,
      }),
    );
  const said = two(2).findings.filter((f) => f.tag === "part-over-neighbour");
  expect(said).toHaveLength(1);
  expect(said[0]!.text).toBe("J1 of copy 1 reaches over copy 2: it hangs 5 mm over its board's edge.");
  expect(said[0]!.do).toMatch(/^Make the gap 5.5 mm/);
  expect(two(5.5).findings.filter((f) => f.tag === "part-over-neighbour")).toEqual([]);
});

test("a least size no rail can bring is refused; rails all around bring it where they may", () => {
  const both = { counts: [4], minWidthMm: 160, minHeightMm: 150, separation: "tabs" as const };
  const l = solved([rect(50, 40)], spec(both));
  expect(l.widthMm).toBeGreaterThanOrEqual(160);
  expect(l.heightMm).toBeGreaterThanOrEqual(150);
  const short = refused([rect(50, 40)], spec({ ...both, counts: [1], rails: ["top", "bottom"] }));
  expect(short.reason).toMatch(/smaller than 160 × 150 mm/);
  expect(short.do).toMatch(/rails on all sides/);
});

test("perforations stand half a hole inside the edge, and move out rather than into copper", () => {
  // of 0.5 mm: r 0.25, at least 0.2 mm to copper
  expect([undefined, 2, 0.7, 0.6, 0.45, 0.2, 0].map((c) => Number(insetOf(c).toFixed(3)))).toEqual([
    0.25, 0.25, 0.25, 0.15, 0, -0.25, -0.25,
  ]);
  for (const c of [0.2, 0.3, 0.45, 0.5, 0.7, 1.5])
    expect(perforationToCopper(c)).toBeGreaterThanOrEqual(0.2 - 1e-9);
  const at = (mm: number) =>
    solved(
      [rect(50, 40, { copperToEdge: { mm, x: 10, y: mm } })],
      spec({ counts: [4], separation: "tabs", turns: [[0]] }),
    );
  const near = at(0.5);
  // the lowest row of the first board, 0.05 mm inside of its lower edge
  const y0 = near.places[0]!.yMm;
  const rows = near.tabs.flatMap((t) => t.at.map(([, y]) => y)).filter((y) => Math.abs(y - y0) < 0.3);
  expect(new Set(rows)).toEqual(new Set([y0 + 0.05]));
  expect(near.findings.find((f) => f.tag === "perforation-near-copper")).toMatchObject({
    level: "remark",
    text: expect.stringContaining("leave 0.2 mm to it"),
  });
  expect(at(1.6).findings.map((f) => f.tag)).not.toContain("perforation-near-copper");
});
