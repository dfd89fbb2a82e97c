/** What is looked at of an offer. */
export interface SeenOffer {
  readonly line: string;
  readonly part?: string;
  readonly stock: number;
  readonly breaks: readonly { readonly qty: number; readonly price: string | number }[];
}

/** What a supplier says otherwise than the time before, of one line. */
export interface OfferChange {
  readonly line: string;
  readonly kind: "listed" | "no longer listed" | "price" | "stock";
  /** Price each at about a hundred, or pieces in stock. */
  readonly was?: number;
  readonly now?: number;
}

/** Price each at a hundred pieces, or at the most the offer names below that. */
const priceNear = (o: SeenOffer): number => {
  const sorted = [...o.breaks].sort((a, b) => a.qty - b.qty);
  return Number((sorted.filter((b) => b.qty <= 100).at(-1) ?? sorted[0])?.price ?? 0);
};

/**
 * What changed between two answers of one supplier: lines it lists now or no longer, prices, and stock that fell or rose
 * by more than a fifth. Several offers of one line count by the cheapest.
 */
export function offerChanges(before: readonly SeenOffer[], after: readonly SeenOffer[]): OfferChange[] {
  const byLine = (list: readonly SeenOffer[]) => {
    const out = new Map<string, SeenOffer>();
    for (const o of list) {
      const key = `${o.line} ${o.part ?? ""}`;
      const old = out.get(key);
      if (!old || priceNear(o) < priceNear(old)) out.set(key, o);
    }
    return out;
  };
  const [a, b] = [byLine(before), byLine(after)];
  const out: OfferChange[] = [];
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const [x, y] = [a.get(key), b.get(key)];
    const { line } = (x ?? y)!;
    if (!x) out.push({ line, kind: "listed", now: priceNear(y!) });
    else if (!y) out.push({ line, kind: "no longer listed", was: priceNear(x) });
    else {
      if (priceNear(x) !== priceNear(y))
        out.push({ line, kind: "price", was: priceNear(x), now: priceNear(y) });
      if (Math.abs(y.stock - x.stock) > x.stock / 5)
        out.push({ line, kind: "stock", was: x.stock, now: y.stock });
    }
  }
  return out;
}
