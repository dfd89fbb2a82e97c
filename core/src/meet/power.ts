import { lettersOf } from "../bom/refs.ts";
import { readValue } from "../bom/value.ts";
import { railOf } from "../netlist/rails.ts";
import { supplyFindings } from "./power-findings.ts";
import { voltsOfName } from "./row.ts";
import type { PowerLink, PowerMap, PowerRail, PowerSource } from "./supplies.ts";
import { isLink, type WiredPart } from "./wiring.ts";

const OHM_OR_LESS = 1;
const THROUGH = new Set(["L", "FB", "F", "FU"]);

/** What a part of two ends lets through; undefined for one that is no way of a supply. */
function wayOf(part: WiredPart, valueTextOf: (ref: string) => string): PowerLink["kind"] | undefined {
  const letters = lettersOf(part.ref);
  if (letters === "R") {
    const { value } = readValue(valueTextOf(part.ref), part.ref);
    return value && value.si <= OHM_OR_LESS ? "resistor" : undefined;
  }
  if (letters === "D") return "diode";
  if (["SW", "S", "K"].includes(letters)) return "switch";
  if (isLink(part)) return "link";
  if (letters === "F" || letters === "FU") return "fuse";
  return THROUGH.has(letters) ? "coil" : undefined;
}

interface Way {
  readonly part: WiredPart;
  readonly kind: PowerLink["kind"];
  readonly ends: readonly [number, number];
}

/** Nets that carry supply: named so, fed, or on the way between two such. */
function supplyNets(named: ReadonlySet<number>, ways: readonly Way[]): Set<number> {
  const on = new Map<number, Way[]>();
  for (const w of ways) for (const e of w.ends) on.set(e, [...(on.get(e) ?? []), w]);
  const nets = new Set([...named, ...on.keys()]);
  // a net that leads nowhere is no way of a supply: the far end of a lamp, a clamped signal
  for (let isDone = false; !isDone; ) {
    isDone = true;
    for (const n of nets) {
      if (named.has(n)) continue;
      const others = new Set(
        (on.get(n) ?? []).map((w) => w.ends.find((e) => e !== n)!).filter((e) => nets.has(e)),
      );
      if (others.size > 1) continue;
      nets.delete(n);
      isDone = false;
    }
  }
  return nets;
}

/**
 * The supplies of a board as its nets and parts have them: what feeds, what it goes through, what draws. Nothing is taken
 * for known that was not said: which way a converter works only by what its pins are said to be.
 *
 * @param parts those that are fitted
 * @param valueTextOf the value of a part, for resistors that are hardly any
 */
export function powerMap(
  parts: readonly WiredPart[],
  sources: readonly PowerSource[],
  valueTextOf: (ref: string) => string,
): PowerMap {
  const nameOf = new Map(parts.flatMap((p) => p.pins.map((q) => [q.net, q.name ?? ""] as const)));
  const grounds = new Set([...nameOf].filter(([, name]) => railOf(name) === "ground").map(([n]) => n));
  const cells = parts.flatMap((p) => cellOf(p, grounds));
  const all = [...sources, ...cells.filter((c) => !sources.some((s) => s.ref === c.ref))];
  const fed = new Set(all.map((s) => s.net));
  const named = new Set(
    [...nameOf].filter(([n, name]) => railOf(name) === "supply" || fed.has(n)).map(([n]) => n),
  );
  const ways = parts.flatMap((part): Way[] => {
    const nets = [...new Set(part.pins.map((p) => p.net))];
    const kind =
      nets.length === 2 && !nets.some((n) => grounds.has(n)) ? wayOf(part, valueTextOf) : undefined;
    return kind ? [{ part, kind, ends: [nets[0]!, nets[1]!] }] : [];
  });
  const nets = supplyNets(named, ways);
  const inside = ways.filter((w) => w.ends.every((e) => nets.has(e)));
  // what keeps nothing apart makes one rail of two nets
  const rail = new Map([...nets].map((n) => [n, n]));
  const root = (n: number): number => (rail.get(n) === n ? n : root(rail.get(n)!));
  const isThrough = (w: Way) => w.kind === "coil" || w.kind === "fuse" || w.kind === "resistor";
  for (const w of inside.filter(isThrough)) rail.set(root(w.ends[0]), root(w.ends[1]));
  const roots = [...new Set([...nets].map(root))].sort((a, b) => a - b);
  const at = (n: number) => roots.indexOf(root(n));
  const converters = convertersOf(parts, nets, grounds, root, valueTextOf);
  const rails = roots.map((r, i): PowerRail => {
    const mine = [...nets].filter((n) => root(n) === r);
    const own = all.filter((s) => mine.includes(s.net));
    const names = mine.map((n) => nameOf.get(n)).filter((n): n is string => Boolean(n));
    const given = own.find((s) => s.volts !== undefined)?.volts;
    const volts = given ?? names.map(voltsOfName).find((v) => v !== undefined);
    const links = [
      ...inside
        .filter((w) => !isThrough(w) && w.ends.some((e) => at(e) === i))
        .map((w) => ({
          ref: w.part.ref,
          kind: w.kind,
          to: at(w.ends.find((e) => at(e) !== i) ?? w.ends[0]),
        })),
      ...converters
        .filter((p) => p.pins.some((q) => nets.has(q.net) && at(q.net) === i))
        .map((p) => ({
          ref: p.ref,
          kind: "converter" as const,
          to: at(p.pins.find((q) => nets.has(q.net) && at(q.net) !== i)!.net),
        })),
    ].filter((l) => l.to !== i);
    const through = inside.filter((w) => isThrough(w) && at(w.ends[0]) === i).map((w) => w.part.ref);
    const passes = new Set([...links.map((l) => l.ref), ...through, ...own.map((s) => s.ref)]);
    const loads = parts
      .filter(
        (p) => !passes.has(p.ref) && lettersOf(p.ref) !== "C" && p.pins.some((q) => mine.includes(q.net)),
      )
      .map((p) => p.ref);
    return {
      names,
      nets: mine,
      ...(volts === undefined ? {} : { volts }),
      ...(volts !== undefined && given === undefined ? { isByName: true as const } : {}),
      sources: own,
      links,
      loads,
      through,
    };
  });
  return { rails, findings: supplyFindings(parts, rails, all, grounds) };
}

/** Parts that stand on two rails and ground alone, and are no way between them by themselves. */
const convertersOf = (
  parts: readonly WiredPart[],
  nets: ReadonlySet<number>,
  grounds: ReadonlySet<number>,
  root: (net: number) => number,
  valueTextOf: (ref: string) => string,
): WiredPart[] =>
  parts.filter((p) => {
    const of = [...new Set(p.pins.map((q) => q.net))].filter((n) => !grounds.has(n));
    return (
      of.length >= 2 &&
      of.every((n) => nets.has(n)) &&
      new Set(of.map(root)).size === 2 &&
      !wayOf(p, valueTextOf)
    );
  });

/** A cell holder or a soldered cell by its reference: the pin that is not ground. */
function cellOf(p: WiredPart, grounds: ReadonlySet<number>): PowerSource[] {
  if (!["BT", "BAT"].includes(lettersOf(p.ref))) return [];
  const plus = p.pins.find((q) => !grounds.has(q.net));
  return plus ? [{ ref: p.ref, pin: plus.pin, net: plus.net, what: "cell", isCell: true }] : [];
}
