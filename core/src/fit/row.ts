import type { FitResult } from "./fit.ts";

type Spot = readonly [number, number];

/** What a board must go with. The board's own side is picked, kept as a place from its lower left corner, and measured. */
export type FitSpec =
  | {
      readonly kind: "slot";
      readonly at: Spot;
      /** The tab's thickness, or readings of it. */
      readonly tabMm?: number;
      readonly tabReadingsMm?: readonly number[];
      readonly tabTolMm: number;
      /** How wide the tab is: its corners must clear the slot's round ends. Not judged where it is left out. */
      readonly tabWidthMm?: number;
    }
  | { readonly kind: "edge"; readonly allowsMm: readonly [number, number] }
  | {
      readonly kind: "outline";
      readonly across: "width" | "height";
      readonly openingMm: number;
      readonly openingTolMm: number;
    }
  | {
      readonly kind: "pattern";
      readonly holes: readonly Spot[];
      /** Posts in the order of the holes, in their own drawing's coordinates. */
      readonly posts: readonly { readonly x: number; readonly y: number; readonly diameterMm: number }[];
      readonly postTolMm: number;
    }
  | {
      readonly kind: "pin";
      /** One of the holes; all of its tool are meant. */
      readonly at: Spot;
      /** Diameter of a round pin, side of a square one. */
      readonly pinMm: number;
      readonly pinTolMm: number;
      readonly shape: "round" | "square";
    }
  | {
      /** Edge contacts in a socket: its opening, and how wide its own contacts are. */
      readonly kind: "contacts";
      readonly side: "top" | "bottom";
      readonly openingMm: number;
      readonly openingTolMm: number;
      readonly contactMm: number;
    }
  | {
      /** A round place that is meant to be something, and the side it is seen from. */
      readonly kind: "intended";
      readonly at: Spot;
      readonly diameterMm: number;
      readonly side: "top" | "bottom";
      readonly what: Intended;
    }
  | {
      /** The height there is over a side, in the whole or in a field of it from the board's corner: x0, y0, x1, y1. */
      readonly kind: "lid";
      readonly side: "top" | "bottom";
      readonly roomMm: number;
      readonly roomTolMm: number;
      readonly area?: readonly [number, number, number, number];
    }
  | {
      /** Another board of the product that lies over this one. */
      readonly kind: "facing";
      readonly other: string;
      /** Side of this board it lies over, and its own side that looks here. */
      readonly side: "top" | "bottom";
      readonly faces: "top" | "bottom";
      /** Between the boards' faces. */
      readonly gapMm: number;
      readonly gapTolMm: number;
      /** Where the lower left corner of its box comes, from this board's, and how it is turned first. */
      readonly at: Spot;
      readonly turnDeg: 0 | 90 | 180 | 270;
      /** References of the connectors that join the two. */
      readonly joinedBy?: readonly string[];
    }
  | {
      readonly kind: "stack";
      /** Boards of this thickness in the gap, and what else is in it. */
      readonly boards: number;
      readonly spacers: readonly { readonly mm: number; readonly tolMm: number }[];
      readonly gapMm: number;
      readonly gapTolMm: number;
    };

/** What a place of the board may be meant to be. */
export type Intended = "solder" | "contact" | "copper" | "window" | "drawing" | "cutout";

/** One condition of such a place: what is asked, whether the files do it, and what they have there. */
export interface Condition {
  readonly asks: string;
  readonly holds: boolean;
  readonly found: string;
}

/** A row of a product's fit sheet. */
export interface FitRow {
  readonly id: string;
  readonly label: string;
  /** Name of the board it is about, where the product has several. */
  readonly board?: string;
  readonly spec: FitSpec;
  /** Greatest play that is wanted, mm: a firm fit. Any play is right where it is left out. */
  readonly playMm?: number;
}

/** A row judged on a board. */
export interface FitJudged {
  readonly row: FitRow;
  readonly verdict: FitResult["verdict"] | "loose" | "unknown";
  readonly result?: FitResult;
  /** The board's side as measured: "slot 1.6 × 13.6 mm". */
  readonly board: string;
  /** Of a place that is meant to be something: what is asked of every layer. */
  readonly conditions?: readonly Condition[];
  /** Why nothing can be said, or what the files do instead. */
  readonly because?: string;
  /** The smallest change of the board that always fits. */
  readonly mend?: string;
  /** Contacts that may slip in a socket, to be drawn. */
  readonly slip?: {
    readonly pitchMm: number;
    readonly widthMm: number;
    /** Of the socket's own contacts. */
    readonly contactMm: number;
    /** At most, each way. */
    readonly mostMm: number;
  };
  /** Where it is on the board, mm as in the files. */
  readonly at?: { readonly x: number; readonly y: number };
}

/** A length of a fit sheet as it is said: to a micrometre, without zeros. */
export const mmWords = (v: number): string => String(Math.round(v * 1000) / 1000);
