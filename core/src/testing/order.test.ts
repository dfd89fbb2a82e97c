import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { costOfOrder, type OrderedItem, soonestOrder } from "./order.ts";

const even = () => 1;
const item = (id: string, minutes: number, finds: string, state = 0): OrderedItem => ({
  id,
  minutes,
  state,
  finds: finds.split("").filter(Boolean),
});

test("what finds most a minute comes first; what an earlier item found counts no more; by hand", () => {
  // b finds two in a minute, a three in four; c finds what b does
  const items = [item("a", 4, "xyz"), item("b", 1, "pq"), item("c", 1, "p")];
  expect(soonestOrder(items, even)).toEqual(["b", "a", "c"]);
  // 1 + 1 for p and q, 5 + 5 + 5 for the rest
  expect(costOfOrder([items[1]!, items[0]!, items[2]!], even)).toBe(17);
  // z is ten times as likely
  expect(soonestOrder(items, (f) => (f === "z" ? 10 : 1))[0]).toBe("a");
  // without power comes first, whatever it finds
  expect(soonestOrder([item("a", 1, "abc", 1), item("b", 9, "x", 0), item("n", 1, "", 0)], even)).toEqual([
    "b",
    "n",
    "a",
  ]);
});

const permutations = <T>(list: readonly T[]): T[][] =>
  list.length === 0
    ? [[]]
    : list.flatMap((x, i) => permutations(list.toSpliced(i, 1)).map((rest) => [x, ...rest]));

test("no order of a small plan finds faults sooner; every order it is shown is tried", () => {
  const plan = fc.array(
    fc.record({
      minutes: fc.integer({ min: 1, max: 9 }),
      state: fc.integer({ min: 0, max: 1 }),
      finds: fc.subarray(["a", "b", "c", "d", "e"]),
    }),
    { minLength: 1, maxLength: 6 },
  );
  const weights = fc.record({ a: fc.nat(9), b: fc.nat(9), c: fc.nat(9), d: fc.nat(9), e: fc.nat(9) });
  fc.assert(
    fc.property(plan, weights, (list, w) => {
      const items = list.map((i, k) => ({ ...i, id: String(k) }));
      const weightOf = (f: string) => w[f as keyof typeof w];
      const of = (ids: readonly string[]) => ids.map((id) => items.find((i) => i.id === id)!);
      const order = soonestOrder(items, weightOf);
      expect([...order].sort()).toEqual(items.map((i) => i.id).sort());
      expect(of(order).map((i) => i.state)).toEqual(
        of(order)
          .map((i) => i.state)
          .sort(),
      );
      const legal = permutations(items).filter((p) =>
        p.every((i, k) => k === 0 || p[k - 1]!.state <= i.state),
      );
      const least = Math.min(...legal.map((p) => costOfOrder(p, weightOf)));
      expect(costOfOrder(of(order), weightOf)).toBeCloseTo(least, 9);
    }),
    { numRuns: 60 },
  );
});

test("a long plan is ordered all the same, and within four times the least there can be", () => {
  const items = Array.from({ length: 40 }, (_, i) =>
    item(String(i), 1 + (i % 5), String.fromCharCode(97 + (i % 20)), 0),
  );
  const order = soonestOrder(items, even);
  expect(new Set(order).size).toBe(40);
  // twenty faults, each found by one item alone and by another of the same minutes: the least is by minutes
  const first = items.slice(0, 20).sort((a, b) => a.minutes - b.minutes);
  const cost = costOfOrder(
    order.map((id) => items.find((i) => i.id === id)!),
    even,
  );
  expect(cost).toBeLessThanOrEqual(costOfOrder(first, even) + 1e-9);
});
