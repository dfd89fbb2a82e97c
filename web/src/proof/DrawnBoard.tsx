import type { RunBoard } from "@kobbin/core";
import { type ComponentProps, type ReactNode, useState } from "react";
import { useRun } from "../run/runState.ts";
import { boardColours } from "./colours.ts";
import { SIZE, type ToPicture, toPicture } from "./drawnParts.ts";
import type { SmallPicture } from "./thumb/small.ts";
import { Thumb } from "./thumb/Thumb.tsx";

/** A side of a board of the run, all of it or a window about a place, with what is drawn over it once it is painted. */
export function DrawnBoard({
  board,
  side,
  size = SIZE,
  window: view = size,
  about,
  over,
  children,
}: {
  board: RunBoard;
  side: "top" | "bottom";
  /** CSS pixels of the whole side. */
  size?: readonly [number, number];
  /** CSS pixels of what is seen of it. */
  window?: readonly [number, number];
  /** Millimetres of the board the window is laid about; its middle where left out. */
  about?: readonly [number, number] | undefined;
  /** What the drawing over it does beside being seen. */
  over?: (to: ToPicture) => ComponentProps<"svg">;
  children: (to: ToPicture) => ReactNode;
}) {
  const { answer, doc, result } = useRun();
  const [painted, setPainted] = useState<{ readonly of: string; readonly picture: SmallPicture }>();
  const index = doc.boards.indexOf(board);
  const boardId = answer.boardIds[index] ?? "";
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const of = `${boardId} ${side} ${size}`;
  // a picture of another board says nothing of where this one's parts are
  const to = painted?.of === of ? toPicture(painted.picture, side, size) : undefined;
  const [x, y] = to && about ? to(about) : [size[0] / 2, size[1] / 2];
  const more = to && over?.(to);
  const [left, top] = [within(x, size[0], view[0]), within(y, size[1], view[1])];
  return (
    <div
      className={`relative max-w-full overflow-hidden ${view === size ? "" : "border border-rule"}`}
      // the picture has a line about it
      style={{ width: view[0] + 2, height: view[1] + 2 }}
    >
      <div className="absolute" style={{ left: -left, top: -top }}>
        <Thumb
          key={of}
          boardId={boardId}
          look={JSON.stringify([mask, finish, legend, board.measure.layers, board.measure.extentMm])}
          side={side}
          size={size}
          colours={() => boardColours(mask, finish, legend)}
          onPainted={(picture) => setPainted({ of, picture })}
        />
        {to && (
          <svg
            width={size[0] + 2}
            height={size[1] + 2}
            aria-hidden="true"
            {...more}
            className={`absolute inset-0 ${more?.className ?? ""}`}
          >
            {children(to)}
          </svg>
        )}
      </div>
    </div>
  );
}

/** Where a window begins so that a place is in its middle, and never beyond the edge. */
const within = (at: number, whole: number, view: number): number =>
  Math.min(Math.max(0, whole - view), Math.max(0, at - view / 2));
