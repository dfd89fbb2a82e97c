import { lettersOf } from "../bom/refs.ts";
import {
  type LoadFacts,
  lampFromPart,
  lampFromRail,
  type RailLoad,
  resistorLoad,
  type Wires,
} from "./load-kinds.ts";
import type { PowerMap } from "./supplies.ts";

export interface RailLoads {
  readonly loads: readonly RailLoad[];
  /** Parts that draw and of which nothing is known: what is known is at least. */
  readonly unknown: readonly string[];
}

/** Parts that draw nothing of themselves: passive ones, what only holds a contact, what blocks. */
const STILL = new Set(
  "C R RN RV L FB F FU D Q Y X J P CN CON TB PL SK H TP T SW S JP SJ SB LK W FID MH".split(" "),
);

/**
 * What draws from each rail of a board, as far as it is known: resistors and dividers by Ohm's law, lamps by what is left for
 * their resistor, everything else by what the library says of it. A resistor to a signal draws at the most what it would
 * with that signal at ground; a lamp that a part switches draws at the most, and nothing at rest. Parts without a figure
 * are named, never counted as nothing. Of a rail without volts only what the library knows is counted.
 *
 * @param w parts that are fitted
 * @returns by the map's rails
 */
export function railLoads(w: Wires): RailLoads[] {
  const { parts, map, facts } = w;
  const counted = new Set<string>();
  const passes = new Set(
    map.rails.flatMap((r) => [...r.links.map((l) => l.ref), ...r.through, ...r.sources.map((s) => s.ref)]),
  );
  const found = map.rails.map(() => ({ loads: [] as RailLoad[], unknown: [] as string[] }));
  const take = (rail: number, l: RailLoad) => {
    found[rail]!.loads.push(l);
    for (const r of l.refs) counted.add(r);
  };
  map.rails.forEach((rail, i) => {
    for (const p of new Set(rail.nets.flatMap((net) => w.on(net)))) {
      if (counted.has(p.ref) || lettersOf(p.ref) === "C") continue;
      const said = libraryLoad(facts, p.ref);
      // what a converter takes for itself it takes where it is fed
      if (said && (!passes.has(p.ref) || isFedAt(map, p.ref, i))) take(i, said);
      if (said || passes.has(p.ref)) continue;
      const net = p.pins.map((q) => q.net).find((k) => w.railOfNet.get(k) === i)!;
      // what flows is told by how far it is from ground, whichever way
      const volts = rail.volts === undefined ? undefined : Math.abs(rail.volts);
      const load =
        volts === undefined ? undefined : (lampFromRail(w, p, net, volts) ?? resistorLoad(w, p, net, volts));
      if (load) take(i, load);
      else if (!STILL.has(lettersOf(p.ref))) found[i]!.unknown.push(p.ref);
    }
  });
  for (const light of parts.filter((p) => !counted.has(p.ref) && !passes.has(p.ref) && w.isLamp(p))) {
    const lit = lampFromPart(w, light, (rail) => map.rails[rail]!.volts);
    if (lit) take(lit.rail, lit.load);
    else found[w.railsAt(light)[0] ?? 0]?.unknown.push(light.ref);
  }
  return found;
}

/** What the library says of a part. With one figure of two the other is taken to be the same, and that is said. */
function libraryLoad(facts: LoadFacts, ref: string): RailLoad | undefined {
  const { restMa, mostMa } = facts.drawsOf(ref);
  if (restMa === undefined && mostMa === undefined) return undefined;
  const rest = restMa ?? mostMa!;
  return {
    refs: [ref],
    restMa: rest,
    mostMa: Math.max(mostMa ?? rest, rest),
    because:
      mostMa === undefined
        ? "library, at rest; at the most is not known"
        : restMa === undefined
          ? "library, at the most; taken for rest too"
          : "library",
    ...(restMa === undefined ? { isRestTaken: true as const } : {}),
  };
}

/** A part between two rails is counted at the one with more volts, at the first where that is not known. */
function isFedAt(map: PowerMap, ref: string, rail: number): boolean {
  const at = map.rails.flatMap((r, i) => (r.links.some((l) => l.ref === ref) ? [i] : []));
  const volts = (i: number) => map.rails[i]!.volts ?? 0;
  return [...at].sort((a, b) => volts(b) - volts(a))[0] === rail;
}
