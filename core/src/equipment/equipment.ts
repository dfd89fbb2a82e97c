import type { EQUIPMENT_KINDS, TIP_SHAPES } from "../shape/equipment.ts";

export type EquipmentKind = (typeof EQUIPMENT_KINDS)[number];

/** A tip of an iron: its shape, and how wide it is, mm. */
export interface Tip {
  readonly shape: (typeof TIP_SHAPES)[number];
  readonly mm: number;
}

/** What is known of a machine; what is left out is not known, and nothing is taken for it. */
export interface EquipmentFacts {
  /** Room for boards, mm. */
  readonly spaceMm?: readonly [number, number];
  /** Room above them, mm. */
  readonly heightMm?: number;
  /** Hottest it gets: its face, its air or its tip, °C. */
  readonly mostC?: number;
  /** Who leads its heat: a profile, a thermostat that holds one temperature, or somebody's eye. */
  readonly control?: "profile" | "thermostat" | "eye";
  readonly tips?: readonly Tip[];
  /** What it may be filled with. */
  readonly cleans?: "water" | "solvent" | "both";
  readonly magnifies?: number;
  /** What it is called where machines are asked over the network: what it shows is read from there. */
  readonly asked?: string;
  /** Of what goes off: its alloy, the day on its label, when it was opened, and for how many days it is good from then. */
  readonly alloy?: "lead" | "silver" | "bismuth";
  readonly keepsUntil?: string;
  readonly openedOn?: string;
  readonly openDays?: number;
  /** What it shows is to be held against a standard by this day. */
  readonly trueUntil?: string;
}

/** A machine or a tool of the shop. */
export interface Equipment {
  readonly id: string;
  readonly kind: EquipmentKind;
  readonly name: string;
  readonly facts: EquipmentFacts;
  /** In the shop's own words. */
  readonly can: string;
  readonly cannot: string;
  /** Worked so far, and how long it or its element, tip or bulb lasts. */
  readonly hours: number;
  readonly lastsHours?: number;
  readonly state: "ready" | "broken";
}

/** What each kind is called, and what is asked of it. */
export const EQUIPMENT = {
  plate: { label: "hot plate", facts: ["spaceMm", "mostC", "control"] },
  oven: { label: "oven", facts: ["spaceMm", "heightMm", "mostC", "control"] },
  air: { label: "hot air", facts: ["mostC"] },
  iron: { label: "iron", facts: ["mostC", "tips"] },
  eyes: { label: "magnifier, lens or microscope", facts: ["magnifies"] },
  washer: { label: "bath or washer", facts: ["spaceMm", "cleans"] },
  programmer: { label: "programmer", facts: [] },
  supply: { label: "bench supply", facts: ["trueUntil"] },
  meter: { label: "meter", facts: ["asked", "trueUntil"] },
  printer: { label: "label printer", facts: [] },
  scanner: { label: "code scanner", facts: [] },
  paste: { label: "solder paste", facts: ["alloy", "keepsUntil", "openedOn", "openDays"] },
  wire: { label: "solder wire", facts: ["alloy", "keepsUntil"] },
  flux: { label: "flux", facts: ["keepsUntil", "openedOn", "openDays"] },
  cleaner: { label: "washing fluid", facts: ["cleans", "keepsUntil", "openedOn", "openDays"] },
  other: { label: "other", facts: [] },
} as const satisfies Record<
  EquipmentKind,
  { readonly label: string; readonly facts: readonly (keyof EquipmentFacts)[] }
>;

/** What is said of a machine at a step: it will do, it will not, or something that decides it is not known. */
export interface ToolVerdict {
  readonly name: string;
  readonly can: "yes" | "no" | "unknown";
  readonly words: readonly string[];
}

/** Why a machine does nothing at all; empty where it works. */
export const brokenWords = (e: Equipment): string[] => (e.state === "broken" ? ["is out of order"] : []);

/** What is to be minded with a machine that works: it is past its hours, or what its shop wrote down that it cannot. */
export function mindWords(e: Equipment): string[] {
  const spent = e.lastsHours !== undefined && e.hours >= e.lastsHours;
  return [
    ...(spent ? [`has worked ${e.hours} of the ${e.lastsHours} h it lasts`] : []),
    ...(e.cannot === "" ? [] : [`cannot: ${e.cannot}`]),
  ];
}

/**
 * Machines of a kind that work and whose day to be checked is past, where all of the kind are: with one that is known to be
 * true, or of which no day is said, nothing is told.
 */
export function overdue(
  list: readonly Equipment[],
  kind: EquipmentKind,
  today: string,
): readonly Equipment[] {
  const of = list.filter((e) => e.kind === kind && e.state === "ready");
  return of.every((e) => e.facts.trueUntil !== undefined && e.facts.trueUntil < today) ? of : [];
}

/** Most boards of a size that lie on an area beside each other, all one way round, `gapMm` apart. */
export function boardsOn(
  [w, d]: readonly [number, number],
  [length, width]: readonly [number, number],
  gapMm = 2,
): number {
  const many = (a: number, b: number) =>
    Math.max(0, Math.floor((w + gapMm) / (a + gapMm))) * Math.max(0, Math.floor((d + gapMm) / (b + gapMm)));
  return Math.max(many(length, width), many(width, length));
}
