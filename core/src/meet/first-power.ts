import type { RailLoads } from "./loads.ts";
import type { PowerLink, PowerMap } from "./supplies.ts";

/** A rail on the way from where the board is fed, with what is expected of it before and while it is first powered. */
export interface RailCard {
  readonly name: string;
  readonly nets: readonly number[];
  readonly volts?: number;
  /** Its volts are what its name says. */
  readonly isByName: boolean;
  /** Something outside, or a cell, is known to feed it. */
  readonly isFed: boolean;
  /** Where it reads when it is powered, lowest and highest: its volts, 5 % off where nobody says more. Not known without. */
  readonly reads?: readonly [number, number];
  /** What it is fed by: nothing here at a beginning, or over a part from another rail, by its place in the list. */
  readonly over?: { readonly ref: string; readonly kind: PowerLink["kind"]; readonly from: number };
  /** Parts its current goes through, from outside on. */
  readonly by: readonly string[];
  /** What draws from it directly. */
  readonly own: RailLoads;
  /** What passes through it, with what hangs on it further down: mA, at least where something is not known. */
  readonly restMa: number;
  readonly mostMa: number;
  /** Parts on it and further down of which nothing is known, and rails further down whose volts are not. */
  readonly unknown: readonly string[];
  /** What the supply is limited to for it, mA; a start where not all that draws is known. */
  readonly limitMa: number;
  /** Below this a meter says it is shorted: with so little the supply would be in its limit. Not known without volts. */
  readonly leastOhm?: number;
  /** A meter shows no more than this: resistors alone conduct so much. */
  readonly mostOhm?: number;
}

/** One turn of the knob: so many volts, and where to stop. */
export interface PowerStage {
  readonly volts: number;
  /** More than this, and it is switched off again. */
  readonly stopMa: number;
  readonly because: string;
}

export interface FirstPower {
  /** Every rail, those that are fed from outside first, each after what feeds it. */
  readonly rails: readonly RailCard[];
  /** Rails with nothing before them: where the board is fed, and what nobody is known to feed; stages where volts are known. */
  readonly inputs: readonly { readonly rail: number; readonly stages: readonly PowerStage[] }[];
  /** What was taken for so, once each. */
  readonly assumed: readonly string[];
}

/** So much over what is expected at rest, and never less over it than this: what charges capacitors passes. */
const MARGIN = 1.5;
const LEAST_OVER_MA = 10;
/** Where not everything that draws is known, this over what is. */
const START_OVER_MA = 20;
/** Steps of the knob of a bench supply. */
const STEP_MA = 5;
/** Resistors and the meter together. */
const SPREAD = 1.1;
/** Volts a rail may be off by where nobody says more. */
const RAIL_SPREAD = 0.05;
/** A switching converter that steps up wastes so much. */
const UP_EFFICIENCY = 0.8;
/** Below this no junction conducts much: what flows is a resistance. */
const QUIET_VOLTS = 1;

const upTo = (ma: number) => Math.ceil(ma / STEP_MA - 1e-9) * STEP_MA;
const round = (x: number, digits = 3) => Number(x.toPrecision(digits));

/** The way current takes from rail to rail. */
export interface FeedWalk {
  /** Rails, by their place in the map, in the order in which current gets to them. */
  readonly order: readonly number[];
  readonly parent: ReadonlyMap<number, { readonly from: number; readonly link: PowerLink }>;
  /** Parts over which a rail is fed a second time. */
  readonly also: readonly string[];
}

/**
 * Rails from what is fed outside on, all of that at once; then from what nobody is known to feed, what is named as coming in
 * first, then the higher volts.
 */
export function feedWalk(map: PowerMap): FeedWalk {
  const order: number[] = [];
  const parent = new Map<number, { from: number; link: PowerLink }>();
  const also = new Set<string>();
  const seen = new Set<number>();
  const from = (starts: readonly number[]) => {
    const queue = [...starts];
    for (const i of starts) seen.add(i);
    for (const i of queue) {
      order.push(i);
      for (const link of map.rails[i]!.links) {
        if (!seen.has(link.to)) {
          seen.add(link.to);
          parent.set(link.to, { from: i, link });
          queue.push(link.to);
          // what two feed is counted with the first of them
        } else if (link.to !== parent.get(i)?.from && parent.get(link.to)?.from !== i) also.add(link.ref);
      }
    }
  };
  from(map.rails.flatMap((r, i) => (r.sources.length > 0 ? [i] : [])));
  const comesIn = (i: number) => map.rails[i]!.names.some((n) => /IN\d*$|BAT|BUS/i.test(n));
  const rest = map.rails
    .map((r, i) => ({ i, volts: r.volts ?? 0 }))
    .sort((a, b) => Number(comesIn(b.i)) - Number(comesIn(a.i)) || b.volts - a.volts);
  for (const { i } of rest) if (!seen.has(i)) from([i]);
  return { order, parent, also: [...also] };
}

/** How much flows into a converter for each mA out of it, and what that was taken from. */
function factor(
  link: PowerLink,
  fromVolts: number | undefined,
  toVolts: number | undefined,
  assumed: Set<string>,
): number {
  if (link.kind !== "converter") return 1;
  if (fromVolts !== undefined && toVolts !== undefined && toVolts > fromVolts) {
    assumed.add(`${link.ref} steps up and loses ${Math.round(100 * (1 - UP_EFFICIENCY))} % of what goes in`);
    return toVolts / fromVolts / UP_EFFICIENCY;
  }
  assumed.add(`${link.ref} is linear, as much goes in as comes out; one that switches takes less`);
  return 1;
}

/** What passes through a rail, mA, with what hangs on it further down, and what of that is not known. */
export interface RailSum {
  readonly rest: number;
  readonly most: number;
  readonly unknown: readonly string[];
  /** What goes from it into each rail it feeds, mA at the most. */
  readonly into: ReadonlyMap<number, number>;
}

/**
 * What passes through each rail, by its place in the map; from those that feed nothing on.
 *
 * @param assumed what was taken for so is added
 */
export function railSums(
  map: PowerMap,
  loads: readonly RailLoads[],
  { order, parent }: Pick<FeedWalk, "order" | "parent">,
  assumed: Set<string>,
): Map<number, RailSum> {
  const sums = new Map<number, RailSum>();
  for (const i of [...order].reverse()) {
    const own = loads[i]!;
    const sum = {
      rest: own.loads.reduce((a, l) => a + l.restMa, 0),
      most: own.loads.reduce((a, l) => a + l.mostMa, 0),
      unknown: [...own.unknown],
      into: new Map<number, number>(),
    };
    const { volts } = map.rails[i]!;
    if (volts === undefined && map.rails[i]!.loads.length > 0) sum.unknown.push(nameOf(map, i));
    for (const [child, up] of parent) {
      if (up.from !== i) continue;
      const below = sums.get(child)!;
      const k = factor(up.link, volts, map.rails[child]!.volts, assumed);
      sum.rest += k * below.rest;
      sum.most += k * below.most;
      sum.into.set(child, k * below.most);
      sum.unknown.push(...below.unknown);
    }
    sums.set(i, sum);
  }
  return sums;
}

/**
 * What to expect when a board is first powered, and where to stop: worked out from its rails and what draws from them.
 * The limit is half as much again as is expected at rest, at least 10 mA over it; where a part has no figure it is 20 mA over
 * what is known, and only a start. A rail that measures less than volts over limit would hold the supply in its limit.
 * The first stage is a volt at most: nothing but a resistance conducts then, so its stop value is the limit in proportion.
 */
export function firstPower(map: PowerMap, loads: readonly RailLoads[]): FirstPower {
  const { order, parent, also } = feedWalk(map);
  const assumed = new Set<string>();
  if (also.length > 0)
    assumed.add(`what is fed over ${also.join(", ")} as well draws from the first of what feeds it alone`);
  const sums = railSums(map, loads, { order, parent }, assumed);
  const by = new Map<number, readonly string[]>();
  for (const i of order) {
    const up = parent.get(i);
    by.set(i, [...(up ? [...by.get(up.from)!, up.link.ref] : []), ...map.rails[i]!.through]);
  }
  const rails = order.map((i) => ({
    ...railCard(map, i, loads[i]!, sums.get(i)!, order, parent.get(i)),
    by: by.get(i)!,
  }));
  for (const r of rails)
    for (const l of r.own.loads)
      if (l.lampV !== undefined)
        assumed.add("a lit lamp takes the volts of its colour, 2 V where none is said");
  return {
    rails,
    inputs: rails.flatMap((r, rail) =>
      r.over === undefined ? [{ rail, stages: r.volts ? stagesOf(r, r.volts) : [] }] : [],
    ),
    assumed: [...assumed],
  };
}

const nameOf = (map: PowerMap, i: number) => map.rails[i]!.names[0] ?? `rail ${i + 1}`;

function railCard(
  map: PowerMap,
  i: number,
  own: RailLoads,
  sum: { rest: number; most: number; unknown: readonly string[] },
  order: readonly number[],
  up: { from: number; link: PowerLink } | undefined,
): Omit<RailCard, "by"> {
  const { volts, isByName, nets, sources } = map.rails[i]!;
  const off = RAIL_SPREAD * Math.abs(volts ?? 0);
  const isKnown = sum.unknown.length === 0;
  const limitMa = upTo(
    isKnown ? Math.max(MARGIN * sum.rest, sum.rest + LEAST_OVER_MA) : sum.rest + START_OVER_MA,
  );
  const siemens = own.loads.reduce((a, l) => a + (l.ohm ? 1 / l.ohm : 0), 0);
  return {
    name: nameOf(map, i),
    nets,
    ...(volts === undefined
      ? {}
      : {
          volts,
          reads: [volts - off, volts + off] as const,
          leastOhm: round((1000 * Math.abs(volts)) / limitMa),
        }),
    isFed: sources.length > 0,
    isByName: isByName === true,
    ...(up ? { over: { ref: up.link.ref, kind: up.link.kind, from: order.indexOf(up.from) } } : {}),
    own,
    restMa: round(sum.rest),
    mostMa: round(sum.most),
    unknown: sum.unknown,
    limitMa,
    ...(siemens > 0 ? { mostOhm: round(SPREAD / siemens) } : {}),
  };
}

/** A volt at most, half of it, all of it; below ground as above. */
function stagesOf(r: RailCard, volts: number): PowerStage[] {
  const [all, sign] = [Math.abs(volts), Math.sign(volts)];
  const first = Math.min(QUIET_VOLTS, round(all / 5, 2));
  const limit = { stopMa: r.limitMa, because: "what the supply is limited to" };
  const quiet: PowerStage = {
    volts: sign * first,
    stopMa: round((r.limitMa * first) / all, 2),
    because: `${r.limitMa} mA × ${first} V / ${round(all)} V: so little conducts only through a resistance`,
  };
  const half = all < 2 ? [] : [{ volts: sign * round(all / 2, 2), ...limit }];
  return [quiet, ...half, { volts, ...limit }];
}
