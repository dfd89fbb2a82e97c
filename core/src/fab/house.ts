import { type FinishKind, finishKind } from "./finish.ts";
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
  readonly options: {
    readonly thickness: readonly OptionValue[];
    readonly copper: readonly OptionValue[];
    readonly finish: readonly OptionValue[];
    readonly mask: readonly OptionValue[];
    readonly legend: readonly OptionValue[];
    /** Bevels of an edge with contacts, "none" among them; left out where the house makes none. */
    readonly bevel?: readonly OptionValue[];
  };
  readonly price: FabPrice;
  readonly assembly?: AssemblyPrice;
  /** What it holds; what it does not state is taken as usual. */
  readonly tolerances?: Tolerances;
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

/** One value an option may take, with what it adds. */
export interface OptionValue {
  readonly value: string;
  readonly label: string;
  /** Share added to the area rate, 0.2 for +20 %. */
  readonly uplift?: number;
  readonly setup?: string;
  readonly perDm2?: string;
  readonly days?: number;
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
  readonly lead: readonly { readonly days: number; readonly factor: number }[];
  readonly freightBase: string;
  readonly freightPerHalfKg: string;
  readonly transitDays: number;
  readonly delaySigmaDays: number;
  /** Boards are sold in steps of this many. */
  readonly step: number;
  readonly minPieces: number;
  /** Fixed sum the carrier takes for customs handling; "0" where no border lies between. */
  readonly importHandling: string;
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
}

/** The decisions of the Fab stage; values out of the house's lists. */
export interface FabOptions {
  readonly thickness: string;
  readonly copper: string;
  readonly finish: string;
  readonly mask: string;
  readonly legend: string;
  /** Degrees, or "none"; only at a house that has it. */
  readonly bevel?: string;
  /** Lead time in days, one of the house's. */
  readonly leadDays: number;
}

/** Decisions every house has a list for. */
export const FAB_OPTIONS = ["thickness", "copper", "finish", "mask", "legend"] as const;
export type FabOptionKey = (typeof FAB_OPTIONS)[number];
/** Decisions a house may have a list for. Where it has none, nothing of the kind is made there. */
export const EXTRA_OPTIONS = ["bevel"] as const;
export type ExtraOptionKey = (typeof EXTRA_OPTIONS)[number];
/** The value that means that nothing is done. */
export const NO_EXTRA = "none";

/** The house's value for a decision, or its first one where it does not have the one wished. */
export function optionOf(house: House, key: FabOptionKey, value: string): OptionValue {
  const list = house.options[key];
  return list.find((o) => o.value === value) ?? list[0]!;
}

/** Every value that is chosen, those of the lists only some houses have among them. */
export function chosenValues(house: House, options: FabOptions): OptionValue[] {
  return [
    ...FAB_OPTIONS.map((key) => optionOf(house, key, options[key])),
    ...EXTRA_OPTIONS.flatMap((key) => {
      const list = house.options[key] ?? [];
      const chosen = list.find((o) => o.value === options[key]) ?? list[0];
      return chosen ? [chosen] : [];
    }),
  ];
}

/** A wish that a house cannot fulfil, and what it has in its place. */
export interface Given {
  readonly key: keyof FabOptions;
  readonly wished: string;
  readonly got: string;
}

/** Takes the value a list has, else the one that means most nearly the same. */
function nearestOption(house: House, key: FabOptionKey, wish: string | undefined): string {
  const list = house.options[key];
  if (wish === undefined || list.some((o) => o.value === wish)) return wish ?? list[0]!.value;
  const mm = Number.parseFloat(wish);
  if ((key === "thickness" || key === "copper") && Number.isFinite(mm)) {
    const off = (o: OptionValue) => Math.abs(Number.parseFloat(o.value) - mm);
    return [...list].sort((a, b) => off(a) - off(b))[0]!.value;
  }
  if (key === "finish") {
    const asked = finishKind({ value: wish });
    const like = USES_OF_FINISH.find((use) => use(asked));
    const kinds = list.map((o) => [o, finishKind(o)] as const);
    const same = kinds.find(([, k]) => like?.(k));
    // a leaded finish is never taken for another
    return (same ?? kinds.find(([, k]) => !k.isLeaded) ?? kinds[0]!)[0].value;
  }
  return list[0]!.value;
}
/** Finishes that serve the same use, the narrower kind first. */
const USES_OF_FINISH: readonly ((k: FinishKind) => boolean)[] = [
  (k) => k.isGold,
  (k) => k.isFlat,
  (k) => k.isLevelled && !k.isLeaded,
  (k) => k.isLeaded,
];

/**
 * Brings options to what a house has, by meaning: of what it lacks, the nearest thickness, copper and lead time, a finish of
 * the same kind, else its first value.
 */
export function fitOptions(house: House, wish: Partial<FabOptions>): FabOptions {
  const pick = (key: FabOptionKey) => nearestOption(house, key, wish[key]);
  const leads = house.price.lead.map((l) => l.days);
  const off = (d: number) => Math.abs(d - wish.leadDays!);
  const leadDays = wish.leadDays === undefined ? leads[0]! : [...leads].sort((a, b) => off(a) - off(b))[0]!;
  const extras = EXTRA_OPTIONS.flatMap((key) => {
    const list = house.options[key] ?? [];
    const value = list.find((o) => o.value === wish[key]) ?? list[0];
    return value ? [[key, value.value] as const] : [];
  });
  return {
    thickness: pick("thickness"),
    copper: pick("copper"),
    finish: pick("finish"),
    mask: pick("mask"),
    legend: pick("legend"),
    ...Object.fromEntries(extras),
    leadDays,
  };
}

/**
 * What of the wishes a house does not have, with what it has in their place.
 * @param labels gives a value its name: of all houses, since the wished one is another's
 */
export function givenUp(
  house: House,
  wish: Partial<FabOptions>,
  labels: readonly House[] = [house],
): Given[] {
  const fit = fitOptions(house, wish);
  const name = (key: keyof FabOptions, value: string | number): string =>
    key === "leadDays"
      ? `${value} days`
      : ([house, ...labels].flatMap((h) => h.options[key] ?? []).find((o) => o.value === value)?.label ??
        String(value));
  return ([...FAB_OPTIONS, ...EXTRA_OPTIONS, "leadDays"] as const).flatMap((key) => {
    const wished = wish[key];
    // a house without a list does nothing of the kind, which is what "none" asks for
    const got = fit[key] ?? NO_EXTRA;
    return wished === undefined || wished === got
      ? []
      : [{ key, wished: name(key, wished), got: name(key, got) }];
  });
}
