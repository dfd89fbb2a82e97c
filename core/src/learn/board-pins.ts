import { type Pattern, patternOf } from "../board/copper/pattern.ts";
import type { Measure } from "../board/measure-document.ts";
import { refOf } from "../board/pins.ts";

/** A pad of a pin, as in the files, mm. */
export interface PinPad {
  readonly layer: string;
  readonly x: number;
  readonly y: number;
}
/** A pad with its pin's own name: `4` of `U1.4`. */
export interface PartPad extends PinPad {
  readonly pin: string;
}

interface Pins {
  readonly byPin: ReadonlyMap<string, readonly PinPad[]>;
  readonly byPart: ReadonlyMap<string, readonly PartPad[]>;
  readonly patterns: Map<string, Pattern>;
}
/** By measured board: every lesson and every roll-up asks anew. */
const kept = new WeakMap<Measure, Pins>();

function pinsOf(m: Measure): Pins {
  const last = kept.get(m);
  if (last) return last;
  const byPin = new Map<string, PinPad[]>();
  for (const island of m.nets?.islands ?? [])
    for (const { pin, layer, x, y } of island.pads) {
      if (pin === undefined || pin.indexOf(".") < 1) continue;
      const list = byPin.get(pin) ?? [];
      // a pad that goes through the board stands in every layer
      if (!list.some((p) => Math.hypot(p.x - x, p.y - y) < 0.01)) list.push({ layer, x, y });
      byPin.set(pin, list);
    }
  const byPart = new Map<string, PartPad[]>();
  for (const [name, pads] of byPin) {
    const ref = refOf(name);
    const list = byPart.get(ref) ?? [];
    for (const p of pads) list.push({ ...p, pin: name.slice(ref.length + 1) });
    byPart.set(ref, list);
  }
  const made = { byPin, byPart, patterns: new Map() };
  kept.set(m, made);
  return made;
}

/** Pads by pin as `U1.4`, by the nets' own names; empty where no file tells whose pads are whose. */
export const padsByPin = (m: Measure): Pins["byPin"] => pinsOf(m).byPin;

/** Pads by part, each with its pin's own name. */
export const padsByPart = (m: Measure): Pins["byPart"] => pinsOf(m).byPart;

/** The land pattern of a part; on the side that is said, else on the only one its pads are on, else on the top. */
export function patternOfPart(m: Measure, ref: string, side?: "top" | "bottom"): Pattern {
  const { byPart, patterns } = pinsOf(m);
  const pads = byPart.get(ref) ?? [];
  const on =
    side ??
    (pads.length > 0 && pads.every((p) => p.layer === "bottom") ? ("bottom" as const) : ("top" as const));
  const key = `${on} ${ref}`;
  const known = patterns.get(key) ?? patternOf(ref, on, pads);
  patterns.set(key, known);
  return known;
}
