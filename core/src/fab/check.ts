import type { Measure } from "../board/measure-document.ts";
import type { Place } from "../board/worst.ts";
import type { FabOptions, House, HouseLimits } from "./house.ts";

/** One measure against one limit of one house. */
export interface LimitCheck {
  readonly measure: string;
  readonly label: string;
  readonly value: number;
  readonly limit: number;
  readonly unit: "mm" | "layers" | "ratio";
  /** value − limit, in the direction that is good; negative is a breach. */
  readonly margin: number;
  readonly level: "fine" | "tight" | "look" | "cannot";
  readonly at?: Place;
}

/** Key of the measure, its words, whether a breach stops the house, and the limit that counts where it has no key of its own. */
const MEASURES: readonly (readonly [
  keyof Measure & LimitKey,
  string,
  isHard: boolean,
  (keyof HouseLimits & LimitKey)?,
])[] = [
  ["minTrackMm", "smallest track", true],
  ["minNetSpaceMm", "smallest gap between nets", true],
  ["minHoleMm", "smallest hole", true],
  ["minAnnularMm", "smallest ring around a hole", true],
  ["minHoleToHoleMm", "hole wall to hole wall", true],
  ["minDrillToForeignCopperMm", "hole wall to other copper", false],
  ["minNpthToCopperMm", "unplated hole to copper", false],
  ["minHoleToEdgeMm", "hole wall to the board's edge", false],
  ["minCopperToEdgeMm", "copper to the board's edge", false],
  ["minCopperToCutoutMm", "copper to a cut-out", false, "minCopperToEdgeMm"],
  ["minCopperToSlotMm", "copper to an unplated slot", false, "minCopperToEdgeMm"],
  ["minNeckMm", "narrowest place in a fill", false, "minTrackMm"],
  ["minMaskWebMm", "narrowest mask web", false],
  ["minLegendLineMm", "thinnest silkscreen line", false],
  ["minLegendTextMm", "smallest silkscreen text", false],
];
type LimitKey = `min${string}Mm`;

/**
 * A board's measures against a house's limits. A hard limit broken means the house cannot make it; a soft one (edge,
 * mask web, silkscreen) wants a look, since houses usually make the board and mend the layer.
 */
export function checkHouse(house: House, m: Measure, options: FabOptions): LimitCheck[] {
  const out: LimitCheck[] = [];
  const rate = (margin: number, limit: number, isHard: boolean): LimitCheck["level"] => {
    if (margin < -1e-6) return isHard ? "cannot" : "look";
    return limit > 0 && margin / limit < 0.05 ? "tight" : "fine";
  };
  for (const [key, label, isHard, other] of MEASURES) {
    const value = m[key] as number | undefined;
    const limit = house.limits[(other ?? key) as keyof HouseLimits] as number | undefined;
    if (value === undefined || limit === undefined) continue;
    const at = (m as unknown as Record<string, readonly Place[] | undefined>)[key.replace(/Mm$/, "At")]?.[0];
    out.push({
      measure: key,
      label,
      value,
      limit,
      unit: "mm",
      margin: value - limit,
      level: rate(value - limit, limit, isHard),
      ...(at ? { at } : {}),
    });
  }
  const slot = [...m.slots, ...m.routedPaths].reduce(
    (w, s) => Math.min(w, s.widthMm),
    Number.POSITIVE_INFINITY,
  );
  if (Number.isFinite(slot))
    out.push({
      measure: "slots",
      label: "narrowest slot",
      value: slot,
      limit: house.limits.minSlotMm,
      unit: "mm",
      margin: slot - house.limits.minSlotMm,
      level: rate(slot - house.limits.minSlotMm, house.limits.minSlotMm, true),
    });
  const { widthMm: w, heightMm: h } = m.outline ?? {};
  if (w !== undefined && h !== undefined) {
    const [long, short] = [Math.max(w, h), Math.min(w, h)];
    const max = house.limits.maxBoardMm;
    const min = house.limits.minBoardMm;
    const over = Math.min(Math.max(...max) - long, Math.min(...max) - short);
    if (over < 0)
      out.push({
        measure: "outline",
        label: "board larger than the house's sheet",
        value: long,
        limit: Math.max(...max),
        unit: "mm",
        margin: over,
        level: "cannot",
      });
    if (short < Math.min(...min))
      out.push({
        measure: "outline",
        label: "board smaller than the house takes singly",
        value: short,
        limit: Math.min(...min),
        unit: "mm",
        margin: short - Math.min(...min),
        level: "look",
      });
  }
  if (
    m.copperLayers > 0 &&
    !house.layers.includes(m.copperLayers) &&
    !(m.copperLayers === 1 && house.layers.includes(2))
  )
    out.push({
      measure: "copperLayers",
      label: "copper layers",
      value: m.copperLayers,
      limit: Math.max(...house.layers),
      unit: "layers",
      margin: -1,
      level: "cannot",
    });
  const plated = m.holes
    .filter((x) => x.plated)
    .reduce((d, x) => Math.min(d, x.diameterMm), Number.POSITIVE_INFINITY);
  if (Number.isFinite(plated)) {
    const aspect = Number.parseFloat(options.thickness) / plated;
    out.push({
      measure: "aspect",
      label: "thickness to smallest plated hole",
      value: Math.round(aspect * 100) / 100,
      limit: house.limits.maxAspect,
      unit: "ratio",
      margin: house.limits.maxAspect - aspect,
      level: aspect > house.limits.maxAspect ? "cannot" : "fine",
    });
  }
  return out;
}

/** The check with the least headroom relative to its limit. */
export function tightest(checks: readonly LimitCheck[]): LimitCheck | undefined {
  const order = { cannot: 0, look: 1, tight: 2, fine: 3 };
  return [...checks]
    .filter((c) => c.unit === "mm")
    .sort((a, b) => order[a.level] - order[b.level] || a.margin / a.limit - b.margin / b.limit)[0];
}
