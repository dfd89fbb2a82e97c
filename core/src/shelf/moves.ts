/** A change of a lot as the record of changes has it, the oldest first. */
export interface LotChange {
  readonly op: "insert" | "update" | "delete";
  /** ISO instant. */
  readonly at: string;
  readonly person: string;
  readonly sentence: string;
  /** Pieces before and after, as far as the change wrote them. */
  readonly was?: number;
  readonly became?: number;
}

/** Pieces that came to a lot or went from it, and what lay there then. */
export interface LotMove {
  readonly at: string;
  readonly person: string;
  readonly because: string;
  readonly by: number;
  readonly left: number;
}

/**
 * Where the pieces of a lot came from and went, the newest first: every change of its count with its reason. It is told
 * backwards from what lies there now, since what a lot began with stands in no change. The moves sum to what is left.
 *
 * @param now pieces that lie there
 */
export function movesOf(changes: readonly LotChange[], now: number): LotMove[] {
  const moves: LotMove[] = [];
  let left = now;
  for (const { op, at, person, sentence, was, became } of [...changes].reverse()) {
    // what a lot was put down with, or brought back with, is what follows says
    const before = op === "insert" ? 0 : (was ?? left);
    const after = became ?? left;
    if (after !== before) moves.push({ at, person, because: sentence, by: after - before, left: after });
    left = before;
  }
  return moves;
}
