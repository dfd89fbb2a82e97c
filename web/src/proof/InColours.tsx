import { useRun } from "../run/runState.ts";
import { useTheme } from "../ui/useTheme.ts";
import type { BoardConnection } from "../workers/board.ts";
import { boardColours } from "./colours.ts";
import { Small } from "./Plates.tsx";
import { useBoardWorker } from "./useBoardWorker.ts";

/** CSS pixels of a side. */
const SIZE = [178, 126] as const;

/** Both sides of the run's first board as they will be delivered, read by a worker of its own. */
export function InColours({ size }: { size: readonly [number, number] }) {
  const { answer } = useRun();
  const { board } = useBoardWorker(answer.boardIds[0] ?? "", "in colours");
  return <BothSides board={board} size={size} />;
}

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
      <figcaption className="sr-only">
        The board from both sides as it will be delivered: mask {mask}, silkscreen {legend}.
      </figcaption>
    </figure>
  );
}
