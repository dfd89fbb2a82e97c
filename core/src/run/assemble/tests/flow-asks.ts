import { lettersOf } from "../../../bom/refs.ts";
import { few } from "../../../findings.ts";
import type { FlowAsk, FlowCopper, FlowPin, FlowTap } from "../../../flow/ask.ts";
import { type FeedWalk, feedWalk, type RailSum, railSums } from "../../../meet/first-power.ts";
import { netsOf, type RailLoad, type Wires } from "../../../meet/load-kinds.ts";
import { type RailLoads, railLoads } from "../../../meet/loads.ts";
import type { PowerMap, PowerRail } from "../../../meet/supplies.ts";
import { isConnector, type WiredPart } from "../../../meet/wiring.ts";
import type { RunBoard } from "../../document/boards.ts";
import type { RunDocument } from "../../document/document.ts";
import { boardWires } from "./board-wires.ts";

/** What flows where at the most, to be followed through the copper. */
export interface FlowPlan {
  readonly asks: readonly FlowAsk[];
  readonly copper: FlowCopper;
  /** Parts that draw and of which nothing is known. */
  readonly unknown: readonly string[];
  /** What supplies carry is at least: something draws that is not counted, a part or a rail without volts among it. */
  readonly isLeast: boolean;
  /** What was taken for so, once each. */
  readonly assumed: readonly string[];
  /** What is not followed, in words: what grounds carry is then at least so much. */
  readonly left: readonly string[];
}

/** Copper and board as ordered; the usual where nothing is chosen, and that is said. */
export function flowCopper(
  options: RunDocument["options"],
  board: RunBoard,
  assumed: Set<string>,
): FlowCopper {
  const um = Number.parseFloat(options.copper ?? "");
  const chosen = Number.parseFloat(options.thickness ?? "");
  const isCopper = um > 0;
  if (!isCopper) assumed.add("copper of 35 µm; none is chosen at Fab");
  if (board.measure.layers.filter((l) => l.role === "copper").length > 2)
    assumed.add("inner copper as thick as the outer");
  const boardMm = chosen > 0 ? chosen : (board.measure.thicknessMm ?? 1.6);
  const mm = isCopper ? um / 1000 : 0.035;
  return { outerMm: mm, innerMm: mm, boardMm };
}

/**
 * Currents of one board by its nets, at the most: supplies from where they come in, grounds to where they go back.
 *
 * @param options what is ordered of the bare board, as far as it is chosen
 * @returns nothing where its files name no pins
 */
export function flowPlan(
  doc: RunDocument,
  board: RunBoard,
  options: RunDocument["options"] = doc.options,
): FlowPlan | undefined {
  const b = boardWires(doc, board);
  if (!b) return undefined;
  const { power } = b.volts;
  const assumed = new Set<string>();
  const loads = railLoads(b.wires);
  const walk = feedWalk(power);
  const sums = railSums(power, loads, walk, assumed);
  const plan = new Plan(b.wires, power, loads, walk, sums, assumed);
  const asks = [...plan.supplies(), ...plan.grounds()];
  return {
    asks,
    isLeast: plan.isShort || [...sums.values()].some((s) => s.unknown.length > 0),
    copper: flowCopper(options, board, assumed),
    unknown: [...new Set(loads.flatMap((l) => l.unknown))],
    assumed: [...assumed],
    left: [...plan.left],
  };
}

/** Something that draws: where from, and which parts it consists of. */
interface Drawn {
  readonly root: number;
  readonly part: WiredPart;
  readonly refs: readonly string[];
  readonly ma: number;
}

/** A part over which a rail comes in; over all of its pins on it where none is named. */
interface Entry {
  readonly part: WiredPart;
  readonly pins: readonly string[] | undefined;
}

class Plan {
  readonly left = new Set<string>();
  /** Something draws from a supply that is followed and is not in it. */
  isShort = false;
  readonly #w: Wires;
  readonly #map: PowerMap;
  readonly #loads: readonly RailLoads[];
  readonly #walk: FeedWalk;
  readonly #sums: ReadonlyMap<number, RailSum>;
  readonly #assumed: Set<string>;
  readonly #byRef: ReadonlyMap<string, WiredPart>;
  readonly #drawn: Drawn[] = [];

  constructor(
    w: Wires,
    map: PowerMap,
    loads: readonly RailLoads[],
    walk: FeedWalk,
    sums: ReadonlyMap<number, RailSum>,
    assumed: Set<string>,
  ) {
    this.#w = w;
    this.#map = map;
    this.#loads = loads;
    this.#walk = walk;
    this.#sums = sums;
    this.#assumed = assumed;
    this.#byRef = new Map(w.parts.map((p) => [p.ref, p]));
  }

  #pins(part: WiredPart | undefined, nets: readonly number[]): FlowPin[] {
    return (part?.pins ?? [])
      .filter((q) => nets.includes(q.net))
      .map(({ pin, layer, x, y }) => ({ ref: part!.ref, pin, layer, x, y }));
  }

  /** The rail from which all of another comes. */
  #rootOf(rail: number): number {
    let i = rail;
    for (let up = this.#walk.parent.get(i); up; up = this.#walk.parent.get(i)) i = up.from;
    return i;
  }

  /** Parts over which a rail comes in, and nothing where that is not known. */
  #entryOf(i: number): Entry[] {
    const rail = this.#map.rails[i]!;
    if (rail.sources.length > 0)
      return [...new Set(rail.sources.map((s) => s.ref))].flatMap((ref) => {
        const part = this.#byRef.get(ref);
        return part ? [{ part, pins: rail.sources.filter((s) => s.ref === ref).map((s) => s.pin) }] : [];
      });
    const up = this.#walk.parent.get(i);
    if (up) {
      const part = this.#byRef.get(up.link.ref);
      return part ? [{ part, pins: undefined }] : [];
    }
    const plugs = this.#w.parts.filter(
      (p) => isConnector(p) && p.pins.some((q) => rail.nets.includes(q.net)),
    );
    if (plugs.length !== 1) return [];
    this.#assumed.add(`${nameOf(rail)} comes in over ${plugs[0]!.ref}, the one connector it is on`);
    return [{ part: plugs[0]!, pins: undefined }];
  }

  /** The part of a load that stands on a rail: one of its own, else what drives it out of the rail. */
  #standsOn(load: RailLoad, nets: readonly number[]): WiredPart | undefined {
    const own = load.refs.flatMap((r) => this.#byRef.get(r) ?? []);
    const on = (p: WiredPart) => p.pins.some((q) => nets.includes(q.net));
    const near = new Set(own.flatMap(netsOf));
    return own.find(on) ?? this.#w.parts.find((p) => on(p) && p.pins.some((q) => near.has(q.net)));
  }

  supplies(): FlowAsk[] {
    return this.#walk.order.flatMap((i) => this.#ofRail(i));
  }

  #ofRail(i: number): FlowAsk[] {
    const rail = this.#map.rails[i]!;
    const sum = this.#sums.get(i)!;
    if (sum.most <= 0) return [];
    const taps: { readonly part: WiredPart; readonly ma: number }[] = [];
    const root = this.#rootOf(i);
    for (const l of this.#loads[i]!.loads) {
      if (l.mostMa <= 0) continue;
      const part = this.#standsOn(l, rail.nets);
      if (!part) {
        this.isShort = true;
        this.left.add(`${l.refs.join(" and ")}: not known where ${nameOf(rail)} gives to it`);
        continue;
      }
      taps.push({ part, ma: l.mostMa });
      this.#drawn.push({ root, part, refs: l.refs, ma: l.mostMa });
    }
    for (const [child, ma] of sum.into) {
      const part = this.#byRef.get(this.#walk.parent.get(child)!.link.ref);
      if (!part || ma <= 0) continue;
      taps.push({ part, ma });
      // what goes in and does not come out on the other side goes to ground
      const lost = ma - this.#sums.get(child)!.most;
      if (lost > 1e-9) this.#drawn.push({ root, part, refs: [part.ref], ma: lost });
    }
    const entry = this.#entryOf(i);
    if (entry.length === 0) {
      this.left.add(`${nameOf(rail)}: not known where it comes in`);
      return [];
    }
    return this.#through(rail, entry, taps);
  }

  /** The nets of a rail from where it comes in, over the coils and fuses between them. */
  #through(
    rail: PowerRail,
    entry: readonly Entry[],
    taps: readonly { readonly part: WiredPart; readonly ma: number }[],
  ): FlowAsk[] {
    const pinsOf = (net: number) =>
      entry.flatMap(({ part, pins }) =>
        this.#pins(part, [net]).filter((p) => pins === undefined || pins.includes(p.pin)),
      );
    const over = new Map<number, { readonly from: number; readonly part: WiredPart } | undefined>();
    const order: number[] = rail.nets.filter((net) => pinsOf(net).length > 0);
    for (const net of order) over.set(net, undefined);
    const used = new Set<string>();
    for (const net of order)
      for (const ref of rail.through) {
        const part = this.#byRef.get(ref);
        const to = part && netsOf(part).includes(net) ? netsOf(part).find((x) => x !== net) : undefined;
        if (to === undefined || used.has(ref) || !rail.nets.includes(to)) continue;
        used.add(ref);
        if (over.has(to)) this.#assumed.add(`nothing flows over ${ref}, beside which there is another way`);
        else {
          over.set(to, { from: net, part: part! });
          order.push(to);
        }
      }
    const asks: FlowAsk[] = [];
    const beyond = new Map<number, FlowTap[]>();
    const placed = new Set<(typeof taps)[number]>();
    for (const net of [...order].reverse()) {
      const own = taps.flatMap((t): FlowTap[] => {
        const pins = placed.has(t) ? [] : this.#pins(t.part, [net]);
        if (pins.length === 0) return [];
        placed.add(t);
        return [{ ref: t.part.ref, pins, ma: t.ma }];
      });
      const all = joined([...own, ...(beyond.get(net) ?? [])]);
      const ma = all.reduce((s, t) => s + t.ma, 0);
      const way = over.get(net);
      if (ma <= 0) continue;
      const from = way ? this.#pins(way.part, [net]) : pinsOf(net);
      const volts = rail.volts === undefined ? {} : { volts: rail.volts };
      asks.unshift({ net, name: this.#w.nameOf(net), isReturn: false, ...volts, entry: from, taps: all });
      if (way)
        beyond.set(way.from, [
          ...(beyond.get(way.from) ?? []),
          { ref: way.part.ref, pins: this.#pins(way.part, [way.from]), ma },
        ]);
    }
    for (const t of taps) {
      if (placed.has(t)) continue;
      this.isShort = true;
      this.left.add(`${t.part.ref}: not known how ${nameOf(rail)} gets to it`);
    }
    return asks;
  }

  /** Currents on their way back, to the connector or cell they came from. */
  grounds(): FlowAsk[] {
    const nets = [...new Set(this.#w.parts.flatMap(netsOf))].filter((net) => this.#w.isGround(net));
    const back = new Map<number, (FlowTap & { readonly root: number })[]>();
    const lost: string[] = [];
    for (const d of this.#drawn) {
      const part = this.#backOf(d, nets);
      const net = part?.pins.find((q) => nets.includes(q.net))?.net;
      if (!part || net === undefined) {
        lost.push(d.refs.join(" and "));
        continue;
      }
      const tap = { ref: part.ref, pins: this.#pins(part, [net]), ma: d.ma, root: d.root };
      back.set(net, [...(back.get(net) ?? []), tap]);
    }
    if (lost.length > 0) this.left.add(`not known how the current of ${few(lost, 8)} goes back`);
    return [...back].flatMap(([net, taps]): FlowAsk[] => {
      const homes = [...new Set(taps.map((t) => t.root))]
        .map((root) => ({
          root,
          ma: taps.filter((t) => t.root === root).reduce((s, t) => s + t.ma, 0),
          pins: this.#entryOf(root).flatMap(({ part }) => this.#pins(part, [net])),
        }))
        .sort((a, b) => b.ma - a.ma);
      const name = this.#w.nameOf(net);
      // what comes in over nobody knows what goes back there too
      const lost = homes.filter((h) => h.pins.length === 0).map((h) => h.root);
      if (lost.length > 0)
        this.left.add(
          `${name}: not known where ${lost.length === homes.length ? "it" : `what ${lost.map((i) => nameOf(this.#map.rails[i]!)).join(" and ")} gives`} goes back`,
        );
      const [home, ...others] = homes.filter((h) => h.pins.length > 0);
      if (!home) return [];
      const kept = taps.filter((t) => !lost.includes(t.root));
      return [
        {
          net,
          name,
          isReturn: true,
          entry: home.pins,
          taps: joined([...kept, ...others.map((o) => ({ ref: o.pins[0]!.ref, pins: o.pins, ma: -o.ma }))]),
        },
      ];
    });
  }

  /** The part over which a load's current gets to ground: its own, what stands on the rail, else the one thing that switches it. */
  #backOf(d: Drawn, grounds: readonly number[]): WiredPart | undefined {
    const isGrounded = (p: WiredPart) => p.pins.some((q) => grounds.includes(q.net));
    const own = d.refs.flatMap((r) => this.#byRef.get(r) ?? []);
    const found = own.find(isGrounded);
    if (found) return found;
    const ends = new Set(own.flatMap(netsOf).filter((net) => !this.#w.railOfNet.has(net)));
    const others = this.#w.parts.filter(
      (p) =>
        !d.refs.includes(p.ref) &&
        !["C", "R", "RN", "TP"].includes(lettersOf(p.ref)) &&
        isGrounded(p) &&
        p.pins.some((q) => ends.has(q.net)),
    );
    return others.length === 1 ? others[0] : isGrounded(d.part) && own.includes(d.part) ? d.part : undefined;
  }
}

const nameOf = (rail: PowerRail) => rail.names[0] ?? "a rail without a name";

/** Taps of one part as one, those that draw most first. */
function joined(taps: readonly FlowTap[]): FlowTap[] {
  const of = new Map<string, FlowTap>();
  for (const { ref, pins, ma } of taps) {
    const was = of.get(ref);
    of.set(ref, { ref, pins: was?.pins ?? pins, ma: (was?.ma ?? 0) + ma });
  }
  return [...of.values()].sort((a, b) => b.ma - a.ma);
}
