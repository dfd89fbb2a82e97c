import {
  bestBasket,
  cheapestBuy,
  type Micros,
  type Need,
  type Offer,
  proveBasket,
  QUICK_EFFORT,
  type Supplier,
} from "@kobbin/core";
import { loadSolver } from "@kobbin/solver";
import { random } from "./random.ts";
import type { Add } from "./served.ts";

/**
 * A made-up shopping list: prices from fractions of a cent to tens of euro, five steps each, minimums, packs, some small
 * stocks; each supplier has about six lines in ten, every other one ships free from a subtotal on.
 */
export function shopping(
  lines: number,
  suppliers: number,
  boards: number,
  seed: number,
): { needs: Need[]; suppliers: Supplier[] } {
  const r = random(seed);
  const bell = () => Math.sqrt(-2 * Math.log(r() + 1e-12)) * Math.cos(2 * Math.PI * r());
  const money = (euro: number) => (Math.max(1, Math.round(euro * 10_000)) * 100) as Micros;
  const shops = Array.from({ length: suppliers }, (_, s): Supplier => {
    const base = { id: `s${s}`, name: `Supplier ${s + 1}`, shipping: money(6 + Math.round(30 * r())) };
    return s % 2 === 0 ? { ...base, freeFrom: money(40 + Math.round(400 * r())) } : base;
  });
  const needs = Array.from({ length: lines }, (_, l): Need => {
    const perBoard = Math.max(1, Math.round(Math.exp(Math.abs(bell()) * 1.1)));
    const euro = Math.min(40, Math.max(0.004, Math.exp(bell() * 1.7 - 1.2)));
    const need = Math.ceil(perBoard * boards * 1.01);
    const make = (s: number, enough: boolean): Offer => {
      const x = r();
      const moq = euro > 2 || x < 0.55 ? 1 : x < 0.75 ? 10 : x < 0.95 ? 100 : 1000;
      const multiple = moq === 1 ? (r() < 0.9 ? 1 : 5) : r() < 0.5 ? moq : 1;
      let price = euro * (0.85 + 0.4 * r());
      const breaks = [1, 10, 100, 1000, 5000].map((qty) => {
        const step = { qty, price: money(price) };
        price *= 0.78 + 0.17 * r();
        return step;
      });
      const stock = enough
        ? 1_000_000
        : r() < 0.15
          ? Math.floor(r() * 600)
          : Math.floor(Math.exp(7 + 2 * Math.abs(bell())));
      return { id: `${l}.${s}`, supplier: `s${s}`, stock, moq, multiple, breaks };
    };
    const offers = shops.flatMap((_, s) => (r() < 0.6 ? [make(s, false)] : []));
    if (offers.reduce((n, o) => n + o.stock - o.multiple, 0) < need)
      offers.push(make(Math.floor(r() * suppliers), true));
    return { id: String(l), need, offers };
  });
  return { needs, suppliers: shops };
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

/**
 * The lines of the table about baskets: the quick answer and the proven one against pricing every offer and taking the
 * cheapest for each line, medians over ten lists; and what gap the quick answer leaves.
 */
export async function benchBaskets(add: Add): Promise<void> {
  const solve = await loadSolver();
  for (const lines of [20, 60, 200]) {
    const [floors, quicks, proofs]: [number[], number[], number[]] = [[], [], []];
    const gaps: number[] = [];
    let proven = 0;
    let worst = 0;
    for (let seed = 1; seed <= 10; seed++) {
      const { needs, suppliers } = shopping(lines, 8, 40, seed);
      const clock = async (work: () => unknown) => {
        const t = performance.now();
        await work();
        return performance.now() - t;
      };
      const floor = [];
      for (let i = 0; i < 5; i++) floor.push(await clock(() => greedy(needs)));
      floors.push(median(floor));
      quicks.push(
        await clock(() =>
          gaps.push(bestBasket(needs, suppliers, { effort: QUICK_EFFORT }).basket.proof?.gap ?? 1),
        ),
      );
      const ms = await clock(async () => {
        const basket = await proveBasket(
          needs,
          suppliers,
          async () => solve,
          60,
          () => performance.now(),
        );
        if (basket.proof?.isProven) proven++;
      });
      proofs.push(ms);
      worst = Math.max(worst, ms);
    }
    const floor = median(floors);
    add(
      `basket of ${lines} lines × 8 suppliers, at once`,
      "every offer priced, the cheapest taken",
      median(quicks),
      floor,
    );
    add(
      `basket of ${lines} lines × 8 suppliers, proven`,
      "every offer priced, the cheapest taken",
      median(proofs),
      floor,
    );
    console.log(
      `${lines} lines: gap at once ${(median(gaps) * 100).toFixed(4)} % (at most ${(Math.max(...gaps) * 100).toFixed(3)} %), ${proven} of 10 proven, the slowest in ${(worst / 1000).toFixed(2)} s`,
    );
  }
  // one list at forty quantities, each with its own best basket
  const one = shopping(60, 8, 40, 4);
  const single = await timed(() => bestBasket(one.needs, one.suppliers, { effort: QUICK_EFFORT }));
  const curve = await timed(() => {
    for (let q = 1; q <= 40; q++) {
      const { needs, suppliers } = shopping(60, 8, q * 5, 4);
      bestBasket(needs, suppliers, { effort: QUICK_EFFORT });
    }
  });
  add("the best basket at 40 quantities, 60 lines × 8 suppliers", "one of them", curve, single);
}

async function timed(work: () => unknown): Promise<number> {
  await work();
  const t = performance.now();
  await work();
  return performance.now() - t;
}

/** Every offer priced at its need, the cheapest taken: what the floor is. */
function greedy(needs: readonly Need[]): number {
  let total = 0;
  for (const n of needs) {
    let least = Number.POSITIVE_INFINITY;
    for (const o of n.offers) least = Math.min(least, cheapestBuy(o, n.need)?.cost ?? least);
    total += least;
  }
  return total;
}
