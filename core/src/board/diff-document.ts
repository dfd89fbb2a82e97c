/** This board against another, layer by layer. */
export interface BoardDiff {
  readonly changed: readonly string[];
  readonly unchanged: readonly string[];
  readonly stencilReusable: Readonly<Record<string, boolean>>;
  /** What a stencil cut for the other board is worth for this one, by side; nothing where one of them has none. */
  readonly stencil: Readonly<Record<string, StencilVerdict>>;
  /** Where changed layers differ, the largest places first; none for a layer only one of the two has. */
  readonly places: Readonly<Record<string, readonly DiffPlace[]>>;
  /** How many places a layer has beside those that are kept; nothing where all are. */
  readonly more?: Readonly<Record<string, MorePlaces>>;
  /** Added to a place of the other board, it lies where it is on this one, mm. */
  readonly shift: readonly [number, number];
}

/** Places beside those that are kept. */
export interface MorePlaces {
  readonly count: number;
  /** Of very many differences only the largest were looked at. */
  readonly isAtLeast?: boolean;
}

/** Whether a stencil serves again: as it is, with tape over some openings, with paste by hand beside, or not. */
export interface StencilVerdict {
  readonly says: "reuse" | "tape" | "dispense" | "new";
  /** Openings there are now, and those that have one in the stencil. */
  readonly of: number;
  readonly matched: number;
  /** Openings that moved or are of another size; that have none; that the stencil has too many; of these over bare copper. */
  readonly changed: number;
  readonly missing: number;
  readonly extra: number;
  readonly harmful: number;
}

/** A place where two boards differ: the middle of what differs there, and its sides, mm. */
export interface DiffPlace {
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Of what is there now; changed where several things are. */
  readonly kind: "added" | "gone" | "moved" | "resized" | "changed";
  /** Of one hole, slot or opening: its width before and now, or how far it moved. */
  readonly wasMm?: number;
  readonly nowMm?: number;
  readonly byMm?: number;
}
