import type { Micros } from "../money/money.ts";
import type { Buy, Offer } from "./offer.ts";
/** A line to be bought. */
export interface Need {
  readonly id: string;
  readonly need: number;
  readonly offers: readonly Offer[];
  /** A person's choice of supplier; other offers are not used. */
  readonly pinned?: string;
}

/** What is bought for one line. */
export interface LineBuys {
  readonly line: string;
  readonly buys: readonly Buy[];
  readonly missing: number;
}

/** A whole basket over one or more suppliers. */
export interface Basket {
  /** In the order they were given. */
  readonly suppliers: readonly string[];
  readonly lines: readonly LineBuys[];
  readonly parts: Micros;
  /** Parcels' fees: shipping, small orders, handling. */
  readonly shipping: Micros;
  /** Duty and the like on the goods. */
  readonly duty: Micros;
  readonly total: Micros;
  /** Units that cannot be bought at all. */
  readonly missing: number;
  readonly shippingOf: Readonly<Record<string, Micros>>;
  readonly dutyOf: Readonly<Record<string, Micros>>;
  readonly partsOf: Readonly<Record<string, Micros>>;
  /** What is known of it as the cheapest one; left out for baskets that are only compared. */
  readonly proof?: Proof;
}

/** How far a basket is known to be the cheapest. */
export interface Proof {
  readonly isProven: boolean;
  /** Nothing is cheaper than this; the total itself when proven. */
  readonly bound: Micros;
  /** (total − bound) / total. */
  readonly gap: number;
}
