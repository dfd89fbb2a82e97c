import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { chance } from "../../test/random.ts";
import { judgeFit } from "./fit.ts";
import { bestShift, type Round, roomAt } from "./pattern.ts";
import { clearanceOf, readingsOf } from "./stack.ts";
import { chanceOfAll, missChance } from "./together.ts";

// domain.md 5.8
test("EX 5.6: a tab of 1.6 ± 0.16 in a slot of 1.70 ± 0.13", () => {
  expect(
    judgeFit({ id: "a", kind: "slot", slotMm: 1.7, slotTolMm: 0.13, tabMm: 1.6, tabTolMm: 0.16 }),
  ).toEqual({
    id: "a",
    nominalMm: 0.1,
    worstMm: [-0.19, 0.39],
    rssMm: [expect.closeTo(-0.1062, 4), expect.closeTo(0.3062, 4)],
    interference: expect.closeTo(0.073, 3),
    verdict: "may-not-fit",
    missingMm: 0.19,
    safeNominalMm: 1.89,
  });
  // what is proposed fits
  expect(
    judgeFit({ id: "b", kind: "slot", slotMm: 1.89, slotTolMm: 0.13, tabMm: 1.6, tabTolMm: 0.16 }),
  ).toMatchObject({ worstMm: [0, 0.58], verdict: "fits", missingMm: 0 });
});

test("EX 5.8 and 5.9: a board in a groove, and a stack in a gap", () => {
  const groove = judgeFit({
    id: "g",
    kind: "chain",
    terms: [
      { mm: 1.8, tolMm: 0.05, sign: 1 },
      { mm: 1.6, tolMm: 0.16, sign: -1 },
    ],
  });
  expect([groove.worstMm, groove.verdict, groove.missingMm]).toEqual([[-0.01, 0.41], "may-not-fit", 0.01]);
  const terms = [
    { mm: 15, tolMm: 0.2, sign: 1 },
    { mm: 1.6, tolMm: 0.16, sign: -1 },
    { mm: 11, tolMm: 0.1, sign: -1 },
    { mm: 1.6, tolMm: 0.16, sign: -1 },
  ];
  const stack = judgeFit({ id: "s", kind: "chain", terms });
  expect([stack.nominalMm, stack.worstMm, stack.verdict]).toEqual([0.8, [0.18, 1.42], "fits"]);
  expect(stack.rssMm).toEqual([expect.closeTo(0.482, 3), expect.closeTo(1.118, 3)]);
});

test("a socket that takes 1.37 to 1.77 takes 1.6 ± 0.16, by its nearer end", () => {
  const range = { id: "c", kind: "range", allowsMm: [1.37, 1.77], boardMm: 1.6, boardTolMm: 0.16 };
  expect(judgeFit(range)).toMatchObject({ nominalMm: 0.17, worstMm: [0.01, 0.33], verdict: "fits" });
  expect(judgeFit({ ...range, boardMm: 1.5 })).toMatchObject({
    nominalMm: 0.13,
    worstMm: [-0.03, 0.29],
    verdict: "may-not-fit",
    missingMm: 0.03,
  });
  expect(judgeFit({ ...range, boardMm: 1.0 })).toMatchObject({ verdict: "does-not-fit" });
});

const square = (d: number, off = 0): Round[] =>
  [
    [0, 0],
    [40, 0],
    [40, 30],
    [0, 30],
  ].map(([x, y]) => ({ x: x! + off, y: y!, diameterMm: d }));

test("EX 5.10: posts of 3.0 and holes, both ± 0.1 in place, 0.1 in size: 3.67 is safe", () => {
  const pattern = {
    id: "d",
    kind: "pattern",
    posts: square(3),
    holes: square(3.2),
    postTolMm: 0.1,
    holeTolMm: 0.1,
    sizeTolMm: 0.1,
  };
  const r = judgeFit(pattern);
  expect(r.nominalMm).toBeCloseTo(0.2, 6);
  expect(r.safeNominalMm).toBeCloseTo(3.6657, 4);
  expect(judgeFit({ ...pattern, sizeTolMm: 0 }).safeNominalMm).toBeCloseTo(3.5657, 4);
  expect(r.at).toHaveLength(4);
  expect(r.verdict).toBe("may-not-fit");
  expect(judgeFit({ ...pattern, holes: square(3.67) }).verdict).toBe("fits");
  // holes of two sizes have no one size that mends them
  expect(
    judgeFit({ ...pattern, holes: [...square(3.2).slice(1), { x: 0, y: 30, diameterMm: 3.5 }] }),
  ).not.toHaveProperty("safeNominalMm");
});

test.each([
  // c of 0.1, 0.15, 0.2 with a sigma of 0.04714: one hole in 0.8946, 0.99367, 0.99988 of boards, all four in that to the fourth
  [3.2, 1, 0.8946],
  [3.2, 4, 0.64],
  [3.3, 4, 0.975],
  [3.4, 4, 0.9995],
  [3.0, 1, 0],
  [2.9, 1, 0],
])(
  "holes of %s over posts of 3.0, places ± 0.1 on both, %d of them: all go on in %d (EX 5.10)",
  (d, n, p) => {
    const check = { id: "p", kind: "pattern", postTolMm: 0.1, holeTolMm: 0.1 };
    const r = judgeFit({ ...check, posts: square(3).slice(0, n), holes: square(d).slice(0, n) });
    expect(r.goesTogether).toBeCloseTo(p, 3);
    expect(missChance(r)).toBeCloseTo(1 - p, 3);
  },
);

test("sizes that are off count as drawing them has it; exact places and sizes go on or do not", () => {
  const random = chance(5).next;
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const [room, post, hole, size] = [0.25, 0.08, 0.1, 0.15];
  const N = 40_000;
  let both = 0;
  for (let i = 0; i < N; i++) {
    const goes = () => {
      const away = Math.hypot(
        (normal() * post) / 3 + (normal() * hole) / 3,
        (normal() * post) / 3 + (normal() * hole) / 3,
      );
      return 2 * away <= room + (normal() * size) / 3;
    };
    both += Number(goes() && goes());
  }
  // 40,000 draws: one sigma is 0.0005
  const all = chanceOfAll([room, room], { postMm: post, holeMm: hole, sizeMm: size });
  expect(Math.abs(all - both / N)).toBeLessThan(0.002);
  expect(chanceOfAll([0.1, 0], { postMm: 0, holeMm: 0, sizeMm: 0 })).toBe(1);
  expect(chanceOfAll([0.1, -0.01], { postMm: 0, holeMm: 0, sizeMm: 0 })).toBe(0);
  expect(chanceOfAll([0.1], { postMm: 0, holeMm: 0, sizeMm: 0.3 })).toBeCloseTo(0.8413, 4);
});

test("a board finds its place: shifted, turned by any angle, with one hole off, shared between the two that decide", () => {
  expect(judgeFit({ id: "s", kind: "pattern", posts: square(3), holes: square(3.2, -7) })).toMatchObject({
    nominalMm: expect.closeTo(0.2, 5),
    shift: { xMm: expect.closeTo(7, 5), yMm: expect.closeTo(0, 5), turnDeg: expect.closeTo(0, 5) },
  });
  // two holes 40.1 apart over posts 40 apart: a twentieth of a millimetre each
  const pair = (d: number, x: number): Round[] => [
    { x: 0, y: 0, diameterMm: d },
    { x, y: 0, diameterMm: d },
  ];
  expect(
    judgeFit({ id: "p", kind: "pattern", posts: pair(3, 40), holes: pair(3.2, 40.1) }).nominalMm,
  ).toBeCloseTo(0.1, 5);
  // a quarter turn: (x, y) of the files lies at (−y, x) + shift
  const turned = square(3).map((p) => ({ ...p, x: -p.y + 5, y: p.x - 2 }));
  const r = judgeFit({ id: "t", kind: "pattern", posts: turned, holes: square(3.2) });
  expect([r.nominalMm, r.shift]).toEqual([
    expect.closeTo(0.2, 5),
    { xMm: expect.closeTo(5, 4), yMm: expect.closeTo(-2, 4), turnDeg: expect.closeTo(90, 4) },
  ]);
  expect(
    judgeFit({ id: "o", kind: "pattern", posts: square(3).slice(0, 1), holes: square(3.2, 9).slice(0, 1) })
      .nominalMm,
  ).toBeCloseTo(0.2, 5);
});

const place = fc.double({ min: -60, max: 60, noNaN: true });
const off = fc.double({ min: -0.2, max: 0.2, noNaN: true });
const cluster = fc.array(fc.record({ x: place, y: place, dx: off, dy: off }), {
  minLength: 2,
  maxLength: 12,
});

test("a hole that lies on its post from the start does not end the search: three in a row, 0.05 mm to the right", () => {
  const row = (x: number, ...diameters: number[]) =>
    diameters.map((d, i) => ({ x: (i - 1) * x, y: 0, diameterMm: d }));
  const [posts, holes] = [row(10.1, 3, 3, 3), row(10, 4, 5, 3.8)];
  const at = bestShift(posts, holes);
  // 4 − 3 − 2 · 0.15 and 3.8 − 3 − 2 · 0.05
  expect(at.xMm).toBeCloseTo(0.05, 5);
  expect(Math.min(...roomAt(posts, holes, at))).toBeCloseTo(0.7, 5);
});

test("no place found by hand beside the best one gives the tightest hole more room", () => {
  fc.assert(
    fc.property(
      cluster,
      fc.array(fc.tuple(off, off, fc.double({ min: -0.3, max: 0.3, noNaN: true })), {
        minLength: 8,
        maxLength: 8,
      }),
      (list, tries) => {
        const posts = list.map((p) => ({ x: p.x, y: p.y, diameterMm: 3 }));
        const holes = list.map((p) => ({ x: p.x + p.dx, y: p.y + p.dy, diameterMm: 3.4 }));
        const at = bestShift(posts, holes);
        const best = Math.min(...roomAt(posts, holes, at));
        for (const scale of [1, 0.1, 0.001])
          for (const [dx, dy, turn] of tries)
            expect(
              Math.min(
                ...roomAt(posts, holes, {
                  xMm: at.xMm + dx * scale,
                  yMm: at.yMm + dy * scale,
                  turnDeg: at.turnDeg + turn * scale,
                }),
              ),
            ).toBeLessThanOrEqual(best + 1e-5);
      },
    ),
    { numRuns: 200 },
  );
});

test("turning or shifting both sides, and mirroring both, changes no room", () => {
  fc.assert(
    fc.property(
      cluster,
      place,
      place,
      fc.double({ min: 0, max: 6.28, noNaN: true }),
      (list, dx, dy, turn) => {
        const posts = list.map((p) => ({ x: p.x, y: p.y, diameterMm: 3 }));
        const holes = list.map((p) => ({ x: p.x + p.dx, y: p.y + p.dy, diameterMm: 3.4 }));
        const room = (a: Round[], b: Round[]) => Math.min(...roomAt(a, b, bestShift(a, b)));
        const base = room(posts, holes);
        const moved = (p: Round) => ({
          ...p,
          x: Math.cos(turn) * p.x - Math.sin(turn) * p.y + dx,
          y: Math.sin(turn) * p.x + Math.cos(turn) * p.y + dy,
        });
        const mirrored = (p: Round) => ({ ...p, x: -p.x });
        // a hundredth of a micrometre: where holes lie nearly on one spot, their turn is hardly held
        for (const other of [
          room(posts.map(moved), holes.map(moved)),
          room(posts.map(mirrored), holes.map(mirrored)),
        ])
          expect(Math.abs(other - base)).toBeLessThanOrEqual(1e-5);
      },
    ),
    { numRuns: 100 },
  );
});

test("a wider slot never fits worse, and the worst case holds the statistical one", () => {
  const length = fc.double({ min: 0.1, max: 20, noNaN: true });
  const tol = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(length, length, length, tol, tol, (slotMm, more, tabMm, slotTolMm, tabTolMm) => {
      const at = (w: number) => judgeFit({ id: "x", kind: "slot", slotMm: w, slotTolMm, tabMm, tabTolMm });
      const [a, b] = [at(slotMm), at(slotMm + more)];
      expect(b.missingMm).toBeLessThanOrEqual(a.missingMm);
      expect(b.interference).toBeLessThanOrEqual(a.interference + 1e-6);
      const rank = { "does-not-fit": 0, "may-not-fit": 1, fits: 2 };
      expect(rank[b.verdict]).toBeGreaterThanOrEqual(rank[a.verdict]);
      expect(a.worstMm[0]).toBeLessThanOrEqual(a.rssMm[0] + 1e-6);
      expect(a.worstMm[1]).toBeGreaterThanOrEqual(a.rssMm[1] - 1e-6);
      expect(at(a.safeNominalMm! + 1e-6).verdict).toBe("fits");
    }),
  );
});

test("sums are of decimals: 1.7 − 1.6 − 0.1 is nothing, and nothing fits", () => {
  expect(clearanceOf([1.7, -1.6], [0.1])).toMatchObject({
    nominalMm: 0.1,
    worstMm: [0, 0.2],
    verdict: "fits",
  });
  expect(clearanceOf([0.1], [])).toMatchObject({ interference: 0, verdict: "fits" });
  expect(clearanceOf([-0.1], [])).toMatchObject({ interference: 1, verdict: "does-not-fit", missingMm: 0.1 });
  expect(clearanceOf([0], [])).toMatchObject({ interference: 0, verdict: "fits" });
  expect(clearanceOf([-0.1], [0.1])).toMatchObject({ worstMm: [-0.2, 0], verdict: "may-not-fit" });
});

test.each([
  [[1.19, 1.21, 1.2], 1.2, 0.02, undefined],
  [[1.56, 1.62], 1.6, 0.06, undefined],
  [[0.69, 0.73], 0.8, 0.04, true],
  [[1.4, 1.42], 1.6, 0.02, true],
  [[3.9], 3.2, 0, undefined],
])("readings of %j are %d, %d apart, in doubt: %s", (readings, standardMm, spreadMm, doubt) => {
  const r = readingsOf(readings);
  expect([r.standardMm, r.spreadMm, r.doubt]).toEqual([standardMm, spreadMm, doubt]);
});

test("a tab that was read is as thick as its mean, ± what a caliper is worth", () => {
  expect(
    judgeFit({
      id: "r",
      kind: "slot",
      slotMm: 1.3,
      slotTolMm: 0.05,
      tabReadingsMm: [1.19, 1.21, 1.2],
      readTolMm: 0.02,
    }),
  ).toMatchObject({
    nominalMm: 0.1,
    worstMm: [0.03, 0.17],
    standardMm: 1.2,
    spreadMm: 0.02,
    safeNominalMm: 1.27,
    verdict: "fits",
  });
});

test.each([
  ["nothing", undefined, "A check without a name is of no kind there is."],
  ["no kind", { id: "a", kind: "glue" }, "Check a is of no kind there is."],
  ["no tab", { id: "a", kind: "slot", slotMm: 1 }, "Check a says its tab not at all."],
  [
    "two tabs",
    { id: "a", kind: "slot", slotMm: 1, tabMm: 1, tabReadingsMm: [1] },
    "Check a says its tab twice.",
  ],
  [
    "a tolerance below nothing",
    { id: "a", kind: "slot", slotMm: 1, tabMm: 1, slotTolMm: -0.1 },
    "slotTolMm should be a number from 0",
  ],
  [
    "a text for a length",
    { id: "a", kind: "range", allowsMm: [1, 2], boardMm: "1.6" },
    "boardMm should be a number",
  ],
  [
    "a range the wrong way round",
    { id: "a", kind: "range", allowsMm: [2, 1], boardMm: 1.6 },
    "Check a takes from 2 to 1 mm, which is nothing.",
  ],
  [
    "posts without holes",
    { id: "a", kind: "pattern", posts: [{ x: 0, y: 0, diameterMm: 3 }], holes: [] },
    "holes holds fewer than 1",
  ],
  [
    "fewer holes than posts",
    {
      id: "a",
      kind: "pattern",
      posts: [
        { x: 0, y: 0, diameterMm: 3 },
        { x: 1, y: 0, diameterMm: 3 },
      ],
      holes: [{ x: 0, y: 0, diameterMm: 3 }],
    },
    "Check a has 2 posts and 1 holes.",
  ],
])("%s is refused with the reason", (_, check, says) => {
  expect(() => judgeFit(check)).toThrow(says);
});
