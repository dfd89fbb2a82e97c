import type { Measure } from "../board/measure-document.ts";
import type { Place } from "../board/worst.ts";
import { BAND_KEYS, type BandKey, type House, type HouseLimits } from "./house.ts";
import { bandsOf, limitsOf } from "./limits.ts";
import { MEASURES, type MeasureSpec } from "./measures.ts";
import type { FabOptions } from "./options.ts";

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
  /** It is made, and costs more: the share on top of the area's price, and the step it lies below. */
  readonly extra?: { readonly below: number; readonly uplift: number };
  readonly at?: Place;
}

/**
 * A board's measures against a house's limits. A hard limit broken means the house cannot make it; a soft one (edge,
 * mask web, silkscreen) wants a look, since houses usually make the board and mend the layer.
 */
export function checkHouse(house: House, m: Measure, options: FabOptions): LimitCheck[] {
  const out: LimitCheck[] = [];
  const rate = (margin: number, limit: number, { isHard, is }: MeasureSpec): LimitCheck["level"] => {
    if (margin < -1e-6) return isHard ? "cannot" : "look";
    return is === "at least" && limit > 0 && margin / limit < 0.05 ? "tight" : "fine";
  };
  const limits = limitsOf(house, m.copperLayers, options);
  const bands = bandsOf(house, fineOf(m));
  for (const spec of MEASURES) {
    const value = spec.valueOf(m, options);
    const limit = spec.limit === undefined ? undefined : (limits[spec.limit] as number | undefined);
    if (value === undefined || limit === undefined) continue;
    const margin = spec.is === "at least" ? value - limit : limit - value;
    const at = spec.placesOf(m)[0];
    const band = bands.find((b) => b.limits.some((k) => k === spec.limit) && value < b.below - 1e-9);
    out.push({
      measure: spec.key,
      label: spec.label,
      value: spec.unit === "ratio" ? Math.round(value * 100) / 100 : value,
      limit,
      unit: spec.unit,
      margin,
      level: rate(margin, limit, spec),
      ...(band && margin >= -1e-6 ? { extra: { below: band.below, uplift: band.uplift ?? 0 } } : {}),
      ...(at ? { at } : {}),
    });
  }
  out.push(...checkSides(limits, m));
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
  return out;
}

/** The board's sides against the sheet it has to lie on, and against the smallest that is taken singly. */
function checkSides(limits: HouseLimits, m: Measure): LimitCheck[] {
  const out: LimitCheck[] = [];
  const { widthMm: w, heightMm: h } = m.outline ?? {};
  const { maxBoardMm: max, minBoardMm: min } = limits;
  if (w === undefined || h === undefined) return out;
  const [long, short] = [Math.max(w, h), Math.min(w, h)];
  const over = max === undefined ? 0 : Math.min(Math.max(...max) - long, Math.min(...max) - short);
  if (max && over < 0)
    out.push({
      measure: "outline",
      label: "board larger than the house makes",
      value: long,
      limit: Math.max(...max),
      unit: "mm",
      margin: over,
      level: "cannot",
    });
  if (min && short < Math.min(...min))
    out.push({
      measure: "outline",
      label: "board smaller than the house takes singly",
      value: short,
      limit: Math.min(...min),
      unit: "mm",
      margin: short - Math.min(...min),
      level: "look",
    });
  return out;
}

/** What of a board a price may rise with: measures a house may have steps for. */
export function fineOf(m: Measure): Partial<Record<BandKey, number>> {
  return Object.fromEntries(
    MEASURES.flatMap((s) => {
      const key = BAND_KEYS.find((k) => k === s.limit);
      const value = key && s.valueOf(m, {});
      return key && value !== undefined ? [[key, value]] : [];
    }),
  );
}

/** What of a board would stop a house, and the house does not say from where on: nothing tells that it can make it. */
export function notJudged(house: House, m: Measure, options: FabOptions): MeasureSpec[] {
  const limits = limitsOf(house, m.copperLayers, options);
  return MEASURES.filter(
    (s) =>
      s.isHard &&
      s.limit !== undefined &&
      limits[s.limit] === undefined &&
      s.valueOf(m, options) !== undefined,
  );
}

/** What a check is called where there is little room: its measure's short name, or what it says where it is of the sides or layers. */
export const shortOf = (c: LimitCheck): string => MEASURES.find((s) => s.key === c.measure)?.short ?? c.label;

/** The check with the least headroom relative to its limit. */
export function tightest(checks: readonly LimitCheck[]): LimitCheck | undefined {
  const order = { cannot: 0, look: 1, tight: 2, fine: 3 };
  return [...checks]
    .filter((c) => c.unit === "mm")
    .sort((a, b) => order[a.level] - order[b.level] || a.margin / a.limit - b.margin / b.limit)[0];
}

/** Room to a limit as a share of it: 0 at the limit, 1 at twice as good, below 0 beyond it; undefined where the limit is 0. */
export const roomOf = (c: Pick<LimitCheck, "margin" | "limit">): number | undefined =>
  c.limit > 0 ? c.margin / c.limit : undefined;

const RANK = { cannot: 0, look: 1, tight: 2, fine: 3 } as const;

/** Checks with those that cannot be first, then by how little room is left. */
export const checksByRoom = <C extends LimitCheck>(checks: readonly C[]): C[] =>
  [...checks].sort(
    (a, b) =>
      Number(RANK[b.level] === 0) - Number(RANK[a.level] === 0) ||
      (roomOf(a) ?? Number.POSITIVE_INFINITY) - (roomOf(b) ?? Number.POSITIVE_INFINITY),
  );
