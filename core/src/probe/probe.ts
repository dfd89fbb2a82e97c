import { Attempts, NotMeasurable } from "../board/attempts.ts";
import type { BoardSet } from "../board/board-file.ts";
import { groundOf, SIDES } from "../board/measure/measure-ground.ts";
import { joinBoard } from "../board/measure/measure-nets.ts";
import { r6 } from "../board/worst.ts";
import { AppError } from "../errors.ts";
import type { Finding } from "../findings.ts";
import { orGivenUp, Work } from "../geometry/work.ts";
import { jointsOf } from "./joints.ts";
import { neighboursOf } from "./neighbours.ts";
import { type OuterSide, type Spot, spotsOf } from "./spots.ts";
import { boardFor, byWorth, type Candidate, ends, keyOf, neighbourPairs, railPairs } from "./statements.ts";

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
  /** Nets of two pads and more that cannot be touched at two places: nothing there is bare, as far as is known. */
  readonly outOfReach: readonly string[];
  readonly findings: readonly Finding[];
}

/** Finding both places, touching them, looking at the list: seconds for one statement, as practised. */
export const SECONDS_A_PROBE = 11;

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
  const unmasked = SIDES.filter((side, i) => !ground.masks[i] && ground.copper.some((l) => l.name === side));
  if (!hasMask || unmasked.length > 0)
    findings.push({
      tag: "layer-missing",
      level: "remark",
      text: hasMask
        ? `No file holds the mask of the ${unmasked.join(" and ")}: what is bare there is not known, and no needle is sent there.`
        : "No file holds mask: every pad of the outer layers is taken as bare.",
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
      .map((n) => board.nameOf(n.group)),
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
