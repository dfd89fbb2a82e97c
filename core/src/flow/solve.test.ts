import { expect, test } from "@jest/globals";
import { meshOf, voltsOf } from "./solve.ts";

/** The same by elimination, dense and slow. */
function eliminated(
  nodes: number,
  edges: readonly (readonly [number, number, number])[],
  into: readonly number[],
  held: number,
) {
  const a = Array.from({ length: nodes }, (_, k) => [...new Array<number>(nodes).fill(0), into[k]!]);
  for (const [p, q, g] of edges) {
    a[p]![p]! += g;
    a[q]![q]! += g;
    a[p]![q]! -= g;
    a[q]![p]! -= g;
  }
  a[held] = [...new Array<number>(nodes + 1).fill(0)];
  a[held]![held] = 1;
  for (let c = 0; c < nodes; c++) {
    let best = c;
    for (let k = c; k < nodes; k++) if (Math.abs(a[k]![c]!) > Math.abs(a[best]![c]!)) best = k;
    [a[c], a[best]] = [a[best]!, a[c]!];
    for (let k = 0; k < nodes; k++) {
      if (k === c) continue;
      const f = a[k]![c]! / a[c]![c]!;
      for (let j = c; j <= nodes; j++) a[k]![j]! -= f * a[c]![j]!;
    }
  }
  return a.map((row, k) => row[nodes]! / row[k]!);
}

/** The same numbers at every run. */
function chance(seed: number) {
  let s = seed;
  return () => {
    s = (s * 1103515245 + 12345) % 2147483648;
    return s / 2147483648;
  };
}

test.each([3, 30, 45, 130])("volts of %d nodes joined at random are those of an elimination", (nodes) => {
  const random = chance(nodes);
  const edges = Array.from({ length: nodes * 3 }, (_, k): [number, number, number] => {
    // a chain joins them all, the rest lies anywhere; from a milliohm to a kiloohm
    const a = k < nodes - 1 ? k : Math.floor(random() * nodes);
    const b = k < nodes - 1 ? k + 1 : Math.floor(random() * nodes);
    return [a, b, 10 ** (random() * 6 - 3)];
  }).filter(([a, b]) => a !== b);
  const into = Array.from({ length: nodes }, () => random() - 0.4);
  const held = Math.floor(nodes / 3);
  const x = voltsOf(
    meshOf(
      nodes,
      edges.map((e) => e[0]),
      edges.map((e) => e[1]),
      edges.map((e) => e[2]),
    ),
    Float64Array.from(into),
    held,
  );
  const truth = eliminated(nodes, edges, into, held);
  const most = Math.max(...truth.map(Math.abs));
  for (let k = 0; k < nodes; k++) expect(Math.abs(x[k]! - truth[k]!)).toBeLessThan(1e-5 * most);
  expect(x[held]).toBe(0);
});

test("between two corners of a square of one ohm edges without end lie, to the first places, 0.637 ohm", () => {
  // the infinite square lattice between diagonal neighbours: 2/π ohm (recalled); 201 × 201 of it
  const side = 201;
  const [a, b]: [number[], number[]] = [[], []];
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      if (x + 1 < side) [a[a.length], b[b.length]] = [y * side + x, y * side + x + 1];
      if (y + 1 < side) [a[a.length], b[b.length]] = [y * side + x, (y + 1) * side + x];
    }
  const into = new Float64Array(side * side);
  const at = 100 * side + 100;
  into[at] = 1;
  const volts = voltsOf(meshOf(side * side, a, b, new Array(a.length).fill(1)), into, at + side + 1);
  expect(volts[at]).toBeCloseTo(2 / Math.PI, 3);
});

test("no current, no volts", () => {
  expect([...voltsOf(meshOf(2, [0], [1], [5]), new Float64Array(2), 0)]).toEqual([0, 0]);
});
