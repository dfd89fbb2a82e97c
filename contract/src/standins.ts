import type { FabRequest, OrderState } from "@kobbin/core";

/** What a supplier's feed answers for one part number. */
export interface FeedOffer {
  readonly mpn: string;
  readonly stock: number;
  readonly moq: number;
  readonly multiple: number;
  readonly packaging: string;
  /** Charged once when anything is bought of it, such as winding a reel. */
  readonly fee?: string;
  readonly currency: string;
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
}

/** A supplier as its feed introduces it. */
export interface FeedSupplier {
  readonly key: string;
  readonly name: string;
  readonly currency: string;
  readonly shipping: string;
  readonly freeFrom?: string;
  readonly daysMin: number;
  readonly daysMax: number;
}

/** A part as a supplier's list describes it; what it does not state is left out. */
export interface FeedPart {
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly kind: string;
  readonly package: string;
  /** Attribute → text with its unit, as { value: "10 kΩ", tolerance: "1 %" }. */
  readonly params: Readonly<Record<string, string>>;
}

/** A question for any part that does something: POST /suppliers/:key/search { rules: FeedRule[] } */
export interface FeedRule {
  readonly id: string;
  readonly kind: string;
  readonly package: string;
  readonly params: Readonly<Record<string, string>>;
}

/** Answer to such questions: parts the supplier thinks of, each with what it offers. Whether they do is for the asker. */
export interface FeedFound {
  readonly found: readonly {
    readonly id: string;
    readonly parts: readonly { readonly part: FeedPart; readonly offers: readonly FeedOffer[] }[];
  }[];
}

/** Answer of GET /suppliers/:key/offers?mpn=…&mpn=… */
export interface FeedAnswer {
  readonly offers: readonly FeedOffer[];
  readonly notListed: readonly string[];
}

/** What a house is asked over its feed. */
export type HouseRequest = Pick<FabRequest, "boards" | "options">;
/** What it answers: for all boards together, landed. */
export interface HouseQuote {
  readonly total: string;
  readonly currency: string;
  /** Until they are at the door. */
  readonly days: number;
  readonly validUntil: string;
  /** What it asks back after a look at the files. */
  readonly question?: string;
}

/** What a house is sent: PUT /houses/:key/orders/:reference. Put again under its reference it is the same order. */
export interface HouseOrder extends HouseRequest {
  /** ISO date. */
  readonly sentOn: string;
  /** Files of the package it needs; their content goes with them until the house has it. */
  readonly files: readonly { readonly path: string; readonly sha256: string; readonly base64?: string }[];
  /** What it asked when it quoted, and was answered: it need not ask again. */
  readonly known?: { readonly question: string; readonly answer: string };
  /** What it was told since, oldest first. */
  readonly told: readonly { readonly state: OrderState; readonly on: string; readonly words: string }[];
}
/** What it says of it; 404 where it does not have the files. */
export interface HouseOrderAnswer {
  readonly number: string;
  /** Day on which it is here, once that is promised. */
  readonly expectedOn?: string;
  /** Everything it said of this order so far, each under a key of its own. */
  readonly said: readonly {
    readonly key: string;
    readonly state: OrderState;
    readonly on: string;
    readonly words: string;
  }[];
}

/** What a meter shows: GET /meters/:key/reading?unit=mA. A stand-in is told what its probes would be near; a real one is not. */
export interface MeterAnswer {
  /** As its display has it: "3.312", "OL"; with its unit beside. */
  readonly shows: string;
  readonly unit: string;
}
