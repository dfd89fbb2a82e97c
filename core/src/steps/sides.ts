import { pastedSides, type Web, webOf } from "./atoms.ts";
import { loadOf, MOST_BELOW, type Side, type Work, type WorkPart } from "./step.ts";

/** Which side of a board with two is soldered first, and why. */
export interface SideFirst {
  readonly side: Side;
  readonly because: readonly string[];
}

export interface Sides {
  readonly first: ReadonlyMap<number, SideFirst>;
  readonly web: Web;
}

/** The sides alone. */
export const sideOf = (first: ReadonlyMap<number, SideFirst>): Map<number, Side> =>
  new Map([...first].map(([board, f]) => [board, f.side]));

/** Parts of a board, or of one of its sides, that go on paste here. */
export const onPaste = (work: Work, board: number, side?: Side): WorkPart[] =>
  work.parts.filter((p) => p.board === board && p.how === "paste" && (side === undefined || p.side === side));

/** Greatest known load of a side, g/mm²; undefined where none is known. */
function greatestLoad(work: Work, board: number, side: Side): number | undefined {
  const known = onPaste(work, board, side).flatMap((p) => loadOf(p) ?? []);
  return known.length === 0 ? undefined : Math.max(...known);
}

const words = (v: number): string => `${Number(v.toPrecision(3))} g/mm²`;

/**
 * The side with the lesser greatest load first, as it hangs below in the second heat (domain.md 7.6). Where that is not known
 * of both, one that is known to be too heavy goes second; else the one that leaves fewer conflicts, else the one with fewer parts.
 */
export function sidesOf(work: Work): Sides {
  const first = new Map<number, SideFirst>();
  const free: number[] = [];
  work.boards.forEach((_, board) => {
    if (pastedSides(work, board, "top").length < 2) return;
    const [top, bottom] = [greatestLoad(work, board, "top"), greatestLoad(work, board, "bottom")];
    const unknown = onPaste(work, board).filter((p) => loadOf(p) === undefined).length;
    const set = (side: Side, because: string) =>
      first.set(board, {
        side,
        because: [
          because,
          ...(unknown > 0
            ? [
                `Mass or wetted area is not known of ${unknown} of ${onPaste(work, board).length} parts: whether they hold below is not said.`,
              ]
            : []),
        ],
      });
    if (top !== undefined && bottom !== undefined && top !== bottom)
      set(
        top < bottom ? "top" : "bottom",
        `This side first: its heaviest part for its pads has ${words(Math.min(top, bottom))}, the other side's ${words(Math.max(top, bottom))}.`,
      );
    else if ((top ?? 0) > MOST_BELOW !== (bottom ?? 0) > MOST_BELOW)
      set(
        (top ?? 0) > MOST_BELOW ? "bottom" : "top",
        `This side first: the other has a part of ${words(Math.max(top ?? 0, bottom ?? 0))}, which would not hold below.`,
      );
    else {
      const [t, b] = [onPaste(work, board, "top").length, onPaste(work, board, "bottom").length];
      set(
        t < b ? "top" : "bottom",
        t === b ? "This side first, as good as the other." : "This side first: it has fewer parts.",
      );
      free.push(board);
    }
  });
  return freed(work, first, free);
}

/** A side that nothing decides is taken the other way round where that leaves fewer conflicts. */
function freed(work: Work, first: Map<number, SideFirst>, free: readonly number[]): Sides {
  const of = (f: ReadonlyMap<number, SideFirst>) => webOf(work, (board) => f.get(board)?.side ?? "top");
  let web = of(first);
  for (const board of free) {
    if (web.broken.length === 0) break;
    const was = first.get(board)!;
    const other: SideFirst = {
      side: was.side === "top" ? "bottom" : "top",
      because: ["This side first: the other way round more could not be.", ...was.because.slice(1)],
    };
    const tried = of(new Map(first).set(board, other));
    if (tried.broken.length >= web.broken.length) continue;
    web = tried;
    first.set(board, other);
  }
  return { first, web };
}
