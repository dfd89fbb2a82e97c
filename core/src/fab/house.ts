import type { ExtraOptionKey, FabOptionKey, OptionKey } from "./options.ts";
import type { Tolerances } from "./tolerances.ts";

/** What a fabrication house can make, what it charges, how long it takes. Money is decimal text in its currency. */
export interface House {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly currency: string;
  /** Day the profile was last checked, ISO date. */
  readonly checkedOn: string;
  readonly limits: HouseLimits;
  readonly layers: readonly number[];
  /** Lists of what it offers; a list it leaves out means that it does the plain thing of {@link PLAIN} alone. */
  readonly options: Readonly<Record<FabOptionKey, readonly OptionValue[]>> &
    Readonly<Partial<Record<ExtraOptionKey, readonly OptionValue[]>>>;
  /** Limits of boards of so many layers, where they are not those of every board. */
  readonly stacks?: readonly StackLimits[];
  /** What is made at an extra price: a measure below a step. */
  readonly bands?: readonly PriceBand[];
  readonly price: FabPrice;
  readonly assembly?: AssemblyPrice;
  /** It is the shop's own bench: boards are etched here, by own hours. */
  readonly bench?: OwnBench;
  /** It cuts foils, at these prices. */
  readonly foils?: FoilPrice;
  /** What it holds; what it does not state is taken as usual. */
  readonly tolerances?: Tolerances;
  /** Its order sheet's own word for a decision. */
  readonly sheet?: Readonly<Partial<Record<OptionKey, string>>>;
  /** Where its order form takes remarks: what the field is called, and how many letters it holds. */
  readonly remarks?: { readonly label: string; readonly most: number };
  /** Boards it usually sends beyond what was ordered, a share of them. */
  readonly usualOvers?: number;
  /** What it takes off for a while. Planning never counts it. */
  readonly promotions?: readonly Promotion[];
  /** Of a house begun from what it quoted: for how many pieces. What others cost is a guess, and said to be one. */
  readonly quotedFor?: readonly number[];
}

/** Limits carry the key of the measure they limit. One that a house does not state is left out; nothing is judged by it. */
export interface HouseLimits {
  readonly minTrackMm?: number;
  readonly minNetSpaceMm?: number;
  readonly minHoleMm?: number;
  readonly minAnnularMm?: number;
  readonly minCopperToEdgeMm?: number;
  readonly minMaskWebMm?: number;
  readonly minLegendLineMm?: number;
  readonly minSlotMm?: number;
  readonly minHoleToHoleMm?: number;
  readonly minDrillToForeignCopperMm?: number;
  readonly minNpthToCopperMm?: number;
  readonly minHoleToEdgeMm?: number;
  readonly minLegendTextMm?: number;
  readonly maxAspect?: number;
  readonly minBoardMm?: readonly [number, number];
  readonly maxBoardMm?: readonly [number, number];
}

/** Own work on boards that are made here. */
export interface OwnBench {
  /** Print, bath, cleaning up: once a run, minutes. */
  readonly setupMin: number;
  readonly perBoardMin: number;
  readonly secondsAHole: number;
  /** Share of boards that come out whole, by what the shop has seen. */
  readonly yield: number;
}

/** What a house asks for foils. */
export interface FoilPrice {
  readonly loose: string;
  readonly framed: string;
  /** On top for the other side's openings on the same foil. */
  readonly secondSide: string;
  readonly freight: string;
  readonly days: number;
  /** Area that can be cut, mm. */
  readonly largestMm: readonly [number, number];
}

/** A house that makes boards; one that only cuts foils has no layers. */
export const makesBoards = (house: Pick<House, "layers">): boolean => house.layers.length > 0;

/** A price for once. */
export interface Promotion {
  readonly label: string;
  /** For whom and for what, in the house's words. */
  readonly conditions: string;
  /** Share taken off the price of the boards. */
  readonly share: number;
  /** ISO date of its last day; open where it is not said. */
  readonly until?: string;
}

/** Limits a layer stack has otherwise than the house's others. */
export interface StackLimits {
  readonly layers: readonly number[];
  readonly limits: HouseLimits;
}

/** What a price may have on top. */
export interface Extra {
  /** Share added to the area rate, 0.2 for +20 %. */
  readonly uplift?: number;
  readonly setup?: string;
  readonly perDm2?: string;
  readonly days?: number;
}

/** A measure below a step is made, at an extra price; of several steps of one class the lowest that is reached counts. */
export interface PriceBand extends Extra {
  /** Measures that are one class together, such as tracks and gaps: the smallest of them counts. */
  readonly limits: readonly BandKey[];
  readonly below: number;
}
/** Measures a house may ask more for, the smaller they are. */
export const BAND_KEYS = [
  "minTrackMm",
  "minNetSpaceMm",
  "minHoleMm",
  "minAnnularMm",
  "minMaskWebMm",
  "minSlotMm",
] as const;
export type BandKey = (typeof BAND_KEYS)[number];

/** One value an option may take, with what it adds. */
export interface OptionValue extends Extra {
  readonly value: string;
  readonly label: string;
  /** What the house's own order sheet calls it, where that is another word. */
  readonly called?: string;
  /** It exists only beside these values of other options, all of them. */
  readonly when?: readonly Condition[];
  /** Limits that are narrower while it is chosen. */
  readonly limits?: HouseLimits;
}

/** An option that has one of some values. */
export interface Condition {
  readonly key: OptionKey;
  readonly in: readonly string[];
}

/** The price model of domain.md 5.5. */
export interface FabPrice {
  /** By number of copper layers. */
  readonly setup: Readonly<Record<string, string>>;
  readonly perDm2: Readonly<Record<string, string>>;
  readonly minDm2: number;
  /** Factor on the area price from an area on, ascending. */
  readonly tiers: readonly { readonly fromDm2: number; readonly factor: number }[];
  readonly testSetup: string;
  readonly testPerPiece: string;
  readonly freeHolesPerDm2: number;
  readonly per1000Holes: string;
  readonly lead: readonly {
    readonly days: number;
    readonly factor: number;
    /** It exists only beside these values of other options. */
    readonly when?: readonly Condition[];
  }[];
  readonly freightBase: string;
  readonly freightPerHalfKg: string;
  readonly transitDays: number;
  readonly delaySigmaDays: number;
  /** Boards are sold in steps of this many. */
  readonly step: number;
  readonly minPieces: number;
  /** Fixed sum the carrier takes for customs handling; "0" where no border lies between. */
  readonly importHandling: string;
  /** Other ways to send the parcel than the ordinary one of the fields above. */
  readonly services?: readonly FreightService[];
}

/** A way to send a parcel. */
export interface FreightService {
  readonly value: string;
  readonly label: string;
  readonly base: string;
  readonly perHalfKg: string;
  readonly transitDays: number;
  readonly delaySigmaDays: number;
}

/** The assembly price model of domain.md 7.5. */
export interface AssemblyPrice {
  readonly setupPerSide: string;
  readonly stencilPerSide: string;
  readonly perUniquePart: string;
  /** On top for each different part that comes in a tray, a tube or loose. Nothing where left out. */
  readonly perSpecialPart?: string;
  readonly perJoint: string;
  readonly perHandJoint: string;
  readonly minCharge: string;
  readonly days: number;
  /** What its feeders take: strips as cut, or reels only. Strips where left out. */
  readonly takes?: "strips" | "reels";
  /** Length of a strip that is lost at the feeder, mm. */
  readonly leaderMm?: number;
  /** Degrees it expects packages turned against the layout, counter-clockwise: its zero lies otherwise. */
  readonly turns?: Readonly<Record<string, number>>;
  /**
   * Packages whose direction was looked at for this house (“SOT-23”, “SOT-23 bottom”) → where pin 1 lies from the middle at
   * 0° in what goes out to it, degrees counter-clockwise from the right; -1 where no pads told it.
   */
  readonly zeros?: Readonly<Record<string, number>>;
}
