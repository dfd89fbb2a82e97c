import { expect, test } from "@jest/globals";
import { chance } from "../../test/random.ts";
import { Work } from "../geometry/work.ts";
import {
  distanceTo,
  distanceWithin,
  insideSolid,
  ringsOfSolid,
  type Solids,
  SolidsBuilder,
} from "./solids.ts";

/** A pour like a cog of so many teeth with a round hole in it, mm. */
function cog(teeth: number): Solids {
  const outer = Array.from({ length: 2 * teeth }, (_, i) => {
    const [r, at] = [i % 2 === 0 ? 10 : 8, (Math.PI * i) / teeth];
    return [20 + r * Math.cos(at), 20 + r * Math.sin(at)];
  }).flat();
  const hole = Array.from({ length: 40 }, (_, i) => [
    22 + Math.cos((-Math.PI * i) / 20),
    20 + Math.sin((-Math.PI * i) / 20),
  ]).flat();
  const b = new SolidsBuilder(1, 256, new Work());
  b.ring(outer);
  b.ring(hole);
  b.close(0, 0, true);
  return b.done();
}

test("a point's distance to a pour is the same by the index of its rows as edge by edge, as far as it is asked for", () => {
  const s = cog(90);
  const c = chance(7);
  let near = 0;
  for (let i = 0; i < 3000; i++) {
    const [x, y, most] = [5 + 30 * c.next(), 5 + 30 * c.next(), 0.05 + 3 * c.next()];
    const [whole, within] = [distanceTo(s, 0, x, y), distanceWithin(s, 0, x, y, most)];
    if (whole <= most) {
      near++;
      expect(within).toBeCloseTo(whole, 12);
    } else expect(within).toBe(Number.POSITIVE_INFINITY);
  }
  expect(near).toBeGreaterThan(500);
});

test("inside is inside: in the cog, not in its hole, not between its teeth; an area gives back its rings", () => {
  const s = cog(90);
  expect(insideSolid(s, 0, 20, 13)).toBe(true);
  expect(insideSolid(s, 0, 22, 20)).toBe(false);
  expect(insideSolid(s, 0, 20 + 9.9 * Math.cos(Math.PI / 90), 20 + 9.9 * Math.sin(Math.PI / 90))).toBe(false);
  expect(distanceWithin(s, 0, 22, 20, 5)).toBeCloseTo(Math.cos(Math.PI / 40), 6);
  expect(ringsOfSolid(s, 0).map((r) => r.length / 2)).toEqual([180, 40]);
});
