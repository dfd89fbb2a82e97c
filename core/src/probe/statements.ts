import type { Joined } from "../board/measure/measure-nets.ts";
import type { Finding } from "../findings.ts";
import { type Rail, railOf } from "../netlist/rails.ts";
import { endToEnd, type Joints, singleVias } from "./joints.ts";
import type { Neighbours } from "./neighbours.ts";
import type { Spot } from "./spots.ts";

/** A board as it can be touched. */
export interface Touchable {
  readonly byGroup: ReadonlyMap<number, readonly Spot[]>;
  readonly nameOf: (group: number) => string;
  readonly railOf: (group: number) => Rail | undefined;
  /** Groups with spots, those of most pads first. */
  readonly order: readonly number[];
  readonly isNamed: boolean;
  readonly joints: Joints;
  /** Its longest way, mm. */
  readonly diagonalMm: number;
}

export function boardFor(
  joined: Joined,
  spots: readonly Spot[],
  joints: Joints,
  box: readonly number[] | undefined,
): Touchable {
  const byGroup = new Map<number, Spot[]>();
  for (const s of spots) {
    const list = byGroup.get(s.group);
    if (list) list.push(s);
    else byGroup.set(s.group, [s]);
  }
  const net = new Map(joined.netList.map((n) => [n.group, n]));
  const nameOf = (g: number) => net.get(g)?.name ?? `net ${net.get(g)?.net ?? "?"}`;
  return {
    byGroup,
    nameOf,
    railOf: (g) => {
      // two names on one piece of copper are a tie: the rail of them counts
      const kinds = (net.get(g)?.names ?? []).map(railOf);
      return kinds.find((k) => k === "ground") ?? kinds.find((k) => k !== undefined);
    },
    order: joined.netList.map((n) => n.group).filter((g) => byGroup.has(g)),
    isNamed: joined.netList.some((n) => n.name !== undefined),
    joints,
    diagonalMm: box ? Math.hypot(box[2]! - box[0]!, box[3]! - box[1]!) : 100,
  };
}

/** A statement that may be made, and what it is worth. */
export interface Candidate {
  readonly a: Spot;
  readonly b: Spot;
  readonly expect: "joined" | "apart";
  readonly because: string;
  readonly names: readonly string[];
  readonly worth: number;
}

export const byWorth = (list: readonly Candidate[]) => [...list].sort((p, q) => q.worth - p.worth);

export const keyOf = (c: Candidate): string =>
  `${Math.min(c.a.group, c.b.group)} ${Math.max(c.a.group, c.b.group)}`;

/** The spot of a net that is touched most easily: on the top, and large. */
const handy = (spots: readonly Spot[]): Spot => {
  const ease = (s: Spot) => Math.min(s.sizeMm, 3) + (s.sides.includes("top") ? 1 : 0);
  return spots.reduce((a, b) => (ease(b) > ease(a) ? b : a));
};

/** All pairs of rails; on a board without names the two nets of most pads, said as the guess it is. */
export function railPairs(board: Touchable, findings: Finding[]): Candidate[] {
  const rails = board.order
    .filter((g) => board.railOf(g))
    .sort((a, b) => Number(board.railOf(b) === "ground") - Number(board.railOf(a) === "ground"));
  const pair = (a: number, b: number, because: string): Candidate => ({
    a: handy(board.byGroup.get(a)!),
    b: handy(board.byGroup.get(b)!),
    expect: "apart",
    because,
    names: [board.nameOf(a), board.nameOf(b)],
    worth: 0,
  });
  if (rails.length > 1) {
    const all = rails.flatMap((a, i) => rails.slice(i + 1).map((b) => [a, b] as const));
    const says = (a: number, b: number) => {
      const [p, q] = [board.railOf(a), board.railOf(b)];
      return p === q ? (p === "ground" ? "two grounds" : "two supplies") : "supply against ground";
    };
    // what burns comes first: supplies against ground, then against each other
    const rank = { "supply against ground": 0, "two supplies": 1, "two grounds": 2 } as const;
    return all
      .map(([a, b]) => pair(a, b, says(a, b)))
      .sort((p, q) => rank[p.because as keyof typeof rank] - rank[q.because as keyof typeof rank]);
  }
  if (rails.length === 0 && board.order.length > 1) {
    findings.push({
      tag: "rails-unknown",
      level: "remark",
      text: board.isNamed
        ? "No net has a name of a supply or ground: the two nets of most pads are tried first in their place."
        : "No net has a name: the two nets of most pads are tried first, as likely supply and ground.",
      do: "Export net names with the layers, or drop the netlist.",
    });
    return [pair(board.order[0]!, board.order[1]!, "the two nets of most pads, likely supply and ground")];
  }
  return [];
}

/** Spots of two neighbours: a rail where it is touched most easily, so that one needle may stay; others nearest to the place. */
function beside(board: Touchable, n: Neighbours): readonly [Spot, Spot] | undefined {
  const [p, q] = [board.byGroup.get(n.a), board.byGroup.get(n.b)];
  if (!p || !q) return undefined;
  const way = (s: Spot) => Math.hypot(s.x - n.x, s.y - n.y);
  const nearest = (list: readonly Spot[]) => list.reduce((a, b) => (way(b) < way(a) ? b : a));
  const spot = (g: number, list: readonly Spot[]) => (board.railOf(g) ? handy(list) : nearest(list));
  const [a, b] = [spot(n.a, p), spot(n.b, q)];
  return board.railOf(n.b) && !board.railOf(n.a) ? [b, a] : [a, b];
}

const two = (v: number) => String(Math.round(v * 100) / 100);

export function neighbourPairs(board: Touchable, list: readonly Neighbours[]): Candidate[] {
  const least = list[0]?.mm ?? 0;
  return list.flatMap((n): Candidate[] => {
    const at = beside(board, n);
    if (!at) return [];
    const rail = [board.railOf(n.a), board.railOf(n.b)].find((k) => k !== undefined);
    return [
      {
        a: at[0],
        b: at[1],
        expect: "apart",
        because: `${two(n.mm)} mm apart on ${/inner/.test(n.layer) ? n.layer : `the ${n.layer}`} near ${two(n.x)} / ${two(n.y)}`,
        names: [board.nameOf(at[0].group), board.nameOf(at[1].group)],
        worth: 12 * (2 - n.mm / least) + Math.min(4, n.meetings / 4) + (rail ? 6 : 0),
      },
    ];
  });
}

/** Every net from end to end, and what else of it hangs on a lone hole. */
export function ends(board: Touchable): Candidate[] {
  const more: Candidate[] = [];
  const whole: Candidate[] = [];
  for (const g of board.order) {
    const spots = board.byGroup.get(g)!;
    const e = endToEnd(board.joints, spots);
    if (!e) continue;
    const names = [board.nameOf(g)];
    const rail = board.railOf(g);
    const holes = (n: number) => (n === 1 ? "a single via" : `${n} single vias`);
    whole.push({
      a: e.a,
      b: e.b,
      expect: "joined",
      because: `${rail ? `${rail}, ` : ""}end to end ${two(e.mm)} mm${e.lone > 0 ? `, through ${holes(e.lone)}` : ""}`,
      names,
      worth: (10 * e.mm) / board.diagonalMm + 4 * Math.min(e.lone, 3) + (rail ? 12 : 0),
    });
    // of what else hangs on a lone hole one spot an island is enough
    const cost = singleVias(board.joints, e.a.island);
    const tried = new Set([e.a.island, e.b.island]);
    for (const s of spots) {
      const lone = cost.get(s.island) ?? 0;
      if (lone === 0 || tried.has(s.island)) continue;
      tried.add(s.island);
      more.push({
        a: e.a,
        b: s,
        expect: "joined",
        because: `${rail ? `${rail}, ` : ""}hangs on ${holes(lone)}`,
        names,
        worth: 2 * Math.min(lone, 3) + (rail ? 4 : 0),
      });
    }
  }
  return [...byWorth(whole), ...byWorth(more)];
}
