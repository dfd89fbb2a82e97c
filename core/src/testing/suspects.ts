import { refOf } from "../board/pins.ts";
import { type ReachedPart, Reaches, type ReachingItem } from "./reach.ts";

/** An item that was tried on one board, with what it came to in the end. */
export interface TriedItem extends ReachingItem {
  readonly name: string;
  readonly verdict: "pass" | "fail" | "open";
}

/** A part that may be why items fail. */
export interface Suspect {
  readonly ref: string;
  /** Of all that may be it, 0 to 1. */
  readonly share: number;
  /** Its pins that are suspected, the likeliest first. */
  readonly pins: readonly string[];
  /** Failing items that it could explain, passing ones that speak for it. */
  readonly fails: readonly string[];
  readonly passes: readonly string[];
  readonly isInDoubt: boolean;
  /** Two places that are joined if its joint is good: its pin, and another of the same net that is got at. */
  readonly check?: { readonly from: string; readonly to: string };
}

/** What passed with a pin in it was seen to work: so much is left of the suspicion. */
const LEFT_BY_PASS = 0.1;
/** Its net was seen to work, the pin itself not. */
const LEFT_BY_NET = 0.5;
/** On a net of what fails without being named by it, a part can only disturb: a bridge does, an open joint does not. */
const BY_DISTURBING = 0.5;
/** Somebody wanted to look at it again when it was put on. */
const BY_DOUBT = 10;

/**
 * What may be why a board fails, the likeliest first: each pin is suspected by its weight, times the share of failing items
 * it could explain (it is of a part they name, or half so much where it is only on a net of theirs), less where items pass with it, more where
 * somebody was in doubt about it. One fault is assumed, as it is where several items fail at once mostly; where no pin
 * explains all, the one that explains most stands first.
 *
 * O(items × pins).
 *
 * @param weightOf expected defects of a part's joint, in any unit
 * @param reachOf how well a pin is got at with a needle, 0 the best
 * @param doubts references somebody was in doubt about
 * @returns empty where nothing fails
 */
export function suspectsOf(
  parts: readonly ReachedPart[],
  items: readonly TriedItem[],
  {
    weightOf,
    reachOf,
    doubts,
    most = 6,
  }: {
    readonly weightOf: (ref: string) => number;
    readonly reachOf: (pin: string) => number;
    readonly doubts: ReadonlySet<string>;
    readonly most?: number;
  },
): Suspect[] {
  const reaches = new Reaches(parts);
  const { netOf } = reaches;
  const judged = items.map((item) => ({ item, ...reaches.of(item) }));
  const failing = judged.filter((j) => j.item.verdict === "fail");
  const passing = judged.filter((j) => j.item.verdict === "pass");
  if (failing.length === 0) return [];
  const through = (j: (typeof judged)[number], ref: string) => j.item.through.includes(ref);
  const found = parts.map((p) => {
    const explains = (net: string | undefined) =>
      failing.filter((j) => (net !== undefined && j.nets.has(net)) || through(j, p.ref));
    const scored = p.pins.map(({ pin, net }) => {
      const why = explains(net);
      const seen = passing.filter(
        (j) => net !== undefined && j.parts.has(p.ref) && (j.nets.has(net) || through(j, p.ref)),
      );
      const beside = passing.filter((j) => net !== undefined && j.nets.has(net) && !j.parts.has(p.ref));
      const left = seen.length > 0 ? LEFT_BY_PASS : beside.length > 0 ? LEFT_BY_NET : 1;
      const force = why.reduce((a, j) => a + (j.parts.has(p.ref) ? 1 : BY_DISTURBING), 0) / failing.length;
      const score = weightOf(p.ref) * (doubts.has(p.ref) ? BY_DOUBT : 1) * left * force;
      return { name: `${p.ref}.${pin}`, net, score, why, seen };
    });
    const pins = scored.filter((s) => s.score > 0).sort((a, b) => b.score - a.score);
    return { ref: p.ref, pins, score: pins.reduce((a, s) => a + s.score, 0) };
  });
  const total = found.reduce((a, f) => a + f.score, 0);
  const named = (list: readonly { readonly item: TriedItem }[]) => [...new Set(list.map((j) => j.item.name))];
  return found
    .filter((f) => f.score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .map(({ ref, pins, score }): Suspect => {
      const [first] = pins;
      const to = first && bestOther(first.name, first.net, netOf, reachOf);
      return {
        ref,
        share: score / total,
        pins: pins.map((s) => s.name),
        fails: named(pins.flatMap((s) => s.why)),
        passes: named(pins.flatMap((s) => s.seen)),
        isInDoubt: doubts.has(ref),
        ...(first && to ? { check: { from: first.name, to } } : {}),
      };
    });
}

/** Another part's pin on the same net, the one that is got at best. */
function bestOther(
  pin: string,
  net: string | undefined,
  netOf: ReadonlyMap<string, string | undefined>,
  reachOf: (pin: string) => number,
): string | undefined {
  const ref = refOf(pin);
  return [...netOf]
    .filter(([name, of]) => of !== undefined && of === net && !name.startsWith(`${ref}.`))
    .map(([name]) => name)
    .sort((a, b) => reachOf(a) - reachOf(b))[0];
}
