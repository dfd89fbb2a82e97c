import type { Measure } from "../board/measure-document.ts";
import { compareRefs, lettersOf } from "../bom/refs.ts";

/** A pad of a part, with the net its copper belongs to. */
export interface WiredPin {
  readonly pin: string;
  /** The net of the copper, by its number in the measure. */
  readonly net: number;
  readonly name?: string;
  readonly x: number;
  readonly y: number;
  readonly layer: string;
}
/** A part of the board with its pins, as the files tell them. */
export interface WiredPart {
  readonly ref: string;
  readonly pins: readonly WiredPin[];
}

const refAndPin = (text: string): readonly [string, string] => {
  const dot = text.lastIndexOf(".");
  return [text.slice(0, dot), text.slice(dot + 1)];
};
const byPin = (a: WiredPin, b: WiredPin) => compareRefs(a.pin, b.pin);

/** Every part whose pads the files name, by reference; a pad on both sides counts once. */
export function wiringOf(measure: Pick<Measure, "nets">): WiredPart[] {
  const parts = new Map<string, Map<string, WiredPin>>();
  for (const island of measure.nets?.islands ?? [])
    for (const p of island.pads) {
      if (p.pin === undefined || !p.pin.includes(".")) continue;
      const [ref, pin] = refAndPin(p.pin);
      const pins = parts.get(ref) ?? new Map<string, WiredPin>();
      parts.set(ref, pins);
      if (pins.has(pin)) continue;
      const { name, net } = island;
      pins.set(pin, { pin, net, ...(name === undefined ? {} : { name }), x: p.x, y: p.y, layer: p.layer });
    }
  return [...parts]
    .map(([ref, pins]) => ({ ref, pins: [...pins.values()].sort(byPin) }))
    .sort((a, b) => compareRefs(a.ref, b.ref));
}

const CONNECTORS = new Set(["J", "P", "CN", "CON", "X", "TB", "PL", "SK", "H"]);
/** Parts that are plugged, screwed or clipped onto by what they are called: connectors, terminals, module places. */
export const isConnector = (part: WiredPart): boolean =>
  CONNECTORS.has(lettersOf(part.ref)) && new Set(part.pins.map((p) => p.net)).size > 1;

const LINKS = new Set(["JP", "SJ", "SB", "LK", "W"]);
/** Links, straps and solder bridges by what they are called. */
export const isLink = (part: WiredPart): boolean => LINKS.has(lettersOf(part.ref));
