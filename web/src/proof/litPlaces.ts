import type { RunDocument } from "@kobbin/core";
import { addTo } from "@kobbin/core";

type RunPlacement = RunDocument["placements"][number];

/** Where the parts of some lines sit: on which board and side most of them do, and which of them are there. */
export interface Lit {
  /** Position of the board among the run's. */
  readonly board: number;
  readonly side: "top" | "bottom";
  readonly places: readonly RunPlacement[];
  /** References with a place elsewhere: on the other side, or on another board. */
  readonly elsewhere: number;
  /** References nothing says a place of. */
  readonly unplaced: number;
}

/**
 * @param lines ids of lines of the bill
 * @returns nothing where none of the lines has a reference
 */
export function litPlaces(doc: RunDocument, lines: readonly string[]): Lit | undefined {
  const first = doc.boards[0]?.id;
  const wanted = doc.lines.filter((l) => lines.includes(l.id) && l.refs.length > 0);
  const all = wanted.reduce((n, l) => n + new Set(l.refs).size, 0);
  if (all === 0) return undefined;
  const groups = new Map<string, RunPlacement[]>();
  let placed = 0;
  for (const p of doc.placements) {
    const board = p.board ?? first;
    // the same reference may stand on several boards: a line is of one of them
    if (!wanted.some((l) => (l.board ?? first) === board && l.refs.includes(p.ref))) continue;
    placed++;
    const key = `${board} ${p.side}`;
    addTo(groups, key, p);
  }
  const best = [...groups.values()].sort((a, b) => b.length - a.length)[0];
  const board = best ? doc.boards.findIndex((b) => b.id === (best[0]!.board ?? first)) : 0;
  return {
    board: Math.max(0, board),
    side: best?.[0]?.side ?? "top",
    places: best ?? [],
    elsewhere: placed - (best?.length ?? 0),
    unplaced: Math.max(0, all - placed),
  };
}
