import { microsToNumber } from "../money/money.ts";
import type { RunDocument } from "./document/document.ts";
import { countUnpriced, withoutStockLimits } from "./orders/complete.ts";
import { rollUp } from "./roll-up.ts";
import type { BasketCache } from "./stage/result.ts";

/** One point of the cost curve. */
export interface CurvePoint {
  readonly quantity: number;
  readonly perGood: number;
  readonly total: number;
  readonly start: number;
  /** More is needed than is in stock: the known prices carried on as if there were more. */
  readonly isEstimate?: boolean;
  /** Whose quotations count here; where they do not hold their estimates do. */
  readonly quoted?: readonly string[];
  /** Things that nothing prices at this quantity, left out of the figures. */
  readonly unpriced?: number;
}

/**
 * Forty quantities from 1 to about twenty times the run, evenly spread on a logarithmic rule, the run's own among them.
 */
export function curveQuantities(goodBoards: number, count = 40): number[] {
  const top = Math.max(100, Math.min(5000, goodBoards * 20));
  const out = new Set<number>([goodBoards]);
  for (let k = 0; out.size < count && k < 400; k++) {
    const steps = count - 1;
    const v = Math.round(top ** ((k % (steps + 1)) / steps)) + Math.floor(k / (steps + 1));
    out.add(Math.max(1, v));
  }
  return [...out].sort((a, b) => a - b);
}

/** Of a curve some of whose points are priced by quotations and others not: at which quantities, and whose. */
export function quotedOf(
  curve: readonly CurvePoint[],
): { readonly quantities: readonly number[]; readonly names: readonly string[] } | undefined {
  const quoted = curve.filter((p) => p.quoted);
  if (quoted.length === 0 || quoted.length === curve.length) return undefined;
  return {
    quantities: quoted.map((p) => p.quantity),
    names: [...new Set(quoted.flatMap((p) => p.quoted!))],
  };
}

/** The curves as one, for what is said of all of them: at each quantity whatever holds for any way. */
export function togetherOf(curves: Iterable<readonly CurvePoint[]>): CurvePoint[] {
  const all = new Map<number, CurvePoint>();
  for (const curve of curves)
    for (const p of curve) {
      const old = all.get(p.quantity);
      const quoted = [...new Set([...(old?.quoted ?? []), ...(p.quoted ?? [])])];
      const unpriced = Math.max(old?.unpriced ?? 0, p.unpriced ?? 0);
      all.set(p.quantity, {
        ...p,
        ...(old?.isEstimate ? { isEstimate: true } : {}),
        ...(quoted.length > 0 ? { quoted } : {}),
        ...(unpriced > 0 ? { unpriced } : {}),
      });
    }
  return [...all.values()].sort((a, b) => a.quantity - b.quantity);
}

/** Baskets shared between points that differ in who solders alone: of the stock there is, and as if it went on. */
export interface PointCaches {
  readonly known: BasketCache;
  readonly endless: BasketCache;
}

/**
 * Cost per good board at one quantity, everything else as chosen. Beyond the stock the missing pieces would cost nothing:
 * there the known prices are carried on as if the stock went on, which is an estimate and called so.
 */
export function curvePoint(doc: RunDocument, quantity: number, shared?: PointCaches): CurvePoint {
  const at = { ...doc, goodBoards: quantity };
  const known = rollUp(at, { scope: "the best", notes: "none", ...(shared ? { cache: shared.known } : {}) });
  const isShort = known.unpriced.lines.length > 0;
  const r = isShort
    ? rollUp(withoutStockLimits(at), {
        scope: "the best",
        notes: "none",
        ...(shared ? { cache: shared.endless } : {}),
      })
    : known;
  const unpriced = countUnpriced(r);
  const quoted = [
    ...(r.house && r.orders.some((o) => o.quoted) ? [r.house.name] : []),
    ...(r.assembly?.quoted ? [r.assembly.house.name] : []),
  ];
  return {
    quantity,
    perGood: microsToNumber(r.perGood),
    total: microsToNumber(r.total),
    start: r.start,
    ...(isShort && r.unpriced.lines.length < known.unpriced.lines.length ? { isEstimate: true } : {}),
    ...(quoted.length > 0 ? { quoted: [...new Set(quoted)] } : {}),
    ...(unpriced > 0 ? { unpriced } : {}),
  };
}
