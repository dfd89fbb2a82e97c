import type { TestPoint } from "../../netlist/read.ts";
import type { Placement } from "../../placement/placement.ts";
import type { OpenPad } from "../copper/coats.ts";
import { type Pattern, patternOf } from "../copper/pattern.ts";

/** The pads of one part. */
export interface PartPads {
  readonly pins: Set<string>;
  /** Shape: template and sides of the pad's stamp, empty where none is known. */
  readonly places: { pin: string; x: number; y: number; shape: string }[];
  readonly sides: Set<string>;
  hasHole: boolean;
  /** A part is soldered to one of them: card contacts and marks are pads without a part. */
  isSoldered: boolean;
}

/**
 * Pads by the part they belong to: by the attributes of the copper, else by the netlist's pins; empty where neither says it.
 *
 * @param pads of all copper layers
 */
export function padsByRef(
  pads: readonly OpenPad[],
  sideOf: (layer: number) => string,
  points: readonly TestPoint[],
  isSoldered: (p: OpenPad) => boolean,
  shapeOf: (p: OpenPad) => string,
): Map<string, PartPads> {
  const out = new Map<string, PartPads>();
  const of = (ref: string) => {
    let p = out.get(ref);
    if (!p) {
      p = { pins: new Set(), places: [], sides: new Set(), hasHole: false, isSoldered: false };
      out.set(ref, p);
    }
    return p;
  };
  for (const p of pads) {
    if (!p.ref || p.pin === undefined) continue;
    const part = of(p.ref);
    part.pins.add(p.pin);
    part.places.push({ pin: p.pin, x: p.x, y: p.y, shape: shapeOf(p) });
    part.sides.add(sideOf(p.layer));
    if (p.body >= 0) part.hasHole = true;
    if (p.body >= 0 || isSoldered(p)) part.isSoldered = true;
  }
  if (out.size > 0) return out;
  for (const p of points) {
    if (p.ref === "" || p.ref === "VIA" || p.pin === "") continue;
    const part = of(p.ref);
    part.pins.add(p.pin);
    part.isSoldered = true;
    part.places.push({ pin: p.pin, x: p.x, y: p.y, shape: "" });
    for (const s of p.side === "both" ? ["top", "bottom"] : [p.side]) part.sides.add(s);
    if (p.holeMm !== undefined && p.plated !== false) part.hasHole = true;
  }
  return out;
}

/** Parts as patterns; a drilled part without a place in the list is seen from above. */
export const patternsOf = (byRef: ReadonlyMap<string, PartPads>, places: readonly Placement[]): Pattern[] => {
  const placed = new Map(places.map((p) => [p.ref, p]));
  return [...byRef].map(([ref, p]) => {
    const place = placed.get(ref);
    const own = p.sides.size === 1 ? [...p.sides][0] : place?.side;
    return patternOf(ref, own === "bottom" ? "bottom" : "top", p.places, place?.rotationDeg);
  });
};
