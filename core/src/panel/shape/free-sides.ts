import type { Ban, PanelDesign, PanelSpec, SheetSide } from "../spec.ts";

/** How deep the strip along a side is that gets no tab, mm. */
const DEEP_MM = 0.3;

/** Designs with the sides that are kept free of tabs among what forbids them. */
export const withFreeSides = (
  designs: readonly PanelDesign[],
  spec: Pick<PanelSpec, "free">,
): readonly PanelDesign[] =>
  spec.free?.some((f) => f.length > 0)
    ? designs.map((d, i) => {
        const free = spec.free?.[i] ?? [];
        return free.length === 0 ? d : { ...d, bans: [...d.bans, ...free.map((s) => freeBan(d, s))] };
      })
    : designs;

function freeBan(d: PanelDesign, side: SheetSide): Ban {
  const [x0, y0, x1, y1] = d.box;
  const e = 0.5;
  const box: Ban["box"] = {
    left: [x0 - e, y0, x0 + DEEP_MM, y1] as const,
    right: [x1 - DEEP_MM, y0, x1 + e, y1] as const,
    bottom: [x0, y0 - e, x1, y0 + DEEP_MM] as const,
    top: [x0, y1 - DEEP_MM, x1, y1 + e] as const,
  }[side];
  return { box, why: `its ${side} edge is kept free of tabs`, tabMm: 0 };
}
