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

/** Answer of GET /suppliers/:key/offers?mpn=…&mpn=… */
export interface FeedAnswer {
  readonly offers: readonly FeedOffer[];
  readonly notListed: readonly string[];
}
