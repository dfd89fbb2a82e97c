import type { LossKind } from "../../assembly/attrition.ts";
import type { Micros } from "../../money/money.ts";
import type { Need } from "../../sourcing/need.ts";
import type { Offer } from "../../sourcing/offer.ts";
import type { RunLot } from "./document.ts";
/** Pieces of one line on the way to what is needed. */
export interface NeedTerm {
  readonly line: string;
  /** For the boards started, or for the good ones where nothing is soldered. */
  readonly net: number;
  readonly kind: LossKind;
  readonly by: "hand" | "machine";
}

/** Pieces taken from a lot on the own shelf. */
export interface ShelfTake {
  readonly lot: RunLot;
  readonly qty: number;
  /** What they cost when they came, in the shop's currency. */
  readonly cost: Micros;
}

/** What one purchase is for: one line of the bill, or all that have its number. */
export interface RunNeed extends Need {
  /** Lines it is bought for, in the order of the bill; the first gives the id. */
  readonly lines: readonly string[];
  readonly terms: readonly NeedTerm[];
  /** All offers that may be bought for it; `offers` are those that can serve as it is mounted. */
  readonly listed: readonly Offer[];
  /** Lost on the way, over all its lines. */
  readonly lost: number;
  /** Goes as the leaders of strips in the house's feeders, one a strip. */
  readonly leader: number;
  /** Kept for rework. */
  readonly reserve: number;
  /** Pieces in all; `need` is what is left to buy after the shelf. */
  readonly whole: number;
  readonly shelf: readonly ShelfTake[];
}
