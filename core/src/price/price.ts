import Big from "big.js";
import { AppError } from "../errors.ts";
import { type DataShape, fields, money, pricingFields } from "../shape/index.ts";

/** One way of selling. Shares are plain numbers: 0.049 for 4.9 %. */
export interface Channel {
  readonly name: string;
  readonly feeShare?: number;
  readonly feeFixed?: string | number;
  /** What the share is taken of: what the buyer pays with tax, where left out, or what is received before fees. */
  readonly feeOn?: "gross" | "net";
  /** A reseller's discount on the price without tax. */
  readonly discount?: number;
  /** The price shown contains the tax; it does where left out. */
  readonly taxIncluded?: boolean;
  /** Wished for, of what is received. */
  readonly margin?: number;
  /** The price as it is shown already: figures are of it then. */
  readonly list?: string | number;
}

/** What one costs, and how it is sold. */
export interface Pricing {
  readonly unitCost: string | number;
  readonly packing?: string | number;
  readonly warranty?: string | number;
  readonly shipping?: string | number;
  readonly taxRate?: number;
  /** Endings a shown price may have: 0.90, 0.50, 0.00. */
  readonly grid?: readonly (string | number)[];
  readonly channels: readonly Channel[];
  readonly index?: { readonly then: number; readonly now: number; readonly old: string | number };
}

/** A channel's price; money as decimal text with four places, the price point with two. */
export interface ChannelPrice {
  readonly name: string;
  /** Shown price at which nothing is left; not there where fees alone take all of it. */
  readonly floor?: string;
  /** Received, after discount and tax. */
  readonly net?: string;
  /** Shown, with tax. */
  readonly gross?: string;
  readonly pricePoint?: string;
  readonly atPoint?: {
    readonly net: string;
    readonly fees: string;
    readonly contribution: string;
    readonly margin?: number;
    readonly markup?: number;
  };
  readonly impossible?: string;
}

/** The document `price/1`. */
export interface PriceDocument {
  readonly kobbin: "price/1";
  readonly channels: readonly ChannelPrice[];
  readonly real?: {
    readonly old: string;
    readonly now?: string;
    readonly change?: number;
    readonly toHold: string;
  };
}

/** What may be priced. */
export const priceShape: DataShape = fields({ unitCost: money, ...pricingFields(1) });

/** A quotient of exact decimals, rounded half away from zero. */
function over(a: Big, b: Big, places: number): Big {
  const Places = Big();
  Places.DP = places;
  Places.RM = Big.roundHalfUp;
  return new Big(new Places(a).div(new Places(b)).toFixed());
}
const written = (a: Big, b: Big): string => over(a, b, 4).toFixed(4);
const exact = (v: string | number | undefined, usual = 0): Big => new Big(String(v ?? usual));

/**
 * Prices of a product by channel (domain.md 8.3). With C what one costs, m the margin wished for, f and F the fee, v the tax:
 * net = (C + F) / (1 − m − f·k), k = 1 + v for a fee on what the buyer pays with tax, else 1. Shown is
 * net / (1 − d), with tax where the channel shows it. Everything is exact until it is written.
 *
 * @throws AppError DOCUMENT_INVALID naming what is wrong
 */
export function priceDocument(given: unknown): PriceDocument {
  const wrong = priceShape(given, "");
  if (wrong) throw new AppError("DOCUMENT_INVALID", `The prices: ${wrong}.`, "docs/cli.md shows the form.");
  const p = given as Pricing;
  const cost = [p.unitCost, p.packing, p.warranty, p.shipping].reduce<Big>(
    (n, x) => n.plus(exact(x)),
    exact(0),
  );
  const withTax = exact(p.taxRate).plus(1);
  const endings = (p.grid ?? []).map((e) => exact(e)).sort((a, b) => a.cmp(b));
  const priced = p.channels.map((c) => priceOf(c, cost, withTax, endings));
  return {
    kobbin: "price/1",
    channels: priced.map((x) => x.told),
    ...(p.index ? { real: realOf(p.index, priced[0]!.shown) } : {}),
  };
}

/** @returns what is told of a channel, and its shown price where it has one */
function priceOf(
  c: Channel,
  cost: Big,
  withTax: Big,
  endings: readonly Big[],
): { told: ChannelPrice; shown: Big | undefined } {
  const fee = exact(c.feeShare).times((c.feeOn ?? "gross") === "gross" ? withTax : 1);
  const fixed = exact(c.feeFixed);
  const kept = exact(1).minus(exact(c.discount));
  const inShown = c.taxIncluded === false ? exact(1) : withTax;
  const base = cost.plus(fixed);
  const left = exact(1).minus(fee);
  const floor = left.gt(0) ? { floor: written(base.times(inShown), left.times(kept)) } : {};
  /** Everything at a shown price: net = shown · kept / inShown. */
  const at = (shown: Big): ChannelPrice["atPoint"] & object => {
    const net = shown.times(kept);
    const fees = fee.times(net).plus(fixed.times(inShown));
    const contribution = net.minus(fees).minus(cost.times(inShown));
    return {
      net: written(net, inShown),
      fees: written(fees, inShown),
      contribution: written(contribution, inShown),
      ...(net.gt(0) ? { margin: over(contribution, net, 4).toNumber() } : {}),
      ...(cost.gt(0) ? { markup: over(contribution, cost.times(inShown), 4).toNumber() } : {}),
    };
  };
  if (c.list !== undefined) {
    const shown = exact(c.list);
    return {
      told: {
        name: c.name,
        ...floor,
        net: written(shown.times(kept), inShown),
        gross: written(shown.times(withTax), inShown),
        pricePoint: shown.toFixed(2),
        atPoint: at(shown),
      },
      shown,
    };
  }
  const room = left.minus(exact(c.margin));
  if (!room.gt(0))
    return {
      told: {
        name: c.name,
        ...floor,
        impossible: left.gt(0)
          ? "Fees and the margin wished for take all that is received."
          : "The fee alone takes all that is received.",
      },
      shown: undefined,
    };
  const point = pointAbove(base.times(inShown), room.times(kept), endings);
  return {
    told: {
      name: c.name,
      ...floor,
      net: written(base, room),
      gross: written(base.times(withTax), room.times(kept)),
      pricePoint: point.toFixed(2),
      atPoint: at(point),
    },
    shown: point,
  };
}

/** The first price with one of the endings at or above a/b; without endings the first of two places. Compared exactly. */
function pointAbove(a: Big, b: Big, endings: readonly Big[]): Big {
  const reaches = (price: Big) => price.times(b).gte(a);
  if (endings.length === 0) {
    const cents = a.div(b).round(2, Big.roundDown);
    return reaches(cents) ? cents : cents.plus("0.01");
  }
  const whole = a.div(b).round(0, Big.roundDown);
  // a quotient rounded up to a whole number would begin one too high
  for (let n = whole.gt(0) ? whole.minus(1) : whole; ; n = n.plus(1)) {
    const found = endings.find((e) => reaches(n.plus(e)));
    if (found) return n.plus(found);
  }
}

/** A price of then and of now in the money of then: nominal × index then / index now. */
function realOf(
  { then, now, old }: NonNullable<Pricing["index"]>,
  shown: Big | undefined,
): NonNullable<PriceDocument["real"]> {
  const [before, after, was] = [exact(then), exact(now), exact(old)];
  return {
    old: was.toFixed(4),
    ...(shown
      ? {
          now: written(shown.times(before), after),
          ...(was.gt(0)
            ? { change: over(shown.times(before).minus(was.times(after)), was.times(after), 4).toNumber() }
            : {}),
        }
      : {}),
    toHold: written(was.times(after), before),
  };
}
