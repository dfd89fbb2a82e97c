import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Measure } from "../board/measure-document.ts";
import { type Body, bodiesOf } from "./body.ts";
import { boxOf, gapOf, isApart, overEdge, pointToBox } from "./boxes.ts";
import { clashesOf, MOST_CLASHES } from "./clashes.ts";
import { body, RING } from "./made-body.fixture.ts";
import { zonesOf } from "./zones.ts";

const board = (holes: readonly [number, number][] = []): Pick<Measure, "outline" | "drillTable"> => ({
  outline: { cutouts: 0, closed: true, rings: [RING] },
  drillTable: [
    {
      file: "a",
      diameterMm: 3.2,
      plated: false,
      holes: holes.length,
      slots: 0,
      at: holes.map(([x, y]) => ({ layer: "drill", x, y })),
    },
  ],
});
const clash = (...bodies: Body[]) => clashesOf(bodies, board());

describe("where bodies stand", () => {
  const nets = (...pads: [string, number, number, string?][]): Pick<Measure, "nets"> => ({
    nets: {
      count: 1,
      islands: [{ net: 1, pads: pads.map(([pin, x, y, layer = "top"]) => ({ pin, x, y, layer })) }],
    },
  });
  const only = (part: Parameters<typeof bodiesOf>[0][number], m: Pick<Measure, "nets"> = {}) => {
    const { bodies, unknown } = bodiesOf([part], m);
    return bodies[0] ? { ...bodies[0], unknown } : { unknown };
  };

  test("a part whose stated body has no length or no width has no body", () => {
    const place = { xMm: 9, yMm: 9, rotationDeg: 0, side: "top" as const };
    const of = (bodyLengthMm: number, bodyWidthMm: number) =>
      only({ ref: "X1", package: "", place, bodyLengthMm, bodyWidthMm });
    expect(of(4, 0)).toEqual({ unknown: [expect.objectContaining({ ref: "X1" })] });
    expect(of(0, 0)).toEqual({ unknown: [expect.objectContaining({ ref: "X1" })] });
    expect(of(4, 0.1)).toMatchObject({ lengthMm: 4, widthMm: 0.1 });
  });

  test("pads tell middle and direction before the placement file does, whose zero may be another", () => {
    const place = { xMm: 9, yMm: 9, rotationDeg: 0, side: "top" as const };
    // from pin 1 at the top to pin 2 below: −90°
    expect(only({ ref: "R1", package: "0603", place }, nets(["R1.1", 5, 7.5], ["R1.2", 5, 6]))).toMatchObject(
      {
        x: 5,
        y: 6.75,
        turnDeg: -90,
        lengthMm: 1.6,
        side: "top",
      },
    );
    expect(only({ ref: "R1", package: "0603", place: { ...place, rotationDeg: 30 } })).toMatchObject({
      x: 9,
      y: 9,
      turnDeg: 30,
    });
  });

  test("pins count as numbers, and a row that is longer across lies across", () => {
    // pins 1, 2 and 10 of a row of five by two: 1 to 2 goes across it
    const two = nets(["J1.10", 8, 2], ["J1.1", 0, 0], ["J1.2", 0, 2], ["J1.9", 8, 0]);
    expect(only({ ref: "J1", package: "HDR-2x5" }, two)).toMatchObject({
      x: 4,
      y: 1,
      turnDeg: 180,
      lengthMm: 10,
      widthMm: 4,
    });
    // letters of pins by the alphabet: A before K
    expect(only({ ref: "D1", package: "0603" }, nets(["D1.K", 0, 0], ["D1.A", 1.5, 0]))).toMatchObject({
      turnDeg: 180,
    });
  });

  test("side: the place's, else that of pads on one side only; unknown without place, pads or size", () => {
    expect(
      only({ ref: "R1", package: "0603" }, nets(["R1.1", 0, 0, "bottom"], ["R1.2", 1, 0, "bottom"])),
    ).toMatchObject({
      side: "bottom",
    });
    expect(
      only(
        { ref: "J1", package: "HDR-1x2" },
        nets(["J1.1", 0, 0], ["J1.1", 0, 0, "bottom"], ["J1.2", 2, 0, "bottom"]),
      ),
    ).toMatchObject({ side: "top", widthMm: 2 });
    expect(only({ ref: "J1", package: "HDR-1x2" })).toEqual({ unknown: [{ ref: "J1" }] });
    // one row of pads has no width, and one pad no direction
    expect(only({ ref: "J1", package: "TERM-2" }, nets(["J1.1", 0, 0], ["J1.2", 5, 0]))).toEqual({
      unknown: [{ ref: "J1", at: { x: 0, y: 0 }, side: "top" }],
    });
    expect(only({ ref: "T1", package: "0603" }, nets(["T1.1", 3, 4, "bottom"]))).toEqual({
      unknown: [{ ref: "T1", at: { x: 3, y: 4 }, side: "bottom" }],
    });
    // a pad that belongs to nobody is nobody's body
    expect(only({ ref: "", package: "0603" }, nets([".1", 0, 0], [".2", 1.5, 0]))).toEqual({
      unknown: [{ ref: "" }],
    });
    expect(
      only({ ref: "X1", package: "" }, nets(["X1.1", 0, 0], ["X1.2", 3, 0], ["X1.3", 3, 2])),
    ).toMatchObject({
      lengthMm: 3,
      widthMm: 2,
      sizeFrom: "pads",
      tolMm: 0,
    });
  });

  test("a leaded package is as long as its pads reach and its moulding beyond them, wherever it stands", () => {
    // two rows of four at 1.27, 5.4 apart, the row upright about 20/30
    const pads = [0, 1, 2, 3].flatMap((k): [string, number, number][] => [
      [`U1.${k + 1}`, 17.3, 28.095 + 1.27 * k],
      [`U1.${8 - k}`, 22.7, 28.095 + 1.27 * k],
    ]);
    expect(only({ ref: "U1", package: "SOIC-8" }, nets(...pads))).toMatchObject({
      x: expect.closeTo(20, 9),
      y: expect.closeTo(30, 9),
      lengthMm: 4.91,
      widthMm: 6,
      turnDeg: 90,
    });
  });

  test("a stated height is a nominal one, others are greatest ones", () => {
    expect(
      only({ ref: "R1", package: "0603", heightMm: 0.5 }, nets(["R1.1", 0, 0], ["R1.2", 1, 0])),
    ).toMatchObject({ heightMm: 0.5, heightTolMm: 0.1 });
    expect(only({ ref: "R1", package: "0603" }, nets(["R1.1", 0, 0], ["R1.2", 1, 0]))).toMatchObject({
      heightTolMm: 0,
    });
  });
});

describe("boxes", () => {
  test("gaps: side by side, corner to corner, turned, and how deep one lies in another", () => {
    const a = boxOf(body("A", 0, 0, 4, 2));
    expect(gapOf(a, boxOf(body("B", 5, 0, 4, 2)))).toBeCloseTo(1, 9);
    // corners at (2, 1) and (5, 5): 3 and 4
    expect(gapOf(a, boxOf(body("B", 6, 6, 2, 2)))).toBeCloseTo(5, 9);
    // turned by 45° a square of 2 reaches √2 towards the other's side at 2
    const turned = boxOf(body("B", 5, 0, 2, 2, { turnDeg: 45 }));
    expect(gapOf(a, turned)).toBeCloseTo(3 - Math.SQRT2, 9);
    expect(gapOf(a, boxOf(body("B", 3.5, 0, 4, 2)))).toBeCloseTo(-0.5, 9);
    expect(gapOf(a, boxOf(body("B", -1, 1.75, 4, 2)))).toBeCloseTo(-0.25, 9);
    expect(pointToBox(5, 5, a)).toBeCloseTo(5, 9);
    expect(pointToBox(1, 0.5, a)).toBe(0);
  });

  test("over the edge: the corner farthest out counts, and a cut-out is an edge too", () => {
    const rings = [RING, [20, 10, 30, 10, 30, 20, 20, 20]];
    expect(overEdge(boxOf(body("J", 49, 20, 4, 2)), rings)).toBeCloseTo(1, 9);
    expect(overEdge(boxOf(body("J", 10, 20, 4, 2)), rings)).toBe(0);
    // its right corners lie 2 mm inside of the cut-out
    expect(overEdge(boxOf(body("J", 20, 15, 4, 2)), rings)).toBeCloseTo(2, 9);
  });

  test("a turn and a shift of both changes no gap", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -200, max: 200 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 0, max: 359 }),
        ([x, y, dx, dy], l, own, turn) => {
          const a = body("A", 0, 0, 5, 2);
          const b = body("B", x! / 20, y! / 20, l / 10, 1, { turnDeg: own });
          const angle = (turn * Math.PI) / 180;
          const moved = (o: Body): Body => ({
            ...o,
            x: o.x * Math.cos(angle) - o.y * Math.sin(angle) + dx!,
            y: o.x * Math.sin(angle) + o.y * Math.cos(angle) + dy!,
            turnDeg: o.turnDeg + turn,
          });
          expect(gapOf(boxOf(moved(a)), boxOf(moved(b)))).toBeCloseTo(gapOf(boxOf(a), boxOf(b)), 6);
        },
      ),
    );
  });
});

describe("what is in the way", () => {
  test("neighbours: tolerances add up as squares; nothing is said beyond them, and other sides never meet", () => {
    const a = body("A", 10, 10, 4, 2);
    // √(0.1² + 0.1²) = 0.141
    expect(clash(a, body("B", 14.2, 10, 4, 2))).toEqual([]);
    expect(clash(a, body("B", 14.13, 10, 4, 2))).toMatchObject([
      { verdict: "may-touch", gapMm: 0.13, tolMm: 0.141 },
    ]);
    expect(clash(a, body("B", 13.9, 10, 4, 2))).toMatchObject([{ verdict: "may-touch", gapMm: -0.1 }]);
    expect(clash(a, body("B", 13.8, 10, 4, 2))).toMatchObject([
      { verdict: "collides", gapMm: -0.2, refs: ["A", "B"], x: 11.9, y: 10 },
    ]);
    expect(clash(a, body("B", 13.8, 10, 4, 2, { side: "bottom" }))).toEqual([]);
    // of what only its pads are known nothing is called a collision, and no move is named
    const pads = { tolMm: 0, sizeFrom: "pads" as const };
    const [between] = clash(body("A", 10, 10, 4, 2, pads), body("B", 10, 10, 1, 1));
    expect(between).toMatchObject({ verdict: "may-touch", byPads: ["A"] });
    expect(between).not.toHaveProperty("move");
  });

  test("a long body meets what stands at its far end, whatever stands between, in any order of the list", () => {
    const list = [
      body("LONG", 25, 10, 40, 2),
      ...Array.from({ length: 8 }, (_, i) => body(`C${i}`, 11 + 4 * i, 20, 2, 1)),
      body("END", 45.5, 10, 2, 2),
      body("TALL", 5, 10, 2, 30),
    ];
    const met = (bodies: Body[]) =>
      clash(...bodies)
        .filter((c) => c.kind === "parts")
        .map((c) => [...c.refs].sort().join());
    expect(met(list).sort()).toEqual(["END,LONG", "LONG,TALL"]);
    expect(met([...list].reverse()).sort()).toEqual(["END,LONG", "LONG,TALL"]);
  });

  test("the smallest move that clears it: the smaller part, in steps of 0.05, and not into another", () => {
    const big = body("U1", 10, 10, 8, 8);
    const small = body("R1", 14.5, 10, 1.6, 0.8);
    // R1 reaches 0.3 into U1: 0.3 + 0.141 is 0.45 to the right
    expect(clash(big, small)[0]!.move).toEqual({ ref: "R1", dx: 0.45, dy: 0 });
    // with a part beside it there is no room for it, and the larger one gives way
    const wall = body("C1", 15.8, 10, 0.6, 6);
    expect(clash(big, small, wall).find((c) => c.refs.includes("U1"))!.move).toEqual({
      ref: "U1",
      dx: -0.45,
      dy: 0,
    });
    // at the board's edge neither: the move would go over it
    const edge = body("U2", 46, 10, 8, 8);
    const inner = body("R2", 41.5, 10, 1.6, 0.8);
    expect(clash(edge, inner)[0]!.move).toEqual({ ref: "R2", dx: -0.45, dy: 0 });
  });

  test("where the shortest way is taken the next shortest is named, whichever direction that is", () => {
    const big = body("U1", 10, 10, 8, 8);
    // over U1's corner: 0.9 along x, 0.5 along y
    const small = body("R1", 13.9, 13.9, 1.6, 0.8);
    const move = (...more: Body[]) =>
      clash(big, small, ...more).find((c) => c.refs.includes("U1") && c.refs.includes("R1"))!.move;
    expect(move()).toEqual({ ref: "R1", dx: 0, dy: 0.65 });
    const above = body("C1", 13.9, 15.2, 2, 1);
    expect(move(above)).toEqual({ ref: "U1", dx: 0, dy: -0.65 });
    const below = body("C2", 10, 5.2, 2, 1);
    expect(move(above, below)).toEqual({ ref: "R1", dx: 1.05, dy: 0 });
  });

  test("a move that is named clears the pair and touches nothing else", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.integer({ min: 40, max: 460 }),
            y: fc.integer({ min: 40, max: 360 }),
            l: fc.integer({ min: 8, max: 60 }),
            w: fc.integer({ min: 4, max: 40 }),
            t: fc.integer({ min: 0, max: 179 }),
          }),
          { minLength: 2, maxLength: 12 },
        ),
        (list) => {
          const bodies = list.map((b, i) =>
            body(`P${i}`, b.x / 10, b.y / 10, b.l / 10, b.w / 10, { turnDeg: b.t }),
          );
          for (const c of clash(...bodies).filter((k) => k.kind === "parts" && k.move)) {
            const { ref, dx, dy } = c.move!;
            const after = bodies.map((b) => (b.ref === ref ? { ...b, x: b.x + dx, y: b.y + dy } : b));
            const mine = clash(...after).filter((k) => k.kind === "parts" && k.refs.includes(ref));
            // moves are told in thousandths
            expect(mine.filter((k) => k.gapMm < k.tolMm - 0.002)).toEqual([]);
          }
        },
      ),
    );
  });

  test("parts heaped on one spot end after so many pairs", () => {
    const heap = Array.from({ length: 3000 }, (_, i) => body(`R${i}`, 25, 20, 1.6, 0.8));
    expect(clash(...heap)).toHaveLength(MOST_CLASHES);
  });

  test("screws: a head of 1.8 times the hole; edge: what reaches over by more than a tenth", () => {
    const at = (x: number) => clashesOf([body("R1", x, 5, 2, 2)], board([[5, 5]]));
    // the head reaches 2.88 from the hole's middle
    expect(at(9.05)).toEqual([]);
    expect(at(8.9)).toMatchObject([{ kind: "screw", refs: ["R1"], gapMm: 0.02, verdict: "may-touch" }]);
    expect(at(8.5)).toMatchObject([{ kind: "screw", gapMm: -0.38, verdict: "collides", x: 5, y: 5 }]);
    expect(clash(body("J1", 49.05, 20, 2, 2))).toEqual([]);
    expect(clash(body("J1", 49.15, 20, 2, 2))).toMatchObject([
      { kind: "edge", gapMm: -0.15, verdict: "may-touch" },
    ]);
    expect(clash(body("J1", 49.5, 20, 2, 2))).toMatchObject([
      { kind: "edge", gapMm: -0.5, verdict: "collides" },
    ]);
    expect(clashesOf([body("J1", 49.5, 20, 2, 2)], {})).toEqual([]);
    // no screw goes into what is plated, is a slot, or is narrower than 2 mm
    const row = board([[5, 5]]).drillTable![0]!;
    const under = (more: object) =>
      clashesOf([body("R1", 5, 5, 2, 2)], { drillTable: [{ ...row, ...more }] }).length;
    expect([
      under({}),
      under({ plated: true }),
      under({ slots: 1 }),
      under({ diameterMm: 1.9 }),
      under({ diameterMm: 2 }),
    ]).toEqual([1, 0, 0, 0, 1]);
  });
});

test("the tallest of each field; a part of no known height leaves it open", () => {
  const zones = zonesOf(
    [
      body("A", 5, 35, 1, 1, { heightMm: 2 }),
      body("B", 6, 35, 1, 1, { heightMm: 5 }),
      body("C", 45, 5, 1, 1),
      body("D", 45, 5, 1, 1, { heightMm: 9, side: "bottom" }),
      body("E", 50, 40, 1, 1, { heightMm: 1 }),
    ],
    [0, 0, 50, 40],
    "top",
  );
  const at = (column: number, row: number) => zones.find((z) => z.column === column && z.row === row)!;
  expect(at(0, 0)).toMatchObject({ tallest: { ref: "B" }, withoutHeight: [] });
  expect(at(2, 1)).toEqual({ column: 2, row: 1, withoutHeight: ["C"] });
  // the very corner is in the last field
  expect(at(2, 0).tallest?.ref).toBe("E");
  expect(at(1, 0)).toEqual({ column: 1, row: 0, withoutHeight: [] });
});

test("two rectangles that are just so far apart are so far apart; by one direction, and only by their corners", () => {
  const box = (x: number, y: number, deg = 0) => boxOf({ x, y, lengthMm: 2, widthMm: 1, turnDeg: deg });
  expect([isApart(box(0, 0), box(5, 0), 3), isApart(box(0, 0), box(5, 0), 3.001)]).toEqual([true, false]);
  // corner to corner: 3 across and 4 along are 5, though no side is more than 4 away
  expect([isApart(box(0, 0), box(5, 5), 5), isApart(box(0, 0), box(5, 5), 5.001)]).toEqual([true, false]);
  expect(gapOf(box(0, 0), box(5, 5))).toBe(5);
});

test("how far a point is from a rectangle that lies at any angle", () => {
  // 4 by 2 about 10/20, its length along 30°
  const box = boxOf({ x: 10, y: 20, lengthMm: 4, widthMm: 2, turnDeg: 30 });
  const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
  /** A point so far along its length and across it. */
  const from = (u: number, v: number) => pointToBox(10 + u * c - v * s, 20 + u * s + v * c, box);
  expect([from(0, 0), from(2, 1), from(-2, -1)].map((d) => Math.round(d * 1e9) / 1e9 + 0)).toEqual([0, 0, 0]);
  expect(from(5, 0)).toBeCloseTo(3, 9);
  expect(from(0, -5)).toBeCloseTo(4, 9);
  // 3 beyond its length and 4 beyond its width, at each corner
  for (const [u, v] of [
    [5, 5],
    [-5, 5],
    [5, -5],
    [-5, -5],
  ] as const)
    expect(from(u, v)).toBeCloseTo(5, 9);
});
