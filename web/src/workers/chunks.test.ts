import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readLayer } from "@kobbin/core";
import { batches, Gatherer, ringTo } from "./chunks.ts";

/** A path that writes down what is drawn on it. */
class Recorded {
  readonly drawn: string[] = [];
  moveTo(x: number, y: number) {
    this.drawn.push(`M${n(x)} ${n(y)}`);
  }
  lineTo(x: number, y: number) {
    this.drawn.push(`L${n(x)} ${n(y)}`);
  }
  arc(x: number, y: number, r: number, from: number, to: number) {
    this.drawn.push(`A${n(x)} ${n(y)} ${n(r)} ${n(from)} ${n(to)}`);
  }
  closePath() {
    this.drawn.push("Z");
  }
}
const n = (v: number) => String(Math.round(v * 1000) / 1000 + 0);
const before = (globalThis as { Path2D?: unknown }).Path2D;
beforeAll(() => {
  (globalThis as { Path2D?: unknown }).Path2D = Recorded;
});
afterAll(() => {
  (globalThis as { Path2D?: unknown }).Path2D = before;
});

const layer = (body: string) =>
  readLayer(new TextEncoder().encode(`%FSLAX46Y46*%\n%MOMM*%\nG75*\n${body}M02*\n`), "a.gbr");
const drawnOf = (body: string, cellMm = 10) =>
  batches(layer(body), cellMm).map((b) => ({
    dark: b.dark,
    chunks: b.chunks.map((c) => ({
      width: c.width,
      box: c.box.map((v) => Number(n(v))),
      drawn: (c.path as unknown as Recorded).drawn,
    })),
  }));

test("a track is a stroke of its width, a round pad a filled circle, and a box holds what is drawn", () => {
  expect(
    drawnOf("%ADD10C,0.5*%\nD10*\nX1000000Y1000000D02*\nG01X3000000Y1000000D01*\nX5000000Y2000000D03*\n"),
  ).toEqual([
    {
      dark: true,
      chunks: [
        { width: 0.5, box: [0.75, 0.75, 3.25, 1.25], drawn: ["M1 1", "L3 1"] },
        { width: 0, box: [4.75, 1.75, 5.25, 2.25], drawn: ["M5.25 2", "A5 2 0.25 0 6.283"] },
      ],
    },
  ]);
});

test("rings go all the same way round, a second flash of an aperture lies where it is flashed", () => {
  const [batch] = drawnOf("%ADD10R,2X1*%\nD10*\nX1000000Y1000000D03*\nX5000000Y1000000D03*\n");
  const [chunk] = batch!.chunks;
  const rings = chunk!.drawn
    .join(" ")
    .split(" Z")
    .filter((s) => s.trim() !== "")
    .map((s) => [...s.matchAll(/-?[\d.]+/g)].map((m) => Number(m[0])));
  expect(rings).toHaveLength(2);
  expect(rings[1]).toEqual(rings[0]!.map((v, i) => v + (i % 2 === 0 ? 4 : 0)));
  const area = (r: number[]) =>
    r.reduce(
      (s, _, i) => (i % 2 ? s : s + r[i]! * r[(i + 3) % r.length]! - r[(i + 2) % r.length]! * r[i + 1]!),
      0,
    ) / 2;
  expect(rings.map(area)).toEqual([2, 2]);
  // a region drawn the other way round is turned
  const [region] = drawnOf(
    "G36*\nX0Y0D02*\nG01X0Y1000000D01*\nX1000000Y1000000D01*\nX1000000Y0D01*\nX0Y0D01*\nG37*\n",
  );
  const ring = [...region!.chunks[0]!.drawn.join(" ").matchAll(/-?[\d.]+/g)].map((m) => Number(m[0]));
  expect(area(ring)).toBe(1);
});

test("what clears stands between what is dark, in the order of the file", () => {
  const pad = "%ADD10C,1*%\nD10*\n";
  const got = drawnOf(`${pad}X0Y0D03*\n%LPC*%\nX0Y0D03*\n%LPD*%\nX0Y0D03*\nX1000000Y0D03*\n`);
  expect(got.map((b) => [b.dark, b.chunks.reduce((s, c) => s + c.drawn.length, 0)])).toEqual([
    [true, 2],
    [false, 2],
    [true, 4],
  ]);
});

test("pieces gather by place and by size: a long one does not make a small cell large, 300 are a path", () => {
  const g = new Gatherer(10);
  const a = g.at(1, 1, 2, 2, 0.5);
  expect(g.at(3, 3, 4, 4, 0.5)).toBe(a);
  expect(g.at(11, 1, 12, 2, 0.5)).not.toBe(a);
  expect(g.at(1, 1, 2, 2, 0.6)).not.toBe(a);
  expect(g.at(0, 0, 15, 1, 0.5)).not.toBe(a);
  expect(g.chunks).toHaveLength(4);
  for (let i = 0; i < 298; i++) expect(g.at(1, 1, 2, 2, 0.5)).toBe(a);
  expect(g.at(1, 1, 2, 2, 0.5)).not.toBe(a);
});

test("a ring moved", () => {
  const path = new Recorded();
  ringTo(path as unknown as Path2D, [0, 0, 1, 0, 1, 1], 2, 3);
  expect(path.drawn).toEqual(["M2 3", "L3 3", "L3 4", "Z"]);
});
