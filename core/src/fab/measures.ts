import type { Measure } from "../board/measure-document.ts";
import type { Place } from "../board/worst.ts";
import type { HouseLimits } from "./house.ts";
import type { FabOptions } from "./options.ts";

export type MeasureGroupKey = "copper" | "holes" | "legend";
/** Groups in the order in which they are shown. */
export const MEASURE_GROUPS: readonly (readonly [MeasureGroupKey, string])[] = [
  ["copper", "Copper"],
  ["holes", "Holes"],
  ["legend", "Mask and silkscreen"],
];

/**
 * A measure of a board: the one place for its words, its unit and how a house's limit counts. Page, notes, house dialog,
 * command line and sheets read it here.
 */
export interface MeasureSpec {
  readonly key: string;
  /** As a sentence has it: "the smallest track". */
  readonly label: string;
  /** Where there is little room, beside a number. */
  readonly short: string;
  readonly group: MeasureGroupKey;
  readonly unit: "mm" | "ratio";
  readonly digits: number;
  /** A limit is not to be gone below, or not above. */
  readonly is: "at least" | "at most";
  /** The limit that counts; none where no house states one. */
  readonly limit?: keyof HouseLimits;
  /** A breach stops the house; else it wants a look, since houses usually make the board and mend the layer. */
  readonly isHard: boolean;
  readonly valueOf: (m: Measure, options: Partial<FabOptions>) => number | undefined;
  readonly placesOf: (m: Measure) => readonly Place[];
}

type LeastKey = Extract<keyof Measure, `min${string}Mm`>;
type Limited = readonly [limit?: keyof HouseLimits, isHard?: "hard"];

/** A least length that measuring gives by its own key, with its places. */
const least = (
  key: LeastKey,
  group: MeasureGroupKey,
  label: string,
  short: string,
  [limit, isHard]: Limited = [],
): MeasureSpec => ({
  key,
  label,
  short,
  group,
  unit: "mm",
  digits: 3,
  is: "at least",
  ...(limit ? { limit } : {}),
  isHard: isHard === "hard",
  valueOf: (m) => m[key] as number | undefined,
  placesOf: (m) =>
    (m as unknown as Record<string, readonly Place[] | undefined>)[key.replace(/Mm$/, "At")] ?? [],
});

/** All measures that are set against houses or shown with their places. A new one is a line here. */
export const MEASURES: readonly MeasureSpec[] = [
  least("minTrackMm", "copper", "smallest track", "smallest track", ["minTrackMm", "hard"]),
  least("minNetSpaceMm", "copper", "smallest gap between nets", "smallest gap", ["minNetSpaceMm", "hard"]),
  least("minSpaceMm", "copper", "smallest gap between copper areas", "gap between areas"),
  least("minNeckMm", "copper", "narrowest place in a fill", "narrowest in a fill", ["minTrackMm"]),
  least("minCopperToEdgeMm", "copper", "copper to the board's edge", "copper to edge", ["minCopperToEdgeMm"]),
  least("minCopperToCutoutMm", "copper", "copper to a cut-out", "copper to cut-out", ["minCopperToEdgeMm"]),
  least("minCopperToSlotMm", "copper", "copper to an unplated slot", "copper to slot", ["minCopperToEdgeMm"]),
  least("minPitchMm", "copper", "finest pitch", "finest pitch"),
  least("minBoardNeckMm", "copper", "narrowest place of the board", "narrowest of the board"),
  least("minHoleMm", "holes", "smallest hole", "smallest hole", ["minHoleMm", "hard"]),
  least("minAnnularMm", "holes", "smallest ring around a hole", "smallest ring", ["minAnnularMm", "hard"]),
  least("minHoleToHoleMm", "holes", "hole wall to hole wall", "hole to hole", ["minHoleToHoleMm", "hard"]),
  least("minDrillToForeignCopperMm", "holes", "hole wall to other copper", "hole to other copper", [
    "minDrillToForeignCopperMm",
  ]),
  least("minNpthToCopperMm", "holes", "unplated hole to copper", "unplated to copper", ["minNpthToCopperMm"]),
  least("minHoleToEdgeMm", "holes", "hole wall to the board's edge", "hole to edge", ["minHoleToEdgeMm"]),
  {
    key: "slots",
    label: "narrowest slot",
    short: "narrowest slot",
    group: "holes",
    unit: "mm",
    digits: 3,
    is: "at least",
    limit: "minSlotMm",
    isHard: true,
    valueOf: (m) => lowest([...m.slots, ...m.routedPaths].map((s) => s.widthMm)),
    placesOf: () => [],
  },
  {
    key: "aspect",
    label: "thickness to smallest plated hole",
    short: "thickness to hole",
    group: "holes",
    unit: "ratio",
    digits: 2,
    is: "at most",
    limit: "maxAspect",
    isHard: true,
    valueOf: (m, { thickness }) => {
      const hole = lowest(m.holes.filter((h) => h.plated).map((h) => h.diameterMm));
      return hole === undefined || thickness === undefined ? undefined : Number.parseFloat(thickness) / hole;
    },
    placesOf: () => [],
  },
  least("minMaskWebMm", "legend", "narrowest mask web", "mask web", ["minMaskWebMm"]),
  least("minMaskExpansionMm", "legend", "mask opening beyond its pad", "mask beyond pad"),
  least("minOpeningToCopperMm", "legend", "mask opening to other copper", "mask to other copper"),
  least("minLegendLineMm", "legend", "thinnest silkscreen line", "silkscreen line", ["minLegendLineMm"]),
  least("minLegendTextMm", "legend", "smallest silkscreen text", "silkscreen text", ["minLegendTextMm"]),
  least("minLegendToOpeningMm", "legend", "ink to a mask opening", "ink to mask opening"),
];

const lowest = (list: readonly number[]): number | undefined =>
  list.length === 0 ? undefined : Math.min(...list);

/** A measure's line of the table. @throws where nothing has that key */
export function measureSpec(key: string): MeasureSpec {
  const found = MEASURES.find((s) => s.key === key);
  if (!found) throw new Error(`no measure ${key}`);
  return found;
}

/** How a limit of a house is written down. */
export interface LimitSpec {
  readonly label: string;
  /** A length, a ratio, or two lengths of a board's sides. */
  readonly kind: "mm" | "ratio" | "sides";
}

const of = (key: string): LimitSpec => {
  const { short, unit } = measureSpec(key);
  return { label: short, kind: unit };
};

/** Every limit of a profile: a new one does not compile before it stands here. The dialog and the check of profiles read it. */
export const LIMITS = {
  minTrackMm: of("minTrackMm"),
  minNetSpaceMm: of("minNetSpaceMm"),
  minHoleMm: of("minHoleMm"),
  minAnnularMm: of("minAnnularMm"),
  minCopperToEdgeMm: of("minCopperToEdgeMm"),
  minMaskWebMm: of("minMaskWebMm"),
  minLegendLineMm: of("minLegendLineMm"),
  minLegendTextMm: of("minLegendTextMm"),
  minSlotMm: of("slots"),
  minHoleToHoleMm: of("minHoleToHoleMm"),
  minDrillToForeignCopperMm: of("minDrillToForeignCopperMm"),
  minNpthToCopperMm: of("minNpthToCopperMm"),
  minHoleToEdgeMm: of("minHoleToEdgeMm"),
  maxAspect: of("aspect"),
  minBoardMm: { label: "smallest board", kind: "sides" },
  maxBoardMm: { label: "largest board", kind: "sides" },
} as const satisfies Record<keyof HouseLimits, LimitSpec>;

/** What a limit is called on a sheet, by the measure it limits. */
export const measureOfLimit = (limit: keyof HouseLimits): string => LIMITS[limit].label;
