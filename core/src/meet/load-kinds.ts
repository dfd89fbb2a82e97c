import { lettersOf } from "../bom/refs.ts";
import { readValue } from "../bom/value.ts";
import { railOf } from "../netlist/rails.ts";
import type { PowerMap } from "./supplies.ts";
import type { WiredPart } from "./wiring.ts";

/** What a part draws from its supply, mA: as it stands there, and at the most. */
export interface Draws {
  readonly restMa?: number;
  readonly mostMa?: number;
}

/** What of a board decides what it draws, beside its nets. */
export interface LoadFacts {
  /** As the library says it. */
  readonly drawsOf: (ref: string) => Draws;
  readonly valueOf: (ref: string) => string;
  readonly wordsOf: (ref: string) => string;
}

/** Something that draws from a rail, and how much of it is known. */
export interface RailLoad {
  readonly refs: readonly string[];
  readonly restMa: number;
  readonly mostMa: number;
  /** The sum it is: "(3.3 V − 2 V for a lamp) / 330 Ω". */
  readonly because: string;
  /** Ohm to ground through parts that conduct at any voltage; what conducts from some volts on has none. */
  readonly ohm?: number;
  /** What it draws at rest is not known: its most is taken for it. */
  readonly isRestTaken?: true;
  /** Volts a lamp was taken to keep. */
  readonly lampV?: number;
}

/** Volts a lit lamp keeps, by what it is called; of one that says no colour, the middle of the usual. */
const LAMPS: readonly (readonly [RegExp, number])[] = [
  [/\b(infra-?red|ir)\b/i, 1.3],
  [/\bred\b/i, 1.9],
  [/\b(amber|orange|yellow)\b/i, 2.0],
  [/\b(blue|white|violet|uv)\b/i, 3.0],
];
const LAMP_VOLTS = 2.0;
const lampVolts = (words: string): number => LAMPS.find(([is]) => is.test(words))?.[1] ?? LAMP_VOLTS;

const n = (x: number) => String(Number(x.toPrecision(3)));
/** Nets a part stands on, each once. */
export const netsOf = (p: WiredPart): number[] => [...new Set(p.pins.map((q) => q.net))];
const ends = (p: WiredPart): readonly [number, number] | undefined => {
  const nets = netsOf(p);
  return nets.length === 2 ? [nets[0]!, nets[1]!] : undefined;
};
/** The other net of a part that stands on two. */
export const other = (p: WiredPart, net: number): number | undefined => ends(p)?.find((e) => e !== net);

/** Parts and nets of a board as loads are looked for on them. */
export class Wires {
  readonly parts: readonly WiredPart[];
  readonly map: PowerMap;
  readonly facts: LoadFacts;
  /** Net → its rail, by its place in the map. */
  readonly railOfNet: ReadonlyMap<number, number>;
  readonly #names = new Map<number, string>();
  readonly #on = new Map<number, WiredPart[]>();

  constructor(parts: readonly WiredPart[], map: PowerMap, facts: LoadFacts) {
    this.parts = parts;
    this.map = map;
    this.facts = facts;
    this.railOfNet = new Map(map.rails.flatMap((r, i) => r.nets.map((net) => [net, i] as const)));
    for (const p of parts) {
      for (const q of p.pins) this.#names.set(q.net, q.name ?? "");
      for (const net of netsOf(p)) this.#on.set(net, [...this.on(net), p]);
    }
  }
  on(net: number): WiredPart[] {
    return this.#on.get(net) ?? [];
  }
  isGround(net: number | undefined): boolean {
    return net !== undefined && railOf(this.#names.get(net) ?? "") === "ground";
  }
  /** What a net is called; by its number where its files give it no name. */
  nameOf(net: number): string {
    return this.#names.get(net) || `net ${net}`;
  }
  /** Volts of the rail a net is of; nothing for a signal, and where they are not known. */
  voltsAt(net: number): number | undefined {
    const rail = this.railOfNet.get(net);
    return rail === undefined ? undefined : this.map.rails[rail]!.volts;
  }
  /** Rails a part stands on. */
  railsAt(p: WiredPart): number[] {
    return [...new Set(p.pins.flatMap((q) => this.railOfNet.get(q.net) ?? []))];
  }
  ohmOf(p: WiredPart): number | undefined {
    if (!["R", "RN"].includes(lettersOf(p.ref)) || !ends(p)) return undefined;
    const ohm = readValue(this.facts.valueOf(p.ref), p.ref).value?.si;
    return ohm !== undefined && ohm > 0 ? ohm : undefined;
  }
  isLamp(p: WiredPart): boolean {
    const letters = lettersOf(p.ref);
    return (
      ["LED", "LD", "DS"].includes(letters) ||
      (letters === "D" && /\b(led|lamp)\b/i.test(this.facts.wordsOf(p.ref)))
    );
  }
}

/** A resistor that ends at a rail: to ground, through a second one to ground, or to a signal. */
export function resistorLoad(w: Wires, p: WiredPart, net: number, volts: number): RailLoad | undefined {
  const ohm = w.ohmOf(p);
  const far = other(p, net);
  if (ohm === undefined || far === undefined || w.railOfNet.has(far)) return undefined;
  const direct = (refs: readonly string[], of: number, sum: string): RailLoad => {
    const ma = (1000 * volts) / of;
    return { refs, restMa: ma, mostMa: ma, ohm: of, because: `${n(volts)} V / ${sum}` };
  };
  if (w.isGround(far)) return direct([p.ref], ohm, `${n(ohm)} Ω`);
  const down = w.on(far).filter((q) => q !== p && w.ohmOf(q) && w.isGround(other(q, far)));
  const [second] = down;
  if (second && down.length === 1) {
    const below = w.ohmOf(second)!;
    return direct([p.ref, second.ref], ohm + below, `(${n(ohm)} + ${n(below)} Ω)`);
  }
  return {
    refs: [p.ref],
    restMa: 0,
    mostMa: (1000 * volts) / ohm,
    because: `${n(volts)} V / ${n(ohm)} Ω while its signal is low`,
  };
}

/** A lamp with its resistor: what is left of the volts for it. @param by what switches it; lit for good where nothing does */
function lampLoad(w: Wires, light: WiredPart, series: WiredPart, volts: number, by: string): RailLoad {
  const lampV = lampVolts(w.facts.wordsOf(light.ref));
  const ohm = w.ohmOf(series)!;
  const ma = Math.max(0, (1000 * (volts - lampV)) / ohm);
  return {
    refs: [light.ref, series.ref],
    restMa: by === "" ? ma : 0,
    mostMa: ma,
    lampV,
    because: `(${n(volts)} V − ${n(lampV)} V for a lamp) / ${n(ohm)} Ω${by}`,
  };
}

/** A lamp and its resistor that begin at a rail with either of them; they end at ground or at what switches them. */
export function lampFromRail(w: Wires, p: WiredPart, net: number, volts: number): RailLoad | undefined {
  const middle = other(p, net);
  if (middle === undefined || w.isGround(middle)) return undefined;
  const mates = w.on(middle).filter((q) => q !== p);
  const [mate] = mates;
  if (!mate || mates.length !== 1) return undefined;
  const [light, series] = w.isLamp(p) ? [p, mate] : [mate, p];
  if (!w.isLamp(light) || !w.ohmOf(series)) return undefined;
  const far = other(mate, middle);
  // from one rail to another it is lit by their difference, which nobody means
  if (far === undefined || w.railOfNet.has(far)) return undefined;
  return lampLoad(w, light, series, volts, w.isGround(far) ? "" : ", while it is lit");
}

/** A lamp and one resistor in a row that end at ground, lit by a part out of its own supply: its rail and what it draws there. */
export function lampFromPart(
  w: Wires,
  light: WiredPart,
  voltsOf: (rail: number) => number | undefined,
): { readonly rail: number; readonly load: RailLoad } | undefined {
  for (const middle of ends(light) ?? []) {
    const mates = w.on(middle).filter((q) => q !== light);
    const [mate] = mates;
    if (!mate || mates.length !== 1 || !w.ohmOf(mate)) continue;
    const [a, b] = [other(light, middle), other(mate, middle)];
    if (a === undefined || b === undefined || w.isGround(a) === w.isGround(b)) continue;
    const from = w.isGround(a) ? b : a;
    const driver = w.on(from).find((p) => p !== light && p !== mate && w.railsAt(p).length > 0);
    const rail = driver && w.railsAt(driver)[0];
    const volts = rail === undefined ? undefined : voltsOf(rail);
    if (driver && rail !== undefined && volts !== undefined)
      return { rail, load: lampLoad(w, light, mate, volts, `, while ${driver.ref} lights it`) };
  }
  return undefined;
}
