import { describe, expect, test } from "@jest/globals";
import type { Body } from "./body.ts";
import { boxOf, cornersOf } from "./boxes.ts";
import { isometricOf } from "./isometric.ts";
import { body, RING } from "./made-body.fixture.ts";

describe("the turned view", () => {
  const view = (bodies: Body[], quarter = 0, side: Body["side"] = "top") =>
    isometricOf(bodies, [RING], 1.6, side, quarter);
  const order = (v: ReturnType<typeof view>) => v.faces.filter((f) => f.kind === "top").map((f) => f.ref);

  test("from back to front: in every quarter whoever is nearer is drawn later", () => {
    // the viewer stands at the lower left: what is farther right and up is behind
    const two = [body("near", 10, 10, 4, 4, { heightMm: 5 }), body("far", 20, 20, 4, 4, { heightMm: 5 })];
    expect(order(view(two))).toEqual(["far", "near"]);
    expect(order(view(two, 2))).toEqual(["near", "far"]);
    // turned by a quarter the upper left comes to stand before the lower right, by another the other way round
    const across = [body("left", 10, 30, 4, 4, { heightMm: 5 }), body("right", 40, 8, 4, 4, { heightMm: 5 })];
    expect([order(view(across, 1)), order(view(across, 3))]).toEqual([
      ["right", "left"],
      ["left", "right"],
    ]);
    expect(order(view(across, 5))).toEqual(order(view(across, 1)));
    // a long one before a small one whose far corner is nearer than its own
    const long = [body("long", 25, 5, 40, 2, { heightMm: 5 }), body("small", 8, 9, 2, 2, { heightMm: 5 })];
    expect(order(view(long))).toEqual(["small", "long"]);
    // a long one whose own near corner is nearer than the small one's, and which is behind it all the same
    const behind = [
      body("small", 21, 11, 2, 2, { heightMm: 5 }),
      body("long", 20, 21, 40, 2, { heightMm: 5 }),
    ];
    expect(order(view(behind))).toEqual(["long", "small"]);
  });

  test("each body is drawn once, however many hide each other, and the picture is as large as what is in it", () => {
    const rows = Array.from({ length: 25 }, (_, i) =>
      body(`B${i}`, 8 + 8 * (i % 5), 6 + 7 * Math.floor(i / 5), 4, 4, { heightMm: 3 + (i % 3) }),
    );
    for (const quarter of [0, 1, 2, 3]) {
      const seen = order(view(rows, quarter));
      expect(seen).toHaveLength(25);
      expect(new Set(seen).size).toBe(25);
    }
    // the board alone: 50 along x and 40 along y, each at 30°, and 1.6 thick
    for (const quarter of [0, 1, 2, 3]) {
      const [x0, y0, x1, y1] = view([], quarter).box;
      expect(x1 - x0).toBeCloseTo(90 * Math.cos(Math.PI / 6), 6);
      expect(y1 - y0).toBeCloseTo(90 * 0.5 + 1.6, 6);
    }
  });

  test("lengths along all three axes are one: 10 mm up, right and back", () => {
    const { faces } = view([body("cube", 20, 20, 10, 10, { heightMm: 10 })]);
    const sides = faces
      .filter((f) => f.ref === "cube")
      .flatMap((f) => f.rings[0]!.map((_, i, r) => (i % 2 === 0 ? [i, r] : undefined)));
    for (const s of sides) {
      if (!s) continue;
      const [i, r] = s as [number, readonly number[]];
      const [x, y] = [r[(i + 2) % r.length]! - r[i]!, r[(i + 3) % r.length]! - r[i + 1]!];
      expect(Math.hypot(x, y)).toBeCloseTo(10, 6);
    }
    // two of its four walls are seen
    expect(faces.filter((f) => f.ref === "cube").map((f) => f.kind)).toEqual(["wall", "wall", "top"]);
  });

  test("a body of no known height lies flat; the bottom is seen turned over", () => {
    const flat = view([body("F", 20, 20, 10, 10)]);
    expect(flat.faces.filter((f) => f.ref === "F").map((f) => f.kind)).toEqual(["top"]);
    const under = body("B", 5, 20, 4, 4, { side: "bottom", heightMm: 1 });
    expect(order(view([under]))).toEqual([]);
    // what lies at the left from above lies at the right from below
    const fromBelow = view([under], 0, "bottom").tops[0]!.x;
    const { box } = view([under], 0, "bottom");
    expect(fromBelow).toBeGreaterThan((box[0] + box[2]) / 2);
    expect(cornersOf(boxOf(under))).toEqual([3, 18, 7, 18, 7, 22, 3, 22]);
  });
});
