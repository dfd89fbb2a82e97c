import { lettersOf } from "../bom/refs.ts";
import { railOf } from "../netlist/rails.ts";
import type { WiredPart, WiredPin } from "./wiring.ts";

/** Beyond this a capacitor does little for a supply pin, mm: as practised, between their pads. */
export const NEAR_MM = 8;

/** A chip's supply on one net, and the capacitors that stand by it. */
export interface Decoupled {
  readonly ref: string;
  /** Name of the supply's net. */
  readonly net: string;
  readonly pins: number;
  /** Capacitors from this net to ground, the nearest first, with the distance of its pad to the nearest supply pin. */
  readonly by: readonly { readonly ref: string; readonly mm: number }[];
  readonly at: { readonly layer: string; readonly x: number; readonly y: number };
}

const distance = (a: WiredPin, b: WiredPin) => Math.hypot(a.x - b.x, a.y - b.y);
const isGround = (p: WiredPin) => p.name !== undefined && railOf(p.name) === "ground";

/**
 * Every chip's supply with the capacitors to ground within {@link NEAR_MM}: how many there are for how many pins. A part
 * without a ground pin of its own (a pull-up array, a light) has no supply to be held.
 *
 * @param parts those that are fitted
 */
export function decouplingOf(parts: readonly WiredPart[]): Decoupled[] {
  const capacitors = new Map<number, { readonly ref: string; readonly pad: WiredPin }[]>();
  for (const c of parts) {
    if (lettersOf(c.ref) !== "C" || !c.pins.some(isGround)) continue;
    for (const pad of c.pins)
      if (!isGround(pad)) capacitors.set(pad.net, [...(capacitors.get(pad.net) ?? []), { ref: c.ref, pad }]);
  }
  return parts.flatMap((chip) => {
    if (!["U", "IC"].includes(lettersOf(chip.ref)) || !chip.pins.some(isGround)) return [];
    const supplies = new Map<number, WiredPin[]>();
    for (const p of chip.pins)
      if (p.name !== undefined && railOf(p.name) === "supply")
        supplies.set(p.net, [...(supplies.get(p.net) ?? []), p]);
    return [...supplies].map(([net, pins]): Decoupled => {
      const by = (capacitors.get(net) ?? [])
        .map(({ ref, pad }) => ({ ref, mm: Math.min(...pins.map((p) => distance(p, pad))) }))
        .filter((c) => c.mm <= NEAR_MM)
        .sort((a, b) => a.mm - b.mm);
      const [first] = pins;
      return {
        ref: chip.ref,
        net: first!.name!,
        pins: pins.length,
        by,
        at: { layer: first!.layer, x: first!.x, y: first!.y },
      };
    });
  });
}
