import type { Design } from "./design.ts";
import { outlineOf, round } from "./outline.ts";
import { cornerOf } from "./write/layers.ts";

/** What a reader must find, counted from the drawing list alone. */
export function expectedFacts(d: Design) {
  const drills = d.pads.filter((p) => p.drill !== undefined);
  const holes = new Map<string, number>();
  for (const p of drills) holes.set(`${p.drill} plated`, (holes.get(`${p.drill} plated`) ?? 0) + 1);
  for (const h of d.holes) holes.set(`${h.d} bare`, (holes.get(`${h.d} bare`) ?? 0) + 1);
  const paste = d.pads.filter((p) => p.paste && p.side === "top");
  const areaOf = (p: { shape: string; w: number; h: number }) =>
    p.shape === "circle"
      ? (Math.PI * p.w * p.w) / 4
      : p.shape === "rounded"
        ? p.w * p.h - (4 - Math.PI) * cornerOf(p) ** 2
        : p.w * p.h;
  return {
    outline: outlineOf(d.edges),
    copperLayers: 2,
    minTrackMm: Math.min(...d.tracks.map((t) => t.width)),
    minHoleMm: Math.min(...drills.map((p) => p.drill!), ...d.holes.map((h) => h.d)),
    minAnnularMm: round(Math.min(...drills.map((p) => (Math.min(p.w, p.h) - p.drill!) / 2))),
    holes: Object.fromEntries([...holes].sort()),
    slots: d.slots.map((s) => ({
      widthMm: s.d,
      lengthMm: round(Math.hypot(s.x2 - s.x1, s.y2 - s.y1) + s.d),
    })),
    flashes: {
      top: d.pads.filter((p) => p.side !== "bottom").length,
      bottom: d.pads.filter((p) => p.side !== "top").length,
    },
    paste: {
      count: paste.length,
      areaMm2: round(
        paste.reduce((s, p) => s + areaOf(p), 0),
        3,
      ),
    },
    parts: d.parts.filter((p) => !p.dnp).length,
    /** Parts that belong on the board but whose pads were left out. */
    withoutPads: d.parts
      .filter((p) => !p.dnp && /^[RCDQU]\d/.test(p.ref) && !d.pads.some((q) => q.ref === p.ref))
      .map((p) => p.ref),
    placed: d.parts.filter((p) => p.x !== undefined && p.smd && !p.dnp).length,
  };
}
