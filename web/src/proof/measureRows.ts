import {
  checkHouse,
  type FabOptions,
  fitOptions,
  type House,
  type LimitCheck,
  MEASURE_GROUPS,
  MEASURES,
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

/** All least values of a board with their places, each against every house; groups without a value are left out. */
export function measureGroups(
  m: Measure,
  houses: readonly House[],
  options: Partial<FabOptions>,
): MeasureGroup[] {
  const checks = houses.map((h) => checkHouse(h, m, fitOptions(h, options)));
  return MEASURE_GROUPS.map(([group, label]) => ({
    label,
    rows: MEASURES.filter((s) => s.group === group && s.unit === "mm").flatMap((s): MeasureRow[] => {
      const mm = s.valueOf(m, options);
      if (mm === undefined) return [];
      return [
        {
          key: s.key.replace(/Mm$/, ""),
          label: s.label,
          mm,
          places: s.placesOf(m),
          checks: checks.map((list) => list.find((c) => c.measure === s.key)),
        },
      ];
    }),
  })).filter((g) => g.rows.length > 0);
}
