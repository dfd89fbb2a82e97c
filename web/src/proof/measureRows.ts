import {
  checkHouse,
  type FabOptions,
  fitOptions,
  type House,
  type LimitCheck,
  type Measure,
  type Place,
} from "@kobbin/core";

/** One measure of the table: where it was found, and what each house says of it. */
export interface MeasureRow {
  readonly key: string;
  readonly label: string;
  readonly mm: number;
  readonly places: readonly Place[];
  readonly checks: readonly (LimitCheck | undefined)[];
}

export interface MeasureGroup {
  readonly label: string;
  readonly rows: readonly MeasureRow[];
}

const GROUPS: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
  [
    "Copper",
    [
      ["minTrack", "smallest track"],
      ["minNetSpace", "gap between nets"],
      ["minSpace", "gap between islands"],
      ["minNeck", "narrowest place in a fill"],
      ["minCopperToEdge", "copper to the edge"],
      ["minCopperToCutout", "copper to a cut-out"],
      ["minCopperToSlot", "copper to a slot"],
      ["minPitch", "finest pitch"],
      ["minBoardNeck", "narrowest place of the board"],
    ],
  ],
  [
    "Holes",
    [
      ["minHole", "smallest hole"],
      ["minAnnular", "ring around a hole"],
      ["minDrillToForeignCopper", "hole to other copper"],
      ["minNpthToCopper", "unplated hole to copper"],
      ["minHoleToHole", "hole to hole"],
      ["minHoleToEdge", "hole to the edge"],
    ],
  ],
  [
    "Mask and silkscreen",
    [
      ["minMaskWeb", "mask web"],
      ["minMaskExpansion", "opening beyond its pad"],
      ["minLegendLine", "thinnest line"],
      ["minLegendText", "smallest text"],
      ["minOpeningToCopper", "opening to other copper"],
      ["minLegendToOpening", "ink to an opening"],
    ],
  ],
];

/** All least values of a board with their places, each against every house; groups without a value are left out. */
export function measureGroups(
  m: Measure,
  houses: readonly House[],
  options: Partial<FabOptions>,
): MeasureGroup[] {
  const checks = houses.map((h) => checkHouse(h, m, fitOptions(h, options)));
  const values = m as unknown as Record<string, number | readonly Place[] | undefined>;
  return GROUPS.map(([label, rows]) => ({
    label,
    rows: rows.flatMap(([key, words]): MeasureRow[] => {
      const mm = values[`${key}Mm`];
      if (typeof mm !== "number") return [];
      const places = values[`${key}At`];
      return [
        {
          key,
          label: words,
          mm,
          places: Array.isArray(places) ? places : [],
          checks: checks.map((list) => list.find((c) => c.measure === `${key}Mm`)),
        },
      ];
    }),
  })).filter((g) => g.rows.length > 0);
}
