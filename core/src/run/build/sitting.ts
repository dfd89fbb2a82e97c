import type { RunNeed } from "../document/run-need.ts";
import type { PieceMark, RunSitting } from "../document/sitting.ts";

/** What a step takes up, piece by piece. */
export interface Piece {
  readonly name: string;
  readonly line: string;
  /** The how-manieth of its line in this step, from 1, and of how many. */
  readonly nth: number;
  readonly of: number;
}
type StepOf = { readonly lines: readonly { readonly line: string; readonly refs: readonly string[] }[] };
type Marks = RunSitting["marks"];

/** Every piece of a step in the order in which it is taken. */
export const piecesOf = (step: StepOf): Piece[] =>
  step.lines.flatMap(({ line, refs }) =>
    refs.map((name, i): Piece => ({ name, line, nth: i + 1, of: refs.length })),
  );

/** The piece that is next: the first that was not taken up, then what was left for later; nothing where all are on. */
export const nextPiece = (pieces: readonly Piece[], marks: Marks): Piece | undefined =>
  pieces.find((p) => marks[p.name] === undefined) ?? pieces.find((p) => marks[p.name] === "skipped");

/** The piece that was taken up last before the one that is next, as far as the order tells it. */
export function pieceBefore(pieces: readonly Piece[], marks: Marks): Piece | undefined {
  const next = nextPiece(pieces, marks);
  const end = next && marks[next.name] === undefined ? pieces.indexOf(next) : pieces.length;
  return pieces.slice(0, end).findLast((p) => marks[p.name] !== undefined);
}

/** Whether a mark is of something that was laid out, tried, loaded or looked at, and of no piece of the board. */
export const isNoPiece = (name: string): boolean => /^(test|kit|load|check|eye) /.test(name);

/** Pieces are walked one by one where they are put on; anything else is one press. */
export const isWalked = (kind: string): boolean =>
  kind === "place" || kind === "iron" || kind === "mechanical";

/** Pieces of a line that were lost at the bench, over all boards and steps. */
export const lostOf = (sittings: readonly Pick<RunSitting, "lost">[], line: string): number =>
  sittings.reduce((n, s) => n + (s.lost[line] ?? 0), 0);

/**
 * Spare pieces of a line for all boards; nothing where another line or a machine draws on them too: how many of them are
 * for this hand is not known then.
 */
export const spareByHand = (
  need: Pick<RunNeed, "lines" | "terms" | "lost"> | undefined,
): number | undefined =>
  need?.lines.length === 1 && need.terms.every((t) => t.by === "hand") ? need.lost : undefined;

/** How far a step of a board is. */
export interface StepStand {
  readonly on: number;
  readonly doubts: number;
  readonly skipped: number;
  readonly left: number;
  readonly of: number;
}

/** Pieces of a step by what was done with them; they add up. */
export function stepStand(pieces: readonly Piece[], marks: Marks): StepStand {
  const n = (m: PieceMark) => pieces.filter((p) => marks[p.name] === m).length;
  const [done, doubts, skipped] = [n("done"), n("doubt"), n("skipped")];
  return {
    on: done + doubts,
    doubts,
    skipped,
    left: pieces.length - done - doubts - skipped,
    of: pieces.length,
  };
}

/** Steps that are done once for all boards, whatever is walked board by board. */
const ONCE = new Set(["kit", "program-before", "depanel"]);
/** Whether a step is done once for all boards. */
export const isOnce = (kind: string): boolean => ONCE.has(kind);
/** The number a sitting of a step of a board stands under. */
export const unitOfStep = (kind: string, unit: number): number => (isOnce(kind) ? 0 : unit);

/** Where a board is: the first step that is not done; nothing where all are. */
export function stepOfUnit<S extends { readonly n: number; readonly kind: string }>(
  steps: readonly S[],
  sittings: readonly Pick<RunSitting, "unit" | "step" | "isDone">[],
  unit: number,
): S | undefined {
  const done = new Set(sittings.flatMap((s) => (s.isDone ? [`${s.unit} ${s.step}`] : [])));
  return steps.find((s) => !done.has(`${unitOfStep(s.kind, unit)} ${s.n}`));
}

/** Own minutes of steps, over all devices. */
export const minutesOf = (sittings: readonly Pick<RunSitting, "minutes">[]): number =>
  sittings.reduce((n, s) => n + Object.values(s.minutes).reduce((a, b) => a + b, 0), 0);

/**
 * What the bench knows that is not counted yet: boards that were begun there beyond those counted as started, and whole
 * minutes beyond those written down. Never less than nothing: who counted more by hand is right.
 */
export function notCounted(
  sittings: readonly Pick<RunSitting, "unit" | "minutes">[],
  tally: { readonly started: number; readonly minutes: number },
): { readonly started: number; readonly minutes: number } {
  const begun = new Set(sittings.flatMap((s) => (s.unit > 0 ? [s.unit] : []))).size;
  return {
    started: Math.max(0, begun - tally.started),
    minutes: Math.max(0, Math.round(minutesOf(sittings)) - tally.minutes),
  };
}

/** Longer than this between two presses nobody worked, minutes. */
export const IDLE_MIN = 3;
/** Minutes between two presses that count: none where somebody was away. @param ms between them */
export const workedMinutes = (ms: number): number => (ms < 0 || ms > IDLE_MIN * 60_000 ? 0 : ms / 60_000);

/** A kind of part that is laid out before anything begins: how many, from where, and where it goes. */
export interface KitLine {
  /** As it is marked at the bench: no piece is called so. */
  readonly name: string;
  readonly line: string;
  readonly refs: readonly string[];
  /** Pieces in one product. */
  readonly pieces: number;
  /** Places it lies at, as far as they are known. */
  readonly places: readonly string[];
}

const byPlace = new Intl.Collator("en", { numeric: true, sensitivity: "base" });

/**
 * Everything that is laid out, a line at a time, in the order in which one walks along the shelf (places as people number
 * them: box 2 before box 10); what has no place comes last, in the order in which it is put on.
 *
 * @param placesOf where a line lies, beside what the steps know
 */
export function kitLines(
  steps: readonly {
    readonly lines: readonly {
      readonly line: string;
      readonly refs: readonly string[];
      readonly pieces: number;
      readonly lies?: readonly string[];
    }[];
  }[],
  placesOf: (line: string) => readonly string[],
): KitLine[] {
  const lines = new Map<string, KitLine>();
  for (const l of steps.flatMap((s) => s.lines)) {
    const was = lines.get(l.line);
    lines.set(l.line, {
      name: `kit ${l.line}`,
      line: l.line,
      refs: [...(was?.refs ?? []), ...l.refs],
      pieces: (was?.pieces ?? 0) + l.pieces,
      places: was?.places ?? [...new Set([...(l.lies ?? []), ...placesOf(l.line)])].filter((p) => p !== ""),
    });
  }
  const first = (l: KitLine) => l.places[0];
  return [...lines.values()].sort((a, b) => {
    const [p, q] = [first(a), first(b)];
    if (p === undefined || q === undefined) return Number(p === undefined) - Number(q === undefined);
    return byPlace.compare(p, q);
  });
}

/** Lines of the kit as they are walked: one press each. */
export const kitPieces = (lines: readonly KitLine[]): Piece[] =>
  lines.map(({ name, line }) => ({ name, line, nth: 1, of: 1 }));
