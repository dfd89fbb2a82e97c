/** Classes of parts: each has its own list of what must match. */
export const PART_KINDS = [
  "resistor",
  "capacitor",
  "inductor",
  "bead",
  "diode",
  "lamp",
  "transistor",
  "regulator",
  "chip",
  "crystal",
  "connector",
  "fuse",
  "switch",
  "other",
] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** Where a part stands in its maker's plans. */
export const PART_STATES = [
  "unknown",
  "preview",
  "active",
  "not for new designs",
  "last call",
  "ended",
] as const;
export type PartState = (typeof PART_STATES)[number];

/** After what a part is fitted. */
export const FIT_AFTER = ["reflow", "wash", "test"] as const;
export type FitAfter = (typeof FIT_AFTER)[number];

/** A part of the shop's library: what is known of one maker number. */
export interface LibraryPart {
  readonly id: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly kind: PartKind;
  readonly package: string;
  /** Attribute key → text as typed, with its unit: {@link attributesOf}. */
  readonly params: Readonly<Record<string, string>>;
  readonly heightMm?: number;
  /** Of its body as it lies on the board, leads counted in. */
  readonly bodyLengthMm?: number;
  readonly bodyWidthMm?: number;
  readonly massMg?: number;
  /** How its direction is marked on the body, empty for a part without one. */
  readonly direction: string;
  readonly mount?: "machine" | "hand" | "none";
  /** Moisture level, 1 to 6 with letters as 2a or 5a. */
  readonly moisture: string;
  /** Of its pads that solder wets, all together: what holds it while it hangs. */
  readonly wettedMm2?: number;
  /** Greatest temperature its body stands. */
  readonly peakC?: number;
  /** What it draws from its supply, mA: as it stands there, and at the most. */
  readonly restMa?: number;
  readonly mostMa?: number;
  /** Greatest current that may go through it, mA: of a connector through each contact, of a regulator what it gives. */
  readonly carriesMa?: number;
  /** Pieces that are to lie on the shelf, whatever runs take. */
  readonly keepLeast?: number;
  /** Not before the board went through the heat, was washed, was tested. */
  readonly fitAfter?: FitAfter;
  /** What it closes can be opened only once. */
  readonly opensOnce?: boolean;
  /** References that are out of reach once it is on. */
  readonly covers?: readonly string[];
  readonly state: PartState;
  /** What the data sheet says that is easily missed. */
  readonly sheet: string;
  /** What the shop itself measured on it. */
  readonly measured: string;
  /** ISO date on which it was tried on the bench. */
  readonly triedOn?: string;
  readonly tried: string;
  /** Found bad, until it is cleared: carried to every product that has it. */
  readonly suspect?: Suspicion;
  /** A supplier named it for what a line without a number asks; nobody here looked at it. */
  readonly found?: boolean;
}

export interface Suspicion {
  /** ISO date. */
  readonly since: string;
  readonly because: string;
  readonly by: string;
}

/** What was decided of a part in the place of another. */
export interface Alternate {
  /** Key of what it replaces: {@link lineKey}. */
  readonly original: string;
  /** Id of the library part. */
  readonly part: string;
  /** As it stands for this run. */
  readonly state: "proposed" | "approved" | "refused";
  /** Approved, but for other runs than this. */
  readonly isElsewhere?: boolean;
  readonly isForAllRuns?: boolean;
  readonly because: string;
  readonly by: string;
  /** ISO date. */
  readonly at: string;
}
