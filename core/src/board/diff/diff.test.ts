import { describe, expect, test } from "@jest/globals";
import { drill, flash, layer, rim, stroke } from "../../../test/write-board.ts";
import type { PasteOpening } from "../copper/paste.ts";
import { readBoard } from "../read/read.ts";
import { diffBoards } from "./diff.ts";
import { unmatched } from "./diff-drills.ts";
import { compareOpenings } from "./diff-stencil.ts";

/* The verdict on a stencil: what was cut, what is needed now, and the answer worked by hand from domain.md 2.11. */
describe("a stencil serves again", () => {
  const open = (x: number, y: number, widthMm = 1, lengthMm = 1): PasteOpening => ({
    x,
    y,
    widthMm,
    lengthMm,
    areaMm2: widthMm * lengthMm,
    perimeterMm: 2 * (widthMm + lengthMm),
  });
  const row = (n: number, from = 0) => Array.from({ length: n }, (_, i) => open((from + i) * 2, 0));
  const verdict = (
    now: readonly PasteOpening[],
    was: readonly PasteOpening[],
    isBare: (x: number, y: number) => boolean = () => false,
    shift: readonly [number, number] = [0, 0],
  ) => compareOpenings(now, was, shift, isBare).verdict;

  test("where every opening has one of its size at its place, drawn about another origin too", () => {
    expect(verdict(row(9), row(9))).toEqual({
      says: "reuse",
      of: 9,
      matched: 9,
      changed: 0,
      missing: 0,
      extra: 0,
      harmful: 0,
    });
    const off = row(9).map((o) => ({ ...o, x: o.x - 100, y: o.y + 7 }));
    expect(verdict(row(9), off, undefined, [100, -7]).says).toBe("reuse");
  });

  test.each([
    ["0.05 off: still the same", 0.05, "reuse"],
    ["0.06 off: moved", 0.06, "new"],
  ])("%s", (_, off, says) => {
    expect(verdict([...row(8), open(16 + off, 0)], row(9)).says).toBe(says);
  });

  test.each([
    // 5 % of a side, or 0.025 mm where that is more
    ["1.05 for 1", 1.05, 1, "reuse"],
    ["1.06 for 1", 1.06, 1, "new"],
    ["0.325 for 0.3", 0.325, 0.3, "reuse"],
    ["0.326 for 0.3", 0.326, 0.3, "new"],
  ])("a side of %s", (_, side, was, says) => {
    expect(verdict([open(0, 0, was, side > was ? side : was)], [open(0, 0, was, was)]).says).toBe(says);
  });

  test("three missing of 412 are dispensed by hand, four are a new stencil (EX 2.16)", () => {
    expect(verdict(row(412), row(409))).toMatchObject({
      says: "dispense",
      of: 412,
      matched: 409,
      missing: 3,
    });
    expect(verdict(row(412), row(408))).toMatchObject({ says: "new", missing: 4 });
  });

  test("too many are taped over mask, and harm over bare copper", () => {
    expect(verdict(row(8), row(9))).toMatchObject({ says: "tape", extra: 1, harmful: 0 });
    expect(verdict(row(8), row(9), (x) => x === 16)).toMatchObject({ says: "new", extra: 1, harmful: 1 });
    // one missing and one too many: both by hand
    expect(verdict(row(9, 0), row(9, 1))).toMatchObject({ says: "dispense", missing: 1, extra: 1 });
  });
});

/** 30 × 20 mm: four holes, twelve pads in two rows, a track; moved as a whole, with what is planted in it. */
const board = (
  p: { dx?: number; hole?: number; y?: number; more?: string; pads?: number; box?: number } = {},
) => {
  const dx = p.dx ?? 0;
  const [w, h] = [p.box ?? 30, 20];
  const row = Array.from({ length: p.pads ?? 12 }, (_, i) =>
    flash(dx + 5 + 1.7 * (i % 6), 6 + 5.3 * Math.floor(i / 6) + (i === 3 ? (p.y ?? 0) : 0)),
  ).join("");
  return readBoard([
    dx === 0 && w === 30
      ? rim(w, h)
      : layer(
          "b.gko",
          `%ADD10C,0.1*%\nD10*\n${stroke(dx, 0, dx + w, 0)}${stroke(dx + w, 0, dx + w, h)}${stroke(dx + w, h, dx, h)}${stroke(dx, h, dx, 0)}`,
        ),
    layer(
      "b.gtl",
      `%ADD10R,0.8X0.8*%\n%ADD11C,0.25*%\nD10*\n${row}D11*\n${stroke(dx + 5, 15, dx + 25, 15)}${p.more ?? ""}`,
    ),
    drill("b-npth.drl", [
      [
        3,
        [
          [dx + 3, 3],
          [dx + 27, 3],
          [dx + 3, 17],
        ],
      ],
      [p.hole ?? 3.2, [[dx + 27, 17]]],
    ]),
  ]);
};

test("what is planted is found: a hole enlarged, a pad moved, a track added; and nothing else", () => {
  const d = diffBoards(board({ hole: 3.5, y: 0.4, more: stroke(20, 4, 26, 4) }), board());
  expect(d.changed).toEqual(["copper-top", "drill-unplated"]);
  expect(d.places["drill-unplated"]).toEqual([
    { x: 27, y: 17, widthMm: 3.5, heightMm: 3.5, kind: "resized", wasMm: 3.2, nowMm: 3.5 },
  ]);
  expect(d.places["copper-top"]!.map((p) => [p.kind, p.x, p.y])).toEqual([
    // the track's middle; the pad moved up, so its lower edge went and its upper edge came
    ["added", 23, 4],
    ["changed", expect.closeTo(10.1, 2), expect.closeTo(6.2, 2)],
  ]);
  // the other way round what came is gone
  expect(diffBoards(board(), board({ more: stroke(20, 4, 26, 4) })).places["copper-top"]).toMatchObject([
    { kind: "gone", x: 23, y: 4 },
  ]);
});

test.each([
  ["another origin", { dx: 112.5 }],
  ["another origin, and one pad fewer", { dx: -40, pads: 11 }],
  ["another origin, and a longer board", { dx: 61.25, box: 36 }],
])("%s is found by what lies on the board", (_, change) => {
  const d = diffBoards(board(change), board());
  expect(d.shift).toEqual([expect.closeTo(change.dx, 3), expect.closeTo(0, 3)]);
  expect(d.changed).toEqual("pads" in change ? ["copper-top"] : "box" in change ? ["profile"] : []);
});

test("thousands of holes on one spot are not paired for ever, and not called the same", () => {
  const heap = (x: number) =>
    readBoard([
      rim(30, 20),
      drill("b-npth.drl", [[3, Array.from({ length: 2000 }, () => [x, 10] as const)]]),
    ]);
  expect(diffBoards(heap(10), heap(10.001))).toMatchObject({ changed: ["drill-unplated"], places: {} });
});

test("more odd pieces than are looked about are clipped all, and the same is found", () => {
  const row = (n: number, from: number) =>
    Array.from({ length: n }, (_, i) =>
      flash(1 + ((from + i) % 60) * 0.4, 1 + Math.floor((from + i) / 60) * 0.4),
    ).join("");
  const set = (extra: string) =>
    readBoard([rim(30, 20), layer("b.gtl", `%ADD10C,0.2*%\n%ADD11C,0.204*%\n${extra}`)]);
  const d = diffBoards(set(`D11*\n${row(1100, 0)}D10*\n${flash(28, 18)}`), set(`D10*\n${row(1100, 0)}`));
  // each grew by 0.002 on every side, which is drawing noise; the one more is not
  expect(d.places["copper-top"]).toEqual([expect.objectContaining({ kind: "added", x: 28, y: 18 })]);
});

test("a hole moved by two millimetres is the same one, farther it is another", () => {
  const set = (x: number) =>
    readBoard([
      rim(30, 20),
      drill("b-npth.drl", [
        [
          3,
          [
            [x, 10],
            [5, 5],
            [25, 15],
          ],
        ],
      ]),
    ]);
  const at = (x: number) =>
    diffBoards(set(x), set(10)).places["drill-unplated"]!.map((p) => [p.kind, p.byMm]);
  expect(at(11.5)).toEqual([["moved", 1.5]]);
  expect(at(17)).toEqual([
    ["added", undefined],
    ["gone", undefined],
  ]);
});

test("of many places the largest are kept, and it is said how many there are beside them", () => {
  const row = (n: number) => Array.from({ length: n }, (_, i) => flash(2 + 2 * i, 5)).join("");
  const board = (n: number) => readBoard([rim(70, 10), layer("b.gtl", `%ADD10C,0.5*%\nD10*\n${row(n)}`)]);
  const at = (now: number) => diffBoards(board(now), board(1));
  // the first pad is in both
  expect(at(21).places["copper-top"]).toHaveLength(20);
  expect(at(21)).not.toHaveProperty("more");
  expect(at(24).places["copper-top"]).toHaveLength(20);
  expect(at(24).more).toEqual({ "copper-top": { count: 3 } });
});

test("another origin is found in both directions, by equal outlines or by any corner that is common", () => {
  const set = (
    dx: number,
    dy: number,
    box: readonly [number, number, number, number] = [0, 0, 30, 20],
    pad: readonly [number, number] = [7, 6],
  ) => {
    const [x0, y0, x1, y1] = [box[0] + dx, box[1] + dy, box[2] + dx, box[3] + dy];
    return readBoard([
      layer(
        "b.gko",
        `%ADD10C,0.1*%\nD10*\n${stroke(x0, y0, x1, y0)}${stroke(x1, y0, x1, y1)}${stroke(x1, y1, x0, y1)}${stroke(x0, y1, x0, y0)}`,
      ),
      layer("b.gtl", `%ADD10R,1X2*%\nD10*\n${flash(pad[0] + dx, pad[1] + dy)}`),
    ]);
  };
  const shift = (now: ReturnType<typeof set>, was = set(0, 0)) =>
    diffBoards(now, was).shift?.map((v) => Math.round(v * 1e3) / 1e3);
  expect(shift(set(11, -4))).toEqual([11, -4]);
  expect(shift(set(-3.25, 50.5))).toEqual([-3.25, 50.5]);
  // grown by three to one side each, its one pad alike where it was: the corner that is common is found
  expect(shift(set(11, -4, [0, 0, 33, 23]))).toEqual([11, -4]);
  expect(shift(set(11, -4, [-3, 0, 30, 23]))).toEqual([11, -4]);
  expect(shift(set(11, -4, [0, -3, 33, 20]))).toEqual([11, -4]);
  expect(shift(set(11, -4, [-3, -3, 30, 20]))).toEqual([11, -4]);
});

test("holes and slots about another origin are the same", () => {
  const slots = (
    dx: number,
    dy: number,
    holes: readonly (readonly [number, number])[],
    to: readonly [number, number] = [20, 10],
  ) =>
    readBoard([
      layer(
        "b.gko",
        `%ADD10C,0.1*%\nD10*\n${stroke(dx, dy, 30 + dx, dy)}${stroke(30 + dx, dy, 30 + dx, 20 + dy)}${stroke(30 + dx, 20 + dy, dx, 20 + dy)}${stroke(dx, 20 + dy, dx, dy)}`,
      ),
      {
        path: "b-npth.drl",
        bytes: new TextEncoder().encode(
          `M48\nMETRIC\nT1C1.000\nT2C2.000\n%\nT1\nX${(17 + dx).toFixed(3)}Y${(8 + dy).toFixed(3)}G85X${(to[0] + dx).toFixed(3)}Y${(to[1] + dy).toFixed(3)}\nT2\n${holes.map(([x, y]) => `X${(x + dx).toFixed(3)}Y${(y + dy).toFixed(3)}\n`).join("")}M30\n`,
        ),
      },
    ]);
  const three = [
    [5, 5],
    [5, 9],
    [9, 5],
  ] as const;
  const was = slots(0, 0, three);
  expect(diffBoards(slots(12, 7, three), was).changed).toEqual([]);
  const places = (s: ReturnType<typeof slots>) =>
    (diffBoards(s, was).places["drill-unplated"] ?? []).map((p) => [p.kind, p.x, p.y, p.byMm]);
  // a slot one end of which went is changed
  expect(places(slots(0, 0, three, [20, 11])).map(([kind]) => kind)).toEqual(["changed"]);
  // a hole went up by one
  expect(diffBoards(slots(0, 0, [[5, 6], ...three.slice(1)]), was).places["drill-unplated"]).toMatchObject([
    { kind: "moved", byMm: expect.closeTo(1, 6) },
  ]);
});

test("of several nearby each is one other's: nearest pairs first, and of equal ones the first", () => {
  const paired = (a: readonly number[], b: readonly number[], isSame = () => true) => {
    const pairs: number[][] = [];
    const at = (v: readonly number[]) => v.map((x) => [x, 0] as const);
    const rest = unmatched(at(a), at(b), isSame, 2, (p, q) => pairs.push([p[0], q[0]]));
    return [pairs, rest.a.map((p) => p[0]), rest.b.map((q) => q[0])];
  };
  expect(paired([0, 0.5], [1])).toEqual([[[0.5, 1]], [0], []]);
  expect(paired([1], [0, 0.5])).toEqual([[[1, 0.5]], [], [0]]);
  expect(paired([0, 2], [1])).toEqual([[[0, 1]], [2], []]);
  expect(paired([1], [2, 0])).toEqual([[[1, 2]], [], [0]]);
  expect(paired([0, 1], [1, 2])).toEqual([
    [
      [1, 1],
      [0, 2],
    ],
    [],
    [],
  ]);
  expect(paired([0], [2.001, -2.001])).toEqual([[], [0], [2.001, -2.001]]);
  expect(paired([0], [1], () => false)).toEqual([[], [0], [1]]);
});
