import type { WiredPart } from "./wiring.ts";

/** A connector of a product by the board it is on. */
export interface PlacedConnector {
  readonly board: string;
  readonly part: WiredPart;
}
/** Two connectors that carry the same signals in another order. */
export interface OrderDiffers {
  readonly a: PlacedConnector;
  readonly b: PlacedConnector;
  /** What meets what over a straight cable and is not the same, a's first; at most four. */
  readonly crossed: readonly (readonly [string, string])[];
}

/** With fewer there is hardly an order. */
const LEAST_PINS = 3;
/** More connectors are not held against each other. */
const MOST_CONNECTORS = 60;

const nameOf = (name: string | undefined) =>
  (name ?? "").slice((name ?? "").lastIndexOf("/") + 1).toUpperCase();
/** Signals in the order of the pins; nothing where a pin has no name, or one name stands at another number of pins. */
function signalsOf({ pins }: WiredPart): readonly string[] | undefined {
  const names = pins.map((p) => nameOf(p.name));
  return names.length < LEAST_PINS || names.includes("") ? undefined : names;
}

/**
 * Connectors that carry the same signals, each as often, in another order: a straight cable between the two crosses them, and
 * who knows one of them puts the other in wrongly. Pins go by their place in the part's list.
 *
 * @param list of one product, in the order in which they are told
 */
export function orderDiffers(list: readonly PlacedConnector[]): OrderDiffers[] {
  const known = list.slice(0, MOST_CONNECTORS).flatMap((c) => {
    const names = signalsOf(c.part);
    return names ? [{ c, names, key: [...names].sort().join("\n") }] : [];
  });
  const out: OrderDiffers[] = [];
  const told = new Set<(typeof known)[number]>();
  for (const a of known)
    for (const b of known) {
      if (a === b || told.has(a) || told.has(b) || a.key !== b.key) continue;
      const crossed = a.names.flatMap((n, i) => (n === b.names[i] ? [] : [[n, b.names[i]!] as const]));
      if (crossed.length === 0) continue;
      out.push({ a: a.c, b: b.c, crossed: crossed.slice(0, 4) });
      // one connector that is unlike several is told once
      told.add(b);
    }
  return out;
}
