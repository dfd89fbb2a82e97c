import { useRun } from "../run/runState.ts";
import { useTheme } from "../ui/useTheme.ts";
import type { BoardConnection } from "../workers/board.ts";
import { boardColours } from "./colours.ts";
import { Small } from "./Plates.tsx";
import { Thumb } from "./thumb/Thumb.tsx";

/** CSS pixels of a side. */
const SIZE = [178, 126] as const;

/** Both sides of the run's first board as they will be delivered, in small, as they were painted once. */
export function InColours({ size }: { size: readonly [number, number] }) {
  const { doc, result, answer } = useRun();
  const board = doc.boards[0];
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  if (!board?.measure.extentMm) return null;
  const { layers, extentMm } = board.measure;
  return (
    <figure className="flex shrink-0 flex-wrap gap-x-3 gap-y-2">
      {(["top", "bottom"] as const).map((side) => (
        <Thumb
          key={side}
          boardId={answer.boardIds[0] ?? ""}
          look={JSON.stringify([mask, finish, legend, layers, extentMm])}
          side={side}
          size={size}
          colours={() => boardColours(mask, finish, legend)}
        />
      ))}
      <Says mask={mask} legend={legend} />
    </figure>
  );
}

const Says = ({ mask, legend }: { mask: string; legend: string }) => (
  <figcaption className="sr-only">
    The board from both sides as it will be delivered: mask {mask}, silkscreen {legend}.
  </figcaption>
);

/** Both sides of the run's first board as they will be delivered, in the colours and the finish that are chosen. */
export function BothSides({
  board,
  size = SIZE,
}: {
  board: BoardConnection | undefined;
  size?: readonly [number, number];
}) {
  const { doc, result } = useRun();
  // the colours below hold the page's paper
  useTheme();
  const m = doc.boards[0]?.measure;
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  if (!m?.extentMm) return null;
  const colours = boardColours(mask, finish, legend);
  return (
    <figure className="flex shrink-0 flex-wrap gap-x-3 gap-y-2">
      {(["top", "bottom"] as const).map((side) => (
        <div key={side} className="border border-rule bg-sheet p-1">
          {board ? (
            <Small
              board={board}
              box={m.extentMm!}
              plate={{ side, forward: undefined }}
              colours={colours}
              size={size}
            />
          ) : (
            <div className="skeleton" style={{ width: size[0], height: size[1] }} />
          )}
        </div>
      ))}
      <Says mask={mask} legend={legend} />
    </figure>
  );
}
