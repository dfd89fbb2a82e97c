import { expect, test } from "@jest/globals";
import { Worst } from "../worst.ts";
import { addOutlineNecks } from "./necks.ts";

type P = readonly [number, number];
/** An arc of a circle in degrees, in steps that do not fall on each other by chance. */
const arc = (x: number, y: number, r: number, from: number, to: number, steps = 23): P[] =>
  Array.from({ length: steps + 1 }, (_, i) => {
    const a = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  });
const circle = (x: number, y: number, r: number, steps?: number): P[] =>
  arc(x, y, r, 0, 360, steps).slice(0, -1);
const rounded = (w: number, h: number, r: number): P[] => [
  ...arc(w - r, r, r, -90, 0),
  ...arc(w - r, h - r, r, 0, 90),
  ...arc(r, h - r, r, 90, 180),
  ...arc(r, r, r, 180, 270),
];
const box = (x: number, y: number, w: number, h: number): P[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];

test.each<[string, P[][], number | undefined]>([
  // bulging arcs: nothing is narrow
  ["a rounded board", [rounded(40, 30, 2)], undefined],
  ["a board with corners of 0.5", [rounded(40, 30, 0.5)], undefined],
  ["a round board", [circle(0, 0, 15, 97)], undefined],
  ["a small disc", [circle(0, 0, 1, 48)], undefined],
  ["a disc in coarse steps", [circle(0, 0, 1, 8)], undefined],
  [
    "a wedge that bulges a little",
    [
      [
        [0, 0],
        [20, 0],
        [20, 3.5],
        [10, 2],
      ],
    ],
    undefined,
  ],
  ["a square", [box(0, 0, 2, 2)], undefined],
  ["a board ending in a half circle", [[[0, 0], [20, 0], ...arc(20, 10, 10, -90, 90), [0, 20]]], undefined],
  [
    "an edge that bulges twice and meets in a shallow notch far from everything",
    [[[0, 0], [20, 0], ...arc(15, 10, 5, 0, 180), ...arc(5, 10, 5, 0, 180)]],
    undefined,
  ],
  // circles of radius 4 about (10, 0) and (10, 10.5): 10.5 − 8
  [
    "two round bites against each other",
    [
      [
        [0, 0],
        ...arc(10, 0, 4, 180, 0, 24),
        [20, 0],
        [20, 10.5],
        ...arc(10, 10.5, 4, 0, -180, 24),
        [0, 10.5],
      ],
    ],
    2.5,
  ],
  ["a round hole near the edge", [box(0, 0, 20, 20), circle(10, 3, 2, 40)], 1],
  ["a square cut-out near the edge", [rounded(40, 30, 2), box(10, 1.2, 5, 5)], 1.2],
  ["two cut-outs beside each other", [box(0, 0, 40, 40), box(10, 10, 5, 5), box(15.8, 10, 5, 5)], 0.8],
  [
    "a ring, both circles in 60 steps, flat by cos 3°",
    [circle(0, 0, 10, 60), circle(0, 0, 9, 60)],
    Math.cos(Math.PI / 60),
  ],
  [
    "a long tongue",
    [
      [
        [0, 0],
        [20, 0],
        [20, 10],
        [12, 10],
        [12, 18],
        [10.5, 18],
        [10.5, 10],
        [0, 10],
      ],
    ],
    1.5,
  ],
  [
    "a short tab, narrower than it is long by half only",
    [
      [
        [0, 0],
        [20, 0],
        [20, 10],
        [12, 10],
        [12, 12],
        [10.5, 12],
        [10.5, 10],
        [0, 10],
      ],
    ],
    1.5,
  ],
  ["a thin strip", [box(0, 0, 30, 1)], 1],
  ["a strip two and a half times as long as wide", [box(0, 0, 2.5, 1)], 1],
  ["a plate not twice as long as wide", [box(0, 0, 1.9, 1)], undefined],
  [
    "a thin strip whose long sides are in pieces",
    [
      [
        ...Array.from({ length: 31 }, (_, i): P => [i, 0]),
        ...Array.from({ length: 31 }, (_, i): P => [30 - i, 1]),
      ],
    ],
    1,
  ],
  ["a thin strip with round ends", [[...arc(30, 0.5, 0.5, -90, 90), ...arc(0, 0.5, 0.5, 90, 270)]], 1],
  // the cut runs 0.5 above the lower edge and is no edge: what counts is the hole, 2.5 above it
  [
    "a hole reached by a cut along an edge",
    [
      [
        [0, 0],
        [20, 0],
        [20, 20],
        [0, 20],
        [0, 0.5],
        [4, 0.5],
        [5, 2.5],
        [5, 5],
        [10, 5],
        [10, 2.5],
        [5, 2.5],
        [4, 0.5],
        [0, 0.5],
      ],
    ],
    2.5,
  ],
])("the narrowest place of %s", (_, rings, mm) => {
  for (const turn of [0, 31]) {
    for (const isBack of [false, true]) {
      const a = (turn * Math.PI) / 180;
      const turned = rings.map((r) =>
        (isBack ? [...r].reverse() : r).flatMap(([x, y]) => [
          x * Math.cos(a) - y * Math.sin(a),
          x * Math.sin(a) + y * Math.cos(a),
        ]),
      );
      const worst = new Worst();
      addOutlineNecks(worst, turned, 3);
      const found = (worst.keys("n") as { nMm?: number }).nMm;
      if (mm === undefined) expect(found).toBeUndefined();
      else expect(found).toBeCloseTo(mm, 2);
    }
  }
});
