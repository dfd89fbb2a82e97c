import { type FitResult, judgeFit } from "./fit.ts";

/**
 * How wide a tab may be that goes into a slot with round ends: its corners meet the arcs before the slot's ends.
 *
 * b = (L − w) + 2 · √((w/2)² − (t/2)²) (domain.md 5.8), exact for a tab with sharp corners.
 *
 * @param lengthMm of the slot, end to end
 * @param widthMm of the slot
 * @param tabMm the tab's thickness
 * @returns 0 where the tab is thicker than the slot is wide
 * @example widestTab(10, 1.9, 1.6) // 9.1247 (EX 5.7)
 */
export function widestTab(lengthMm: number, widthMm: number, tabMm: number): number {
  const rest = (widthMm / 2) ** 2 - (tabMm / 2) ** 2;
  return rest < 0 ? 0 : Math.max(0, lengthMm - widthMm + 2 * Math.sqrt(rest));
}

/** A tab's width in a slot, with all that may be off of both. */
export interface TabWidth {
  readonly slotLengthMm: number;
  readonly slotMm: number;
  /** ± of the slot's length and of its width. */
  readonly slotTolMm: number;
  readonly tabMm: number;
  readonly tabWidthMm: number;
  /** ± of the tab's thickness and of its width. */
  readonly tabTolMm: number;
}

/**
 * Whether a tab is narrow enough for a slot's round ends.
 *
 * The widest tab is no sum of lengths: what it loses at worst (shortest and narrowest slot, thickest tab) counts as its tolerance
 * to both sides.
 *
 * @returns undefined where the tab can be thicker than the slot: then its width does not matter
 */
export function judgeTabWidth(id: string, w: TabWidth): FitResult | undefined {
  const least = w.slotMm - w.slotTolMm;
  const thickest = w.tabMm + w.tabTolMm;
  if (thickest > least) return undefined;
  const nominal = widestTab(w.slotLengthMm, w.slotMm, w.tabMm);
  const worst = widestTab(w.slotLengthMm - w.slotTolMm, least, thickest);
  return judgeFit({
    id,
    kind: "chain",
    terms: [
      { mm: round(nominal), tolMm: Math.max(0, round(nominal - worst)), sign: 1 },
      { mm: w.tabWidthMm, tolMm: w.tabTolMm, sign: -1 },
    ],
  });
}

const round = (v: number) => Math.round(v * 1e6) / 1e6;
