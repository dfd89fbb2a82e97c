import { costOf, goodsOf, type Pick } from "./line/cover.ts";
import type { OpenCase } from "./open-case.ts";
import type { Problem } from "./problem.ts";
import { evaluate, type Improver, type Solution } from "./solution.ts";

/**
 * Baskets between one that misses a floor and one that passes it: line by line from the one to the other, the cheapest
 * lift first, and what a patient person makes of those near the floor.
 *
 * @param s the supplier whose floor it is
 */
export function between(
  p: Problem,
  improver: Improver,
  c: OpenCase,
  s: number,
  short: readonly Pick[] | undefined,
  enough: readonly Pick[] | undefined,
): Solution[] {
  const out: Solution[] = [];
  if (short) out.push(improver.improve(evaluate(p, short), c.open, 12));
  if (!short || !enough) return out;
  const at = (pick: Pick) =>
    pick.reduce((n, b) => (b.source.supplier === s ? n + goodsOf(b.source, b.qty) : n), 0);
  const changes = short
    .map((a, l) => ({ l, a, b: enough[l]! }))
    .filter(
      ({ a, b }) =>
        a !== b &&
        (a.length !== b.length || a.some((x, i) => x.source !== b[i]!.source || x.qty !== b[i]!.qty)),
    )
    .map((x) => {
      const cost = costOf(x.b) - costOf(x.a);
      const lift = Math.max(1, at(x.b) - at(x.a));
      return { ...x, ratio: cost / lift };
    })
    .sort((x, y) => x.ratio - y.ratio || x.l - y.l);
  const picks = [...short];
  let polished = 0;
  for (const { l, b } of changes) {
    picks[l] = b;
    const now = evaluate(p, picks);
    out.push(now);
    if (now.spend[s]! >= c.floors[s]!) {
      out.push(improver.improve(now, c.open, 12));
      break;
    }
    if (c.floors[s]! - now.spend[s]! < 2 * p.tiers[s]![0]!.fee && ++polished <= 8)
      out.push(improver.improve(now, c.open, 4));
  }
  return out;
}
