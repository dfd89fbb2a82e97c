import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { rect, ringed, solved, spec } from "../designs.fixture.ts";
import { layoutAt } from "../lay/layout.ts";
import { hardestPads } from "../practice.ts";
import { isRefusal, type PanelDesign, type PanelLayout, type PanelSpec } from "../spec.ts";
import { ownTabsOf, TabHand } from "./tab-hand.ts";

const disc = ringed(
  "disc",
  Array.from({ length: 120 }, (_, i) => [
    20 + 20 * Math.cos((i * Math.PI) / 60),
    20 + 20 * Math.sin((i * Math.PI) / 60),
  ]).flat(),
);
const ell = ringed("L", [0, 0, 40, 0, 40, 12, 12, 12, 12, 30, 0, 30]);
/** A head of 8 mm radius, a tail that ends in corners of 2 mm radius, and parts along it: little is left for tabs. */
const arc = (x: number, y: number, r: number, from: number, to: number, n: number): number[] =>
  Array.from({ length: n + 1 }, (_, i) => {
    const a = ((from + ((to - from) * i) / n) * Math.PI) / 180;
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  }).flat();
const tail = ringed(
  "tail",
  [...arc(8, 8, 8, 22, 338, 60), ...arc(32, 7, 2, -90, 0, 9), ...arc(32, 9, 2, 0, 90, 9)],
  {
    bans: [
      { box: [29.8, 6.5, 32.2, 9.5], why: "U1 is beside it", tabMm: 1 },
      { box: [26.6, 7.2, 27.4, 8.8], why: "C1 is a ceramic chip, which cracks", tabMm: 3 },
      { box: [2.7, 2.9, 5.3, 13.1], why: "J1 is beside it", tabMm: 1 },
    ],
  },
);
const tabbed = spec({ counts: [4], separation: "tabs" });

const again = (designs: readonly PanelDesign[], s: PanelSpec, l: PanelLayout): PanelLayout => {
  const made = layoutAt(designs, s, l);
  if (isRefusal(made)) throw new Error(made.reason);
  return made;
};
const at = (l: PanelLayout) => l.tabs.map((t) => [...t.between]);
/** How far tabs lie from those of another sheet, at most, mm. */
const moved = (a: PanelLayout, b: PanelLayout) =>
  Math.max(...a.tabs.map((t, i) => Math.hypot(t.xMm - b.tabs[i]!.xMm, t.yMm - b.tabs[i]!.yMm)));

test.each([
  ["rectangle", rect(40, 30)],
  ["L", ell],
  ["disc", disc],
  ["tail", tail],
] as const)("%s: the tabs that are found, put by hand at the same places, are the same sheet", (name, d) => {
  const s = name === "tail" ? spec({ counts: [9], separation: "tabs" }) : tabbed;
  const found = solved([d], s);
  const own = again([d], { ...s, tabs: ownTabsOf([d], found) }, found);
  expect(at(own)).toEqual(at(found));
  // at a corner of a round edge one of two directions outward is taken
  expect(moved(own, found)).toBeLessThan(name === "disc" || name === "tail" ? 0.1 : 1e-6);
  expect(own.findings.filter((f) => f.tag.startsWith("tab-") || f.tag === "held-by-one-tab")).toEqual([]);
});

test("a tab is held over contacts, a corner, another tab, the open: each says why, and the nearest place that obeys is found", () => {
  const card = rect(40, 30, {
    bans: [{ box: [10, -0.5, 30, 5], why: "edge contacts on its bottom edge", tabMm: 1 }],
  });
  const l = solved([card], tabbed);
  const hand = new TabHand([card], tabbed, l);
  const bare = new TabHand([card], tabbed, { ...l, tabs: [] });
  const [p] = l.places as [PanelLayout["places"][number]];
  expect(p.turnDeg).toBe(0);
  const on = bare.at(1, p.xMm + 20, p.yMm);
  expect(on.why).toBe("edge contacts on its bottom edge");
  // a tab of 5 mm, a millimetre from what begins at 10 mm: its middle at 6.5 mm, or at 33.5 mm
  const obeys = on.why !== undefined ? on.nearest?.own : undefined;
  expect(obeys?.yMm).toBe(0);
  const x = obeys!.xMm;
  expect(Math.min(Math.abs(x - 6.5), Math.abs(x - 33.5))).toBeLessThanOrEqual(0.5);
  expect(x <= 6.5 || x >= 33.5).toBe(true);
  expect(hand.at(1, p.xMm + 1, p.yMm).why).toBe("it would reach over a corner");
  const [t] = l.tabs as [PanelLayout["tabs"][number]];
  expect(hand.at(t.between[0] || t.between[1], t.xMm, t.yMm).why).toBe("another tab stands there");
  // the one that is held is not in its own way
  const held = new TabHand([card], tabbed, l, 0).at(t.between[0] || t.between[1], t.xMm, t.yMm);
  expect(held.why).toBeUndefined();
  expect(hand.at(99, 0, 0).why).toBe("there is no such board");
  const alone = spec({ counts: [1], separation: "tabs", rails: ["left"], turns: [[0]] });
  const one = solved([rect(40, 30)], alone);
  const far = new TabHand([rect(40, 30)], alone, one).at(1, one.widthMm, one.heightMm / 2);
  expect(far.why).toBe("nothing lies across the gap there");
});

test("a rail on the other side gets a tab of its own, which nobody put: else it would be loose", () => {
  const d = rect(100, 30);
  const rails = spec({ counts: [1], separation: "tabs", rails: ["bottom", "top"], turns: [[0]] });
  const l = again([d], { ...rails, tabs: [{ copy: 1, xMm: 10, yMm: 0 }] }, solved([d], rails));
  expect(l.tabs.map((t) => [t.between, t.acrossDeg])).toEqual([
    [[1, 0], -90],
    [[1, 0], 90],
  ]);
});

test("one more stands where the edge is longest without one", () => {
  const d = rect(100, 30);
  const one: Partial<PanelSpec> = { counts: [1], separation: "tabs", rails: ["bottom"], turns: [[0]] };
  const s = spec({ ...one, tabs: [{ copy: 1, xMm: 10, yMm: 0 }] });
  const l = again([d], s, solved([d], spec(one)));
  expect(l.tabs).toHaveLength(1);
  // shown in the middle of the copy it is said of
  const { at } = l.findings.find((f) => f.tag === "held-by-one-tab")!;
  expect([at!.x, at!.y]).toEqual([50, 9 + 15]);
  const more = new TabHand([d], s, l).oneMore(1)!;
  // the farthest from 10, 0 that is tabbed to a rail: at the other end
  expect(more.own.xMm).toBeGreaterThan(90);
  // of one at 60 the near end is farther than the other
  const late = { ...s, tabs: [{ copy: 1, xMm: 60, yMm: 0 }] };
  expect(new TabHand([d], late, again([d], late, l)).oneMore(1)!.own.xMm).toBeLessThan(10);
  expect(new TabHand([d], s, l).oneMore(9)).toBeUndefined();
  const both = again([d], { ...s, tabs: [...s.tabs!, more.own] }, l);
  expect(both.tabs).toHaveLength(2);
  expect(both.findings.map((f) => f.tag)).not.toContain("held-by-one-tab");
});

test("without any tab of one's own a board is held all the same; one that cannot stand is left out, and said", () => {
  const d = rect(40, 30);
  const l = solved([d], tabbed);
  const none = again([d], { ...tabbed, tabs: [] }, l);
  for (const p of none.places) expect(none.tabs.some((t) => t.between.includes(p.copy))).toBe(true);
  const wrong = again([d], { ...tabbed, tabs: [...ownTabsOf([d], l), { copy: 1, xMm: 0, yMm: 0 }] }, l);
  expect(at(wrong)).toEqual(at(l));
  expect(moved(wrong, l)).toBeLessThan(1e-6);
  expect(wrong.findings.filter((f) => f.tag === "tab-left-out").map((f) => f.text)).toEqual([
    expect.stringMatching(/on copy 1 cannot stand there: it would reach over a corner\. It is left out\./),
  ]);
});

test("an edge that is kept free gets no tab, on any copy however it is turned", () => {
  const d = rect(40, 30);
  const s = spec({ counts: [5], separation: "tabs", turns: [[0, 90]] });
  const onLeft = (l: PanelLayout) =>
    ownTabsOf([d], l).filter((t) => t.xMm < 0.01 && t.yMm > 0.01 && t.yMm < 29.99).length;
  const without = solved([d], { ...s, free: [["left"]] });
  expect(onLeft(solved([d], s))).toBeGreaterThan(0);
  expect(onLeft(without)).toBe(0);
  for (const p of without.places) expect(without.tabs.some((t) => t.between.includes(p.copy))).toBe(true);
});

test("columns scored and rows held by tabs, or the other way round, as it is asked for", () => {
  const d = rect(40, 30);
  for (const scored of ["columns", "rows"] as const) {
    const l = solved([d], spec({ counts: [4], separation: "mixed", scored }));
    expect([l.across, l.along]).toEqual(scored === "columns" ? ["score", "tabs"] : ["tabs", "score"]);
  }
});

const measured = (parts: readonly (readonly [ref: string, at: readonly (readonly number[])[]])[]) =>
  ({
    stencil: { top: { openings: parts.flatMap(([, at]) => at.flat()) } },
    nets: {
      islands: parts.map(([ref, at]) => ({
        pads: at.map(([x, y], i) => ({ layer: "top", x, y, pin: `${ref}.${i + 1}` })),
      })),
    },
  }) as unknown as Measure;

test("practice pads are those of the part in rows with the least pitch, each lying as on the board", () => {
  const row = (x: number, y: number, dx: number, dy: number) =>
    [0, 1, 2].map((i) => [x + i * dx, y + i * dy, 0.3, 1.2]);
  const found = hardestPads(
    measured([
      [
        "R1",
        [
          [0, 0, 0.5, 0.6],
          [0.4, 0, 0.5, 0.6],
        ],
      ], // nearer, but no row
      ["U1", row(10, 10, 0.65, 0)],
      ["U2", row(20, 20, 0, 0.5)],
    ]),
  );
  expect(found).toMatchObject({ ref: "U2", pitchMm: 0.5 });
  // a row that goes up: pads lie
  expect(found!.pads.map((b) => b.map((v) => Number(v.toFixed(3))))).toEqual([
    [-0.6, -0.65, 0.6, -0.35],
    [-0.6, -0.15, 0.6, 0.15],
    [-0.6, 0.35, 0.6, 0.65],
  ]);
  const lying = hardestPads(measured([["U1", row(10, 10, 0.65, 0)]]))!;
  expect(lying.pads[0]!.map((v) => Number(v.toFixed(3)))).toEqual([-0.8, -0.6, -0.5, 0.6]);
  // without a row, chips; askew, or without pins, none
  expect(
    hardestPads(
      measured([
        [
          "R1",
          [
            [0, 0, 0.5, 0.6],
            [0.9, 0, 0.5, 0.6],
          ],
        ],
      ]),
    )?.ref,
  ).toBe("R1");
  expect(hardestPads(measured([["U1", row(0, 0, 0.4, 0.3)]]))).toBeUndefined();
  expect(hardestPads({ stencil: { top: { openings: [0, 0, 1, 1] } } } as unknown as Measure)).toBeUndefined();
});
