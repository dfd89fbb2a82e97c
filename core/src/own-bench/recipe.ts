import type { BoardSet } from "../board/board-file.ts";
import type { Measure } from "../board/measure-document.ts";

/** What etching one board and drilling it comes to. */
export interface Recipe {
  /** Sides with copper. */
  readonly sides: readonly ("top" | "bottom")[];
  /** Copper that goes into the bath from one board, g; nothing where the board's area is not known. */
  readonly etchedG?: number;
  readonly drills: readonly { readonly diameterMm: number; readonly count: number }[];
  /** Holes that join the sides and carry no pin: a wire through each, soldered on both sides. */
  readonly links: readonly {
    readonly x: number;
    readonly y: number;
    readonly diameterMm: number;
    readonly net?: string;
  }[];
  /** Plated holes with a pin: soldered on both sides where tracks meet them there. */
  readonly pinHoles: number;
}

/** Copper, g/cm³. */
const COPPER_DENSITY = 8.96;
/** A pad's middle lies no farther from its hole's, mm. */
const SAME_MM = 0.05;

/**
 * The recipe of one board at one's own bench, where no hole is plated: what goes into the bath, what is drilled, which holes
 * want a wire through them (needs: N056).
 *
 * Copper that goes: (board − copper of the side) × thickness × 8.96 g/cm³, over the sides that have any.
 */
export function recipeOf(set: BoardSet, m: Measure, copperUm: number): Recipe {
  const sides = (["top", "bottom"] as const).filter((side) => m.copperAreaMm2[side] !== undefined);
  const area = m.outline?.areaMm2;
  const pads = (m.nets?.islands ?? []).flatMap((net) =>
    net.pads.map((p) => ({ x: p.x, y: p.y, isPin: p.pin !== undefined, net: net.name })),
  );
  const at = (x: number, y: number) => pads.filter((p) => Math.hypot(p.x - x, p.y - y) <= SAME_MM);
  const plated = set.files.flatMap((f) =>
    f.role === "drill" && f.drill ? f.drill.hits.filter((h) => (h.plated ?? f.plated) !== false) : [],
  );
  const links: Recipe["links"][number][] = [];
  let pinHoles = 0;
  for (const h of plated) {
    const here = at(h.x, h.y);
    if (here.some((p) => p.isPin)) pinHoles++;
    else if (sides.length > 1) {
      const net = here.find((p) => p.net)?.net;
      links.push({ x: h.x, y: h.y, diameterMm: h.diameterMm, ...(net ? { net } : {}) });
    }
  }
  const counts = new Map<number, number>();
  for (const h of m.holes) counts.set(h.diameterMm, (counts.get(h.diameterMm) ?? 0) + h.count);
  return {
    sides,
    ...(area === undefined
      ? {}
      : {
          etchedG: sides.reduce(
            (g, side) =>
              g + (Math.max(0, area - m.copperAreaMm2[side]!) / 100) * (copperUm / 1e4) * COPPER_DENSITY,
            0,
          ),
        }),
    drills: [...counts]
      .map(([diameterMm, count]) => ({ diameterMm, count }))
      .sort((a, b) => a.diameterMm - b.diameterMm),
    links: links.sort((a, b) => a.y - b.y || a.x - b.x),
    pinHoles,
  };
}

/** Bath for so many boards, ml: the copper of all over what a litre takes up by its maker's sheet. */
export const bathMl = (etchedG: number, boards: number, gramsALitre: number): number =>
  gramsALitre > 0 ? (1000 * etchedG * boards) / gramsALitre : Number.POSITIVE_INFINITY;

/** Calm sentences at the step they concern; they defer to makers' sheets and local rules. */
export const BENCH_CAUTIONS = {
  print:
    "Light-sensitive board stays in the dark until it is used. A lamp for it can harm eyes: cover it while it is on.",
  laser:
    "A laser over copper throws its light back: closed cover and goggles for its colour, fumes of the paint led outside, never left alone.",
  etch: "Etchants burn eyes and stain for good: goggles, gloves, plenty of air; a vessel of plastic or glass, never metal, and never one for food again. Follow the maker’s sheet. Nothing goes down the drain: what is used up goes to a collection point, as local rules say.",
  drill:
    "Small drills break and fly: goggles. Dust of boards stays in lungs: damp it or draw it off, and wear a mask.",
  done: "There is no mask: keep iron and loose wire ends from bridging, and lacquer the board once it works.",
} as const;
