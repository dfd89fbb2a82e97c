/** A number that is to lie on the shelf, and what of it does. */
export interface Kept {
  readonly mpn: string;
  /** Pieces that are never to be fewer. */
  readonly least: number;
  /** Pieces that may be used, and how many of them runs have reserved. */
  readonly here: number;
  readonly reserved: number;
}

/** What there is too little of on the shelf. */
export interface Low extends Kept {
  /** Pieces nobody reserved; below 0 where more is reserved than lies there. */
  readonly free: number;
  /** So many bring it back to its least. */
  readonly order: number;
}

/** Numbers of which fewer lie free than are to, those first of which the smallest share is left. */
export const lowOf = (kept: readonly Kept[]): Low[] =>
  kept
    .map((k) => ({ ...k, free: k.here - k.reserved }))
    .filter((k) => k.free < k.least)
    .map((k) => ({ ...k, order: k.least - k.free }))
    .sort((a, b) => a.free / a.least - b.free / b.least || (a.mpn < b.mpn ? -1 : 1));
