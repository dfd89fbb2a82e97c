import type { Micros } from "../money/money.ts";
import type { OddWay } from "./odd.ts";

/** Kinds of steps, in the order in which they follow each other where nothing else decides. */
export const STEP_KINDS = [
  "kit",
  "program-before",
  "print",
  "place",
  "heat",
  "turn",
  "iron",
  "trim",
  "clean",
  "depanel",
  "mechanical",
  "inspect",
  "program",
  "test",
  "seal",
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** What is done in a step, in words for who does it. */
export const WORK_WORDS: Readonly<Record<StepKind, string>> = {
  kit: "lay out the parts",
  "program-before": "program before it goes on",
  print: "print the paste",
  place: "place",
  heat: "melt",
  turn: "turn over",
  iron: "solder by iron",
  trim: "cut the leads",
  clean: "wash",
  depanel: "take boards off their sheets",
  mechanical: "fit by hand, without solder",
  inspect: "look over, mend",
  program: "program",
  test: "test",
  seal: "close and pack",
};

export type Side = "top" | "bottom";

/** Orders within what is allowed. */
export const SCHOOLS = ["low", "dense", "cheap", "bill", "path"] as const;
export type School = (typeof SCHOOLS)[number];

/** A part of the work: what is known of it decides when its turn is. */
export interface WorkPart {
  /** As it is called in the steps: its reference, with its board where there are several. */
  readonly name: string;
  readonly ref: string;
  /** Index of its board. */
  readonly board: number;
  readonly line: string;
  readonly side: Side;
  /** The placement file does not say on which side it sits. */
  readonly isSideGuessed?: boolean;
  readonly how: "paste" | "iron" | "mechanical";
  /** It could be soldered by iron: no balls, no pad out of reach. */
  readonly canIron: boolean;
  readonly isThrough: boolean;
  readonly isPolarised: boolean;
  readonly joints: number;
  readonly heightMm?: number;
  readonly massMg?: number;
  readonly wettedMm2?: number;
  /** Moisture level 3 or worse, or a level nobody can read. */
  readonly isMoist: boolean;
  /** Greatest temperature its body stands, °C. */
  readonly peakC?: number;
  /** The heat of the paste is too much for its body: what it stands, and what the heat needs, °C. */
  readonly tooHot?: { readonly standsC: number; readonly needsC: number };
  readonly fitAfter?: "reflow" | "wash" | "test";
  /** What it closes can be opened only once. */
  readonly opensOnce: boolean;
  /** It is soldered unlike the others. */
  readonly odd?: OddWay;
  /** References it hides, on its own board. */
  readonly covers: readonly string[];
  /** What it costs, all pieces of it in a product; 0 where no price is known. */
  readonly micros: number;
  /** Own minutes of the run to place, to solder, to fit it. */
  readonly minutes: number;
  /** Of those, to cut its leads. */
  readonly trimMinutes: number;
  /** Expected defects of a board that come from it. */
  readonly defects: number;
  readonly xMm?: number;
  readonly yMm?: number;
}

/** A part a house puts on; what goes through the board stands out of both sides. */
export type GivenPart = Pick<
  WorkPart,
  "name" | "ref" | "board" | "covers" | "side" | "isThrough" | "massMg" | "wettedMm2"
>;

/** A board of the work. */
export interface WorkBoard {
  readonly name: string;
  /** Minutes of the run to set up and print, and to melt, for each side that gets paste. */
  readonly printMinutes: number;
  readonly heatMinutes: number;
  /** Minutes of the run to set up the iron. */
  readonly ironMinutes: number;
}

/** Everything the order of work is made from. */
export interface Work {
  readonly boards: readonly WorkBoard[];
  readonly parts: readonly WorkPart[];
  /** Parts a house puts on: they are there before anything here begins. */
  readonly given: readonly GivenPart[];
  readonly programAt: readonly string[];
  readonly testAt: readonly string[];
  /** Programmed loose, before they are placed. */
  readonly programLoose: readonly string[];
  /** Minutes of the run; a step with `undefined` there is not in it. */
  readonly minutes: {
    readonly kit: number;
    readonly depanel?: number;
    readonly clean?: number;
    readonly inspect?: number;
    /** Of those to look over, the ones to mend what is found: they are no cost of looking. */
    readonly mend?: number;
    readonly test?: number;
    readonly seal?: number;
  };
  /** Ids of lines without references, which belong to the closing. */
  readonly loose: readonly string[];
  readonly school: School;
  /** Lines in one's own order; those that are not in it follow. */
  readonly own?: readonly string[];
  /** What heats: a plate melts only boards that lie flat. */
  readonly heater?: "plate" | "oven" | "air";
  /** Products that are started, what a minute costs, the share of defects that can be mended. */
  readonly start: number;
  readonly minuteMicros: number;
  readonly repairable: number;
  /** Own minutes to open a bag and lay its parts out. */
  readonly bagMinutes: number;
}

/** One step of the order. */
export interface Step {
  readonly n: number;
  readonly kind: StepKind;
  /** Index of its board; left out where it is of all. */
  readonly board?: number;
  readonly side?: Side;
  /** Its parts are soldered unlike the others. */
  readonly odd?: OddWay;
  readonly refs: readonly string[];
  /** Its lines in the order in which they are taken. */
  readonly lines: readonly { readonly line: string; readonly refs: readonly string[] }[];
  /** Of the whole run. */
  readonly minutes: number;
  /** Numbers of the steps directly before. */
  readonly after: readonly number[];
  /** What is out of reach from here on. */
  readonly covers: readonly string[];
  /** At a gate: what is lost if what it looks at were found one gate later: boards searched for their defect, and boards spoilt. */
  readonly protects?: { readonly searched: Micros; readonly spoilt: Micros; readonly all: Micros };
  /** Why it stands here and not earlier, and what was taken for granted. */
  readonly because: readonly string[];
}

/** A change that frees what cannot be; it was tried. */
export interface Remedy {
  readonly kind: "by-hand" | "program-loose" | "test-elsewhere" | "heater";
  readonly names: readonly string[];
  readonly words: string;
}

/** Rules that cannot all hold. */
export interface Conflict {
  readonly kind: RuleKey | "falls" | "too-hot" | "given-covers" | "printed-over" | "plate" | "itself";
  readonly refs: readonly string[];
  readonly text: string;
  readonly remedies: readonly Remedy[];
}

/** Rules about what comes after what. Those with a rank give way where not all can hold, the least first. */
export const RULES = {
  process: {},
  "iron-last": {},
  "program-loose": {},
  "reach-first": { rank: 2 },
  "opens-once": { rank: 3 },
  "at-program": { rank: 1 },
  "at-test": { rank: 1 },
  "program-open": { rank: 4 },
  "test-open": { rank: 4 },
  "after-test": { rank: 5 },
  "after-wash": { rank: 6 },
  "moist-last": { rank: 7 },
} as const satisfies Record<string, { readonly rank?: number }>;
export type RuleKey = keyof typeof RULES;

export interface WorkOrder {
  readonly steps: readonly Step[];
  readonly conflicts: readonly Conflict[];
  /** Side that is soldered first, by board with two. */
  readonly first: ReadonlyMap<number, Side>;
}

/** Most mass a wetted area holds below in a second heat, g/mm² (domain.md 7.6: a trade rule). */
export const MOST_BELOW = 0.0465;

/** Mass over wetted area, g/mm²; undefined where either is not known. */
export const loadOf = (p: Pick<WorkPart, "massMg" | "wettedMm2">): number | undefined =>
  p.massMg === undefined || p.wettedMm2 === undefined || p.wettedMm2 <= 0
    ? undefined
    : p.massMg / 1000 / p.wettedMm2;
