import type { PanelDesign, PanelLayout } from "@kobbin/core";
import { tabRing } from "@kobbin/core";

const n = (v: number) => (Math.round(v * 100) / 100).toString();

/** Rings as one path, y up turned down. */
export const pathOf = (rings: readonly (readonly number[])[], heightMm: number): string =>
  rings
    .map((r) => {
      let d = "";
      for (let i = 0; i < r.length; i += 2)
        d += `${i === 0 ? "M" : "L"}${n(r[i]!)} ${n(heightMm - r[i + 1]!)}`;
      return `${d}Z`;
    })
    .join("");

/** An outline in its own coordinates, y down. */
export const outlinePath = (d: PanelDesign): string =>
  [d.outline, ...d.cutouts]
    .map((r) => {
      let s = "";
      for (let i = 0; i < r.length; i += 2) s += `${i === 0 ? "M" : "L"}${n(r[i]!)} ${n(-r[i + 1]!)}`;
      return `${s}Z`;
    })
    .join("");

/** Where a copy lies, as a transform of what is drawn y down in its own coordinates. */
export const placeTransform = (
  p: { readonly xMm: number; readonly yMm: number; readonly turnDeg: number },
  heightMm: number,
): string => `translate(${n(p.xMm)} ${n(heightMm - p.yMm)}) rotate(${-p.turnDeg})`;

/** Bridges as one path. */
export const tabsPath = (l: PanelLayout): string =>
  pathOf(
    l.tabs.map((t) => tabRing(t, t.widthMm, 0.05)),
    l.heightMm,
  );
