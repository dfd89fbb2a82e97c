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
