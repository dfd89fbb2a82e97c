import type { AssemblyPrice, FabPrice, FoilPrice, OwnBench } from "./house.ts";

/**
 * What stands in a field of a profile: an amount of money, a number, a whole number; amounts by number of copper layers;
 * steps of the area price, lead times; what feeders take; ways to send a parcel; degrees by package.
 */
export type HouseFieldKind =
  | "amount"
  | "number"
  | "whole"
  | "by layers"
  | "tiers"
  | "lead"
  | "takes"
  | "services"
  | "turns"
  | "zeros";

/** A field of a profile, whole: its words on the page, what may stand in it, and between which bounds. */
export interface HouseField {
  readonly label: string;
  readonly kind: HouseFieldKind;
  readonly least?: number;
  readonly most?: number;
  /** A house may leave it unstated. */
  readonly isOptional?: true;
}

/** Every field of the price model: a new one does not compile before it stands here. Dialog and check of profiles read it. */
export const PRICE_FIELDS = {
  setup: { label: "set-up", kind: "by layers" },
  perDm2: { label: "a dm²", kind: "by layers" },
  minDm2: { label: "least area billed, dm²", kind: "number", most: 1e6 },
  tiers: { label: "steps of the area price", kind: "tiers" },
  testSetup: { label: "test, set-up", kind: "amount" },
  testPerPiece: { label: "test, a piece", kind: "amount" },
  freeHolesPerDm2: { label: "holes free, a dm²", kind: "number", most: 1e6 },
  per1000Holes: { label: "a thousand holes more", kind: "amount" },
  lead: { label: "lead times", kind: "lead" },
  freightBase: { label: "freight, base", kind: "amount" },
  freightPerHalfKg: { label: "freight, half a kilogram", kind: "amount" },
  transitDays: { label: "days on the way", kind: "number", most: 1000 },
  delaySigmaDays: { label: "usual delay, days", kind: "number", most: 1000 },
  step: { label: "sold in steps of", kind: "whole", least: 1, most: 1e6 },
  minPieces: { label: "least pieces", kind: "whole", most: 1e6 },
  importHandling: { label: "import handling", kind: "amount" },
  services: { label: "other ways to send the parcel", kind: "services", isOptional: true },
} as const satisfies Record<keyof FabPrice, HouseField>;

/** Every field of an assembly price, likewise. */
export const ASSEMBLY_FIELDS = {
  setupPerSide: { label: "set-up, a side", kind: "amount" },
  stencilPerSide: { label: "stencil, a side", kind: "amount" },
  perUniquePart: { label: "a different part", kind: "amount" },
  perSpecialPart: { label: "on top in a tray, tube, loose", kind: "amount", isOptional: true },
  perJoint: { label: "a joint", kind: "amount" },
  perHandJoint: { label: "a joint by hand", kind: "amount" },
  minCharge: { label: "least charge", kind: "amount" },
  days: { label: "days", kind: "number", most: 1000 },
  takes: { label: "its feeders take", kind: "takes", isOptional: true },
  leaderMm: { label: "strip lost at a feeder, mm", kind: "number", most: 2000, isOptional: true },
  turns: { label: "packages it expects turned", kind: "turns", isOptional: true },
  zeros: { label: "packages looked at for it", kind: "zeros", isOptional: true },
} as const satisfies Record<keyof AssemblyPrice, HouseField>;

/** Every field of an own bench, likewise. */
export const BENCH_FIELDS = {
  setupMin: { label: "set-up, min", kind: "number", most: 10_000 },
  perBoardMin: { label: "a board, min", kind: "number", most: 10_000 },
  secondsAHole: { label: "a hole, s", kind: "number", most: 10_000 },
  yield: { label: "share that comes out whole", kind: "number", least: 0.05, most: 1 },
} as const satisfies Record<keyof OwnBench, HouseField>;

/** Every field of a foil's price that is one number, likewise. */
export const FOIL_FIELDS = {
  loose: { label: "a loose foil", kind: "amount" },
  framed: { label: "a foil in a frame", kind: "amount" },
  secondSide: { label: "other side on the same foil", kind: "amount" },
  freight: { label: "freight", kind: "amount" },
  days: { label: "days", kind: "number", most: 1000 },
} as const satisfies Record<Exclude<keyof FoilPrice, "largestMm">, HouseField>;
