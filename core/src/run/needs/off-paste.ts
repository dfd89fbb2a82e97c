import { asMade } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";

/** A part of a board that gets no paste in this build, and why. */
export interface OffPaste {
  readonly ref: string;
  readonly because: string;
}

/**
 * Parts of a board whose openings a foil of this build is cut without: not fitted, soldered by hand later, not on the board.
 *
 * @param board its id; the only one where left out
 */
export function leftOffPaste(given: RunDocument, board: string | undefined): OffPaste[] {
  const doc = asMade(given);
  return doc.lines
    .filter((l) => l.board === undefined || board === undefined || l.board === board)
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
}
