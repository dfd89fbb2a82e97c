/** Something that feeds a net: from outside over a contact, a cell, or a part that is said to give. */
export interface PowerSource {
  readonly ref: string;
  readonly pin: string;
  readonly net: number;
  /** What it is called: the other side's name, "cell". */
  readonly what: string;
  readonly volts?: number;
  readonly isCell: boolean;
}
/** A part between two rails: what it lets through. */
export interface PowerLink {
  readonly ref: string;
  readonly kind: "diode" | "switch" | "link" | "fuse" | "coil" | "resistor" | "converter";
  /** The rail at its other end. */
  readonly to: number;
}
/** Nets that are one for supply: joined by nothing but coils, fuses and resistors of an ohm or less. */
export interface PowerRail {
  readonly names: readonly string[];
  readonly nets: readonly number[];
  readonly volts?: number;
  /** Its volts are what its name says: nothing that is known feeds it. */
  readonly isByName?: true;
  readonly sources: readonly PowerSource[];
  readonly links: readonly PowerLink[];
  /** Parts that draw from it, without capacitors and what only passes it on. */
  readonly loads: readonly string[];
  /** Parts within it that would not keep two sources apart. */
  readonly through: readonly string[];
}
/** What of the supplies is dangerous or missing. */
export interface PowerFinding {
  readonly kind: "two-sources" | "cell-fed" | "no-return" | "nobody-loads" | "nobody-feeds";
  readonly text: string;
  readonly do: string;
  readonly at?: { readonly layer: string; readonly x: number; readonly y: number };
}
export interface PowerMap {
  readonly rails: readonly PowerRail[];
  readonly findings: readonly PowerFinding[];
}
