import { expect, test } from "@jest/globals";
import type { Plan } from "../../geometry/plan.ts";
import { boxAround } from "../../geometry/turn.ts";
import { rect, ringed } from "../designs.fixture.ts";
import { cornersPlan, nestPlan, sisterPlan, trayPlan } from "./aids.ts";
import { drillPlan, drillWorkOf, MOST_HOLES, MOST_SIZES } from "./drill-aid.ts";

const board = rect(50, 40);
const rounded = (v: readonly number[]) => v.map((x) => Number(x.toFixed(3)));

test("the pocket of a nest is the board and 0.15 mm around it, 0.05 mm less deep than the board", () => {
  const plan = nestPlan(board, 1.6);
  const [frame, pocket] = plan.areas[0]!.rings;
  expect(rounded(boxAround([frame!]))).toEqual([-14, -14, 64, 54]);
  expect(rounded(boxAround([pocket!]))).toEqual([-0.15, -0.15, 50.15, 40.15]);
  expect(plan.subtitle).toContain("pocket 1.55 mm deep");
  expect(plan.texts.map((t) => t.text)).toEqual(expect.arrayContaining(["50.3", "40.3", "1.55 deep"]));
});

test("corners lie against each corner of a board, their legs 22 mm, shorter on a small one; a disc has none", () => {
  const plan = cornersPlan(board, 1.6)!;
  const rings = plan.areas.filter((a) => a.tone === "board").map((a) => rounded(boxAround([a.rings[0]!])));
  // from 10 mm outside of the pocket's corner, along the board as far as the leg; of 40 mm only 18 are left
  expect(rings).toEqual([
    [-10.15, -10.15, 17.85, 17.85],
    [32.15, -10.15, 60.15, 17.85],
    [32.15, 22.15, 60.15, 50.15],
    [-10.15, 22.15, 17.85, 50.15],
  ]);
  expect(rounded(boxAround([cornersPlan(rect(80, 60), 1)!.areas[0]!.rings[0]!]))[2]).toBe(21.85);
  const disc = ringed(
    "disc",
    Array.from({ length: 60 }, (_, i) => [
      20 * Math.cos((i * Math.PI) / 30),
      20 * Math.sin((i * Math.PI) / 30),
    ]).flat(),
  );
  expect(cornersPlan(disc, 1.6)).toBeUndefined();
  expect(cornersPlan(rect(12, 12), 1.6)).toBeUndefined();
});

test("four spare boards lie around the one that is printed on, a hair apart", () => {
  const boxes = sisterPlan(board).areas.map((a) => rounded(boxAround([a.rings[0]!])));
  expect(boxes).toEqual([
    [-50.2, 0, -0.2, 40],
    [50.2, 0, 100.2, 40],
    [0, -40.2, 50, -0.2],
    [0, 40.2, 50, 80.2],
    [0, 0, 50, 40],
  ]);
});

test("a map of the bottom is as it is seen from below; what is to fill in is counted by value, the most first", () => {
  const parts = [
    { ref: "R1", x: 10, y: 5, value: "1k" },
    { ref: "C1", x: 20, y: 30, value: "100n" },
    { ref: "R2", x: 45, y: 5, value: "1k" },
  ];
  const below = trayPlan(board, "bottom", parts);
  expect(below.circles.map((c) => [c.x, c.y])).toEqual([
    [40, 5],
    [30, 30],
    [5, 5],
  ]);
  expect(trayPlan(board, "top", parts).circles[0]).toMatchObject({ x: 10, y: 5 });
  expect(below.notes).toEqual(["2 x 1k: R1 R2", "1 x 100n: C1"]);
});

test("a map says what has a direction and how it is told, and what no file gives a place", () => {
  const plan = trayPlan(
    board,
    "top",
    [
      { ref: "D1", x: 10, y: 5, value: "red", direction: "bar at the cathode" },
      { ref: "U1", x: 20, y: 30, value: "gate", direction: "" },
      { ref: "R1", x: 45, y: 5, value: "1k" },
    ],
    [
      { ref: "J1", value: "header" },
      { ref: "C9", value: "470u", direction: "" },
    ],
  );
  expect(plan.texts.map((t) => t.text)).toEqual(["D1*", "U1*", "R1"]);
  expect(plan.circles.filter((c) => !c.isFilled).map((c) => c.x)).toEqual([10, 20]);
  expect(plan.notes).toEqual([
    "1 x 1k: R1",
    "1 x gate: U1",
    "1 x red: D1",
    "* has a direction, look it up in the data sheet: U1 C9",
    "* bar at the cathode: D1",
    "beside the map, no file tells the place: 1 x 470u: C9",
    "beside the map, no file tells the place: 1 x header: J1",
  ]);
});

test("a drill template: a cross and the letter of its drill at every hole, sizes rising, the saw half a millimetre outside", () => {
  const plan = drillPlan(board, {
    holes: [
      { x: 5, y: 6, diameterMm: 3.2 },
      { x: 10, y: 6, diameterMm: 0.8 },
      { x: 12, y: 6, diameterMm: 0.8 },
    ],
    paths: [
      {
        points: [
          [20, 20],
          [24, 20],
        ],
        widthMm: 1,
      },
    ],
  })!;
  expect(rounded(boxAround(plan.areas[0]!.rings))).toEqual([-0.5, -0.5, 50.5, 40.5]);
  expect(rounded(boxAround(plan.areas[1]!.rings))).toEqual([0, 0, 50, 40]);
  expect(rounded(plan.box)).toEqual([-4.5, -4.5, 54.5, 44.5]);
  expect(plan.circles.map((c) => c.d)).toEqual([3.2, 0.8, 0.8]);
  const crosses = plan.lines.filter((l) => l.kind === "edge");
  expect(crosses.map((l) => [(l.x1 + l.x2) / 2, (l.y1 + l.y2) / 2])).toEqual(
    [
      [5, 6],
      [5, 6],
      [10, 6],
      [10, 6],
      [12, 6],
      [12, 6],
    ].map((p) => p.map((v) => expect.closeTo(v!, 9))),
  );
  expect(plan.texts.map((t) => t.text)).toEqual(["C", "A", "A", "B"]);
  expect(plan.lines.filter((l) => l.kind === "guide")).toMatchObject([{ x1: 20, x2: 24 }]);
  expect(plan.notes.slice(0, 3)).toEqual([
    "A: 0.8 mm, 2 x",
    "B: 1 mm, 1 x along a broken line",
    "C: 3.2 mm, 1 x",
  ]);
  const many = (n: number, size: (i: number) => number) => ({
    holes: Array.from({ length: n }, (_, i) => ({ x: 1, y: 1, diameterMm: size(i) })),
    paths: [],
  });
  expect(
    drillPlan(
      board,
      many(MOST_SIZES, (i) => 1 + i / 10),
    ),
  ).toBeDefined();
  expect(
    drillPlan(
      board,
      many(MOST_SIZES + 1, (i) => 1 + i / 10),
    ),
  ).toBeUndefined();
  expect(
    drillPlan(
      board,
      many(MOST_HOLES + 1, () => 1),
    ),
  ).toBeUndefined();
});

test("what the drill files of a board ask for together; a file set aside asks for nothing", () => {
  const drill = (hits: number, routs: number) => ({
    hits: Array(hits).fill({ x: hits }),
    routs: Array(routs).fill({}),
  });
  const files = [
    { role: "drill", drill: drill(2, 1) },
    { role: "copper" },
    { role: "drill", drill: drill(1, 2) },
    { role: "unknown", drill: drill(5, 5) },
  ] as never;
  const { holes, paths } = drillWorkOf(files);
  expect([holes.map((h) => h.x), paths.length]).toEqual([[2, 2, 1], 3]);
});

test("wherever a board lies its aids are the same beside it", () => {
  const [dx, dy] = [-120.5, 37.25];
  const away = ringed(
    "50 × 40",
    rect(50, 40).outline.map((v, i) => v + (i % 2 === 0 ? dx : dy)),
  );
  const by = (v: number, i: number) => v + (i % 2 === 0 ? dx : dy);
  const moved = (p: Plan): Plan => ({
    ...p,
    box: p.box.map(by) as unknown as Plan["box"],
    areas: p.areas.map((a) => ({ ...a, rings: a.rings.map((r) => [...r].map(by)) })),
    lines: p.lines.map((l) => ({ ...l, x1: l.x1 + dx, x2: l.x2 + dx, y1: l.y1 + dy, y2: l.y2 + dy })),
    circles: p.circles.map((c) => ({ ...c, x: c.x + dx, y: c.y + dy })),
    texts: p.texts.map((t) => ({ ...t, x: t.x + dx, y: t.y + dy })),
  });
  // to a micrometre, and rings from whichever corner they begin
  const figures = (p: Plan) =>
    JSON.parse(
      JSON.stringify(
        {
          ...p,
          areas: p.areas.map((a) => ({
            ...a,
            rings: a.rings.map((r) =>
              Array.from({ length: r.length / 2 }, (_, i) =>
                `${r[2 * i]!.toFixed(3)} ${r[2 * i + 1]!.toFixed(3)}`.replaceAll("-0.000", "0.000"),
              ).sort(),
            ),
          })),
        },
        (_, v) => (typeof v === "number" ? Math.round(v * 1e3) / 1e3 + 0 : v),
      ),
    );
  const parts = [
    { ref: "R1", x: 10, y: 5, value: "1k" },
    { ref: "C1", x: 20, y: 30, value: "" },
  ];
  const at = parts.map((p) => ({ ...p, x: p.x + dx, y: p.y + dy }));
  expect(figures(nestPlan(away, 1.6))).toEqual(figures(moved(nestPlan(board, 1.6))));
  expect(figures(cornersPlan(away, 1.6)!)).toEqual(figures(moved(cornersPlan(board, 1.6)!)));
  expect(figures(sisterPlan(away))).toEqual(figures(moved(sisterPlan(board))));
  for (const side of ["top", "bottom"] as const)
    expect(figures(trayPlan(away, side, at))).toEqual(figures(moved(trayPlan(board, side, parts))));
  // of as many parts each the values are in their order
  expect(trayPlan(board, "top", [...parts, { ref: "R2", x: 1, y: 1, value: "10k" }]).notes).toEqual([
    "1 x without a value: C1",
    "1 x 10k: R2",
    "1 x 1k: R1",
  ]);
});
