import { asMade } from "../document/bill/as-made.ts";
import type { RunDocument, RunLine } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";
import { isForPaste, isMixed } from "../document/ways.ts";

/** A part of a board that gets no paste in this build, and why. */
export interface OffPaste {
  readonly ref: string;
  readonly because: string;
}

/**
 * Parts of a board whose openings a foil of this build is cut without: not fitted, soldered by hand later, not on the board,
 * or going another way than the foil.
 *
 * @param board its id; the only one where left out
 */
export function leftOffPaste(given: RunDocument, board: string | undefined): OffPaste[] {
  const doc = asMade(given);
  const off = doc.lines
    .filter((l) => isOf(l, board))
    .flatMap((l) => {
      const because = l.dnp
        ? "is not fitted"
        : l.mount === "hand"
          ? "is soldered by hand"
          : l.mount === "none"
            ? "is not soldered"
            : undefined;
      return because === undefined ? [] : l.refs.map((ref) => ({ ref, because }));
    });
  return [...off, ...otherWays(doc, board)];
}

/** Parts for paste that go another way than the own foil, where a run's parts go several: no foil is cut for them. */
export const offOwnFoil = (doc: RunDocument, board: string | undefined): OffPaste[] =>
  otherWays(asMade(doc), board);

const isOf = (line: Pick<RunLine, "board">, board: string | undefined): boolean =>
  line.board === undefined || board === undefined || line.board === board;

const ELSEWHERE = { iron: "is soldered by iron", house: "goes on at the house" } as const;

function otherWays(doc: RunDocument, board: string | undefined): OffPaste[] {
  if (!isMixed(doc)) return [];
  return lineParts(doc).flatMap((p) => {
    if (p.method === "stencil" || !isForPaste(p) || !isOf(p.line, board)) return [];
    const because = ELSEWHERE[p.method];
    return p.line.refs.map((ref) => ({ ref, because }));
  });
}
