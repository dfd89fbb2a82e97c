import type { Measure } from "../../board/measure-document.ts";
import { fineOf } from "../../fab/check.ts";
import type { BoardFacts } from "../../fab/price.ts";

/**
 * Width and height a board is priced with, mm: its outline's, or, where that is open or missing, those of its
 * copper's box, which a note of the run says (`board-size-unknown`).
 */
export function pricedSize(m: Measure): readonly [number, number] {
  const { widthMm, heightMm } = m.outline ?? {};
  if (widthMm !== undefined && heightMm !== undefined) return [widthMm, heightMm];
  const [x0, y0, x1, y1] = m.extentMm ?? [0, 0, 0, 0];
  return [x1 - x0, y1 - y0];
}

/** The facts of a board that fab and weight depend on. */
export function boardFacts(m: Measure): BoardFacts {
  const [w, h] = pricedSize(m);
  const areas = Object.values(m.copperAreaMm2);
  const share =
    w * h > 0 && areas.length > 0 ? areas.reduce((a, b) => a + b, 0) / areas.length / (w * h) : 0.6;
  return {
    widthMm: w,
    heightMm: h,
    layers: Math.max(1, m.copperLayers),
    holes: m.holes.reduce((n, x) => n + x.count, 0) + m.slots.length,
    copperShare: Math.min(1, share),
    fine: fineOf(m),
  };
}
