import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Offer, Supplier } from "../offer.ts";
import { toProblem } from "../problem.ts";
import { coverLine, coverTable } from "./cover.ts";
import { splitters } from "./split-bound.ts";

const offer = (i: number, o: Partial<Offer>): Offer =>
  ({ id: `o${i}`, supplier: `s${i}`, moq: 1, multiple: 1, stock: 5000, breaks: [], ...o }) as Offer;
const problem = (need: number, offers: readonly Offer[]) =>
  toProblem(
    [{ id: "l", need, offers } as never],
    offers.map((o) => ({ id: o.supplier, name: o.supplier, shipping: 0 }) as unknown as Supplier),
  );
const breaks = (...list: [qty: number, price: number][]) =>
  list.map(([qty, price]) => ({ qty, price })) as never as Offer["breaks"];
const ones = (n: number) => new Float64Array(n).fill(1);

test("what cannot be in a cheaper split falls, two that are left are held against each other's lots; by hand", () => {
  // 168 pieces: 170 of the second are 1,126,080; 160 of it and ten of the third (dearer by eight) 1,059,840 + 130,000 = 1,189,840,
  // ten of the first 185,000 + 158 · 6,624 = 1,231,592 at least
  const offers = [
    offer(0, { moq: 10, breaks: breaks([1, 18500], [100, 8000]) }),
    offer(1, { moq: 50, multiple: 10, breaks: breaks([1, 15180], [100, 6624]) }),
    offer(2, { breaks: breaks([1, 18700], [10, 13000], [100, 8100]) }),
  ];
  const { sources } = problem(168, offers).lines[0]!;
  const ids = (known: number) => splitters(168, sources, ones(3), known).map((s) => s.offer.id);
  expect(ids(1_126_080)).toEqual([]);
  // were a split of the second and third known to be as dear, both stay
  expect(ids(1_189_840)).toEqual(["o1", "o2"]);
  expect(ids(1_189_830)).toEqual([]);
  expect(ids(1_240_000)).toEqual(["o0", "o1", "o2"]);
  // nothing is known yet: nothing falls
  expect(ids(Number.POSITIVE_INFINITY)).toEqual(["o0", "o1", "o2"]);
});

const anyOffer = fc.record({
  moq: fc.integer({ min: 1, max: 40 }),
  multiple: fc.constantFrom(1, 1, 5, 10, 25),
  stock: fc.integer({ min: 1, max: 300 }),
  fee: fc.constantFrom(0, 0, 0, 700, 5000),
  steps: fc.array(fc.tuple(fc.integer({ min: 2, max: 200 }), fc.integer({ min: 50, max: 100 })), {
    maxLength: 3,
  }),
  price: fc.integer({ min: 10, max: 400 }),
  weight: fc.double({ min: 0.6, max: 1.3, noNaN: true }),
});

test("law: the least of a line is that of a table of all its sources, whatever falls before", () => {
  let fell = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 220 }),
      fc.array(anyOffer, { minLength: 2, maxLength: 4 }),
      (need, list) => {
        const offers = list.map((o, i) => {
          // each step is cheaper than the one before
          const steps = [...o.steps]
            .sort((x, y) => x[0] - y[0])
            .filter(([q], k, all) => k === 0 || q > all[k - 1]![0]);
          const own: [number, number][] = [];
          for (const [q, share] of steps) {
            const before = own.at(-1)?.[1] ?? o.price;
            own.push([q, Math.ceil((before * share) / 100)]);
          }
          return offer(i, { ...o, breaks: breaks([1, o.price], ...own) } as never);
        });
        const [line] = problem(need, offers).lines;
        fc.pre(line !== undefined && line.sources.length > 1);
        const weights = Float64Array.from(list, (o) => o.weight);
        const all = coverTable(need, line!.sources, weights).cost[need]!;
        const found = coverLine(line!, line!.suppliers, weights)!;
        const one = Math.min(...line!.sources.map((s) => s.full * weights[s.supplier]!));
        if (splitters(need, line!.sources, weights, one).length < line!.sources.length) fell++;
        expect(found.cost / all).toBeCloseTo(1, 9);
        const bought = found.pick!.reduce((n, b) => n + b.qty, 0);
        expect(bought).toBeGreaterThanOrEqual(need);
      },
    ),
    { numRuns: 600 },
  );
  expect(fell).toBeGreaterThan(200);
});
