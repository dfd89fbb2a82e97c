import { Attempts, NotMeasurable } from "../board/attempts.ts";
import type { BoardSet } from "../board/board-file.ts";
import { groundOf } from "../board/measure-ground.ts";
import { type Joined, joinBoard } from "../board/measure-nets.ts";
import { r6 } from "../board/worst.ts";
import { AppError } from "../errors.ts";
import type { Finding } from "../findings.ts";
import { orGivenUp, Work } from "../geometry/work.ts";
import { endToEnd, type Joints, jointsOf, singleVias } from "./joints.ts";
import { type Neighbours, neighboursOf } from "./neighbours.ts";
import { type Rail, railOf } from "./rails.ts";
import { type OuterSide, type Spot, spotsOf } from "./spots.ts";

/** A place a needle is held to; x and y in mm as in the files. */
export interface ProbePoint {
  readonly layer: OuterSide;
  readonly x: number;
  readonly y: number;
  /** "U1.4" where it is known. */
  readonly pad?: string;
}

/** One thing to try on a bare board with a meter that beeps. */
export interface Probe {
  readonly a: ProbePoint;
  readonly b: ProbePoint;
  /** Joined must beep, apart must not. */
  readonly expect: "joined" | "apart";
  readonly because: string;
  /** Names of the net, or of the two. */
  readonly nets: readonly string[];
}

/** The document `probe/1`: what to try on a bare board in the minutes there are. */
export interface ProbeDocument {
  readonly kobbin: "probe/1";
  readonly outcome: "accept" | "reject";
  readonly reason?: string;
  readonly probes: readonly Probe[];
  readonly minutes: number;
  readonly covers: {
    /** Nets tried from end to end, of those that can be touched at two places. */
    readonly nets: number;
    readonly ofNets: number;
    /** Pairs of nets tried against each other, of the rails and neighbours found. */
    readonly pairs: number;
    readonly ofPairs: number;
  };
  /** Nets of two pads and more that cannot be touched at two places: mask lies over them. */
  readonly outOfReach: readonly string[];
  readonly findings: readonly Finding[];
}

/** Finding both places, touching them, looking at the list: seconds for one statement, as practised. */
export const SECONDS_A_PROBE = 11;
/** Names of nets out of reach that are told. */
const MOST_NAMED = 50;

/**
 * The list for trying a bare board with a meter: the statements that matter most in the minutes there are.
 *
 * All pairs of rails first, apart; then by worth: neighbours closer than twice the least gap (nearer, longer beside each
 * other and next to a rail worth more), nets from end to end (longer, through more lone holes and rails worth more), and
 * with time left what hangs on a lone hole elsewhere. Every statement is held against the copper before it is given.
 *
 * @param minutes above 0, at most 600; a statement takes {@link SECONDS_A_PROBE}
 * @throws AppError OUT_OF_RANGE where the minutes are no such number
 */
export function probeBoard(set: BoardSet, minutes = 5, work = Work.ofBoard()): ProbeDocument {
  if (!(Number.isFinite(minutes) && minutes > 0 && minutes <= 600))
    throw new AppError("OUT_OF_RANGE", "The minutes are no number above 0.", "Give up to 600 minutes.");
  const findings: Finding[] = [];
  const attempts = new Attempts(findings, work);
  try {
    return orGivenUp(
      () => listed(set, minutes, findings, attempts),
      (error) => attempts.giveUp("The probing list", error),
    );
  } catch (error) {
    if (!(error instanceof NotMeasurable)) throw error;
    return rejected(error.message, findings);
  }
}

const rejected = (reason: string, findings: readonly Finding[]): ProbeDocument => ({
  kobbin: "probe/1",
  outcome: "reject",
  reason,
  probes: [],
  minutes: 0,
  covers: { nets: 0, ofNets: 0, pairs: 0, ofPairs: 0 },
  outOfReach: [],
  findings,
});

function listed(set: BoardSet, minutes: number, findings: Finding[], attempts: Attempts): ProbeDocument {
  const ignored: Finding[] = [];
  const ground = groundOf(set, ignored, attempts, () => {});
  if (ground.copper.length === 0) return rejected("No file holds copper.", findings);
  const joined = joinBoard(set, ground, ignored, () => {});
  const hasMask = ground.masks.some((m) => m !== undefined);
  if (!hasMask)
    findings.push({
      tag: "layer-missing",
      level: "remark",
      text: "No file holds mask: every pad of the outer layers is taken as bare.",
      do: "Drop the mask layers too, if the board has mask.",
    });
  const { nets, bodies, openOf, listedPoints } = joined;
  const spots = spotsOf({ copper: ground.copper, nets, bodies, openOf, hasMask, listed: listedPoints });
  const board = boardFor(joined, spots, jointsOf(ground.copper, nets, bodies), ground.outline?.box);
  const rails = railPairs(board, findings);
  const taken = new Set(rails.map(keyOf));
  const apart = byWorth(
    neighbourPairs(board, neighboursOf(ground.copper, nets)).filter((p) => !taken.has(keyOf(p))),
  );
  const all = [...rails, ...inTurn(ends(board), apart)];
  const most = Math.max(1, Math.floor((minutes * 60) / SECONDS_A_PROBE));
  const chosen = all.slice(0, most);
  for (const c of chosen)
    if ((c.a.group === c.b.group) !== (c.expect === "joined"))
      throw new Error(`a statement contradicts the copper: ${c.names.join(" and ")} ${c.expect}`);
  const pairs = (list: readonly Candidate[]) =>
    new Set(list.filter((c) => c.expect === "apart").map(keyOf)).size;
  return {
    kobbin: "probe/1",
    outcome: "accept",
    probes: chosen.map(probeOf),
    minutes: Math.round((chosen.length * SECONDS_A_PROBE) / 6) / 10,
    covers: {
      nets: new Set(chosen.filter((c) => c.expect === "joined").map((c) => c.a.group)).size,
      ofNets: [...board.byGroup.values()].filter((s) => s.length > 1).length,
      pairs: pairs(chosen),
      ofPairs: pairs(all),
    },
    outOfReach: joined.netList
      .filter((n) => placesOf(n.pads) > 1 && (board.byGroup.get(n.group)?.length ?? 0) < 2)
      .map((n) => board.nameOf(n.group))
      .slice(0, MOST_NAMED),
    findings,
  };
}

/** One of each in turn, so that a short time tries both breaks and shorts. */
const inTurn = <T>(a: readonly T[], b: readonly T[]): T[] =>
  Array.from({ length: Math.max(a.length, b.length) }).flatMap((_, i) => [
    ...a.slice(i, i + 1),
    ...b.slice(i, i + 1),
  ]);

const placesOf = (pads: readonly { readonly x: number; readonly y: number }[]): number =>
  new Set(pads.map((p) => `${Math.round(p.x * 100)} ${Math.round(p.y * 100)}`)).size;

/** A board as it can be touched. */
interface Touchable {
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

function boardFor(
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
interface Candidate {
  readonly a: Spot;
  readonly b: Spot;
  readonly expect: Probe["expect"];
  readonly because: string;
  readonly names: readonly string[];
  readonly worth: number;
}

const byWorth = (list: readonly Candidate[]) => [...list].sort((p, q) => q.worth - p.worth);

const keyOf = (c: Candidate): string => `${Math.min(c.a.group, c.b.group)} ${Math.max(c.a.group, c.b.group)}`;

/** The spot of a net that is touched most easily: on the top, and large. */
const handy = (spots: readonly Spot[]): Spot => {
  const ease = (s: Spot) => Math.min(s.sizeMm, 3) + (s.sides.includes("top") ? 1 : 0);
  return spots.reduce((a, b) => (ease(b) > ease(a) ? b : a));
};

/** All pairs of rails; on a board without names the two nets of most pads, said as the guess it is. */
function railPairs(board: Touchable, findings: Finding[]): Candidate[] {
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

function neighbourPairs(board: Touchable, list: readonly Neighbours[]): Candidate[] {
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
function ends(board: Touchable): Candidate[] {
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

function probeOf({ a, b, expect, because, names }: Candidate): Probe {
  const both = a.sides.find((s) => b.sides.includes(s));
  const point = (s: Spot): ProbePoint => ({
    layer: both ?? (s.sides.includes("top") ? "top" : "bottom"),
    x: r6(s.x),
    y: r6(s.y),
    ...(s.pad ? { pad: s.pad } : {}),
  });
  return { a: point(a), b: point(b), expect, because, nets: names };
}
