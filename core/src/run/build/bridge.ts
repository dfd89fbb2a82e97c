import type { RunDocument } from "../document/document.ts";
import { wiredOf } from "../document/wired.ts";

/** Two neighbours between which solder may still lie: they are to be silent. */
export interface BridgePair {
  readonly a: string;
  readonly b: string;
  /** Their nets, in the same order. */
  readonly nets: readonly [string, string];
  /** From middle to middle. */
  readonly mm: number;
}

/** What is measured before a bridge counts as gone. */
export interface BridgeCheck {
  /** Nearest first. */
  readonly pairs: readonly BridgePair[];
  /** Neighbours of the same net: between them it always beeps, and solder there does no harm. */
  readonly joined: readonly string[];
}

/** Neighbours are as near as the nearest of all, and half as far again: those beside a pin, not those behind them. */
const NEAR = 1.6;
/** Solder does not reach farther, mm. */
const FARTHEST_MM = 3;
/** More than so many nobody measures: then it is to be said at which pin the bridge is. */
const MOST_PAIRS = 12;

/**
 * What to measure after a bridge was taken off (N110): the pins beside it on the same side of the board, on both for one that
 * goes through, whichever part they are of, that belong to another net. Of a part named without its pin, its own pins beside each other.
 *
 * @param at where it is, as it is called at the bench: "U1.4", or "U1"
 * @returns nothing where no file tells pins and nets of that place; `tooMany` where a part has more neighbours than one measures
 */
export function bridgeCheck(
  doc: RunDocument,
  at: string,
): BridgeCheck | { readonly tooMany: number } | undefined {
  const { parts, pads } = wiredOf(doc);
  const place = at.trim();
  // a pin that is joined to nothing is a net by itself
  const net = new Map<string, string>(
    parts.flatMap((p) =>
      p.pins.map((x): [string, string] => [`${p.ref}.${x.pin}`, x.net ?? `${p.ref}.${x.pin} alone`]),
    ),
  );
  const part = parts.find((p) => p.ref === place);
  const from = net.has(place) ? [place] : (part?.pins ?? []).map((x) => `${place}.${x.pin}`);
  if (from.length === 0) return undefined;
  const pairs = new Map<string, BridgePair>();
  const joined = new Set<string>();
  for (const name of from) {
    // what goes through the board has neighbours on both of its sides
    const here = pads.filter((p) => p.name === name);
    const nearest = new Map<string, number>();
    for (const p of pads) {
      // a part is asked about itself
      if (p.name === name || (from.length > 1 && !from.includes(p.name))) continue;
      for (const h of here)
        if (p.board === h.board && p.layer === h.layer) {
          const mm = Math.hypot(p.x - h.x, p.y - h.y);
          if (mm <= FARTHEST_MM) nearest.set(p.name, Math.min(mm, nearest.get(p.name) ?? mm));
        }
    }
    const near = [...nearest]
      .map(([other, mm]) => ({ name: other, mm }))
      .sort((a, b) => a.mm - b.mm || (a.name < b.name ? -1 : 1));
    const reach = near.length > 0 ? near[0]!.mm * NEAR : 0;
    for (const p of near.filter((x) => x.mm <= reach)) {
      const [a, b] = from.length > 1 && p.name < name ? [p.name, name] : [name, p.name];
      if (net.get(a) === net.get(b)) joined.add(p.name);
      else pairs.set(`${a} ${b}`, { a, b, nets: [net.get(a)!, net.get(b)!], mm: p.mm });
    }
  }
  if (from.length > 1 && pairs.size > MOST_PAIRS) return { tooMany: pairs.size };
  return {
    pairs: [...pairs.values()].sort((x, y) => x.mm - y.mm),
    joined: [...joined].sort(),
  };
}

/** Ways to take a bridge off, the gentlest first: each heat lifts a pad a little. */
export const BRIDGE_LADDER = [
  { way: "see", words: "Look at it under the glass, from both sides: where does solder lie between?" },
  { way: "warm", words: "A clean tip, flux, drawn outward along the pin: mostly it follows." },
  { way: "wick", words: "Flux and braid, laid flat over both pins; tip on the braid, lift both together." },
  { way: "pull", words: "Hot air with flux, or suction, with what stands beside it covered." },
] as const;
/** So many heats on one pad, and it is left to cool and looked at before another: pads lift (a habit of practitioners). */
export const MOST_HEATS = 3;

/** What came of measuring: nothing while a pair is open still. */
export function bridgeCame(
  pairs: readonly BridgePair[],
  answers: Readonly<Record<string, "silent" | "beeps">>,
): { readonly isGone: boolean; readonly words: string } | undefined {
  const of = (p: BridgePair) => answers[`${p.a} ${p.b}`];
  const still = pairs.filter((p) => of(p) === "beeps");
  if (still.length > 0)
    return { isGone: false, words: `still joined: ${still.map((p) => `${p.a} – ${p.b}`).join(", ")}` };
  if (pairs.length === 0 || pairs.some((p) => of(p) === undefined)) return undefined;
  return { isGone: true, words: `measured silent: ${pairs.map((p) => `${p.a} – ${p.b}`).join(", ")}` };
}
