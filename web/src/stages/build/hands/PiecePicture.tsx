import type { Piece, PieceMark, Step } from "@kobbin/core";
import { useMemo } from "react";
import { CLOSE, SMALL, useClose, wholeOf } from "../../../bench-side/closeUp.ts";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import {
  boardOfStep,
  type DrawnPart,
  drawnParts,
  path,
  sideOfStep,
  type ToPicture,
} from "../../../proof/drawnParts.ts";
import { useRun } from "../../../run/runState.ts";

/** Where a piece goes: the board with it lit, and close up, what is on already drawn fainter. */
export function PiecePicture({
  step,
  piece,
  marks,
  directed,
}: {
  step: Step;
  piece: Piece;
  marks: Readonly<Record<string, PieceMark>>;
  directed: ReadonlySet<string>;
}) {
  const { doc } = useRun();
  const close = useClose();
  const board = boardOfStep(doc, step);
  const side = sideOfStep(doc, step);
  const parts = useMemo(
    () => (board ? drawnParts(doc, board, side, step.refs, directed) : []),
    [doc, board, side, step.refs, directed],
  );
  // the same picture while the board is the same: it is painted once
  const whole = useMemo(() => (board ? wholeOf(board) : CLOSE), [board]);
  if (!board) return null;
  const nameOf = (p: DrawnPart) => (doc.boards.length > 1 ? `${p.ref} of ${board.name}` : p.ref);
  const lit = parts.find((p) => nameOf(p) === piece.name);
  const isOn = (p: DrawnPart) => ["done", "doubt"].includes(marks[nameOf(p)] ?? "");
  return (
    <div className="flex flex-wrap items-start gap-5 max-sm:gap-2">
      <figure>
        <DrawnBoard board={board} side={side} size={whole} window={close} about={lit?.at}>
          {(to) => <Pieces parts={parts} to={to} isOn={isOn} lit={lit} stroke={3} />}
        </DrawnBoard>
        <figcaption className="mt-1 text-[14px] text-ink-2">
          {doc.boards.length > 1 ? `${board.name}, ` : ""}
          {side} side
          {lit ? "" : ": where it sits is in no file"}
        </figcaption>
      </figure>
      <div className="max-sm:hidden">
        <DrawnBoard board={board} side={side} size={SMALL}>
          {(to) => <Pieces parts={parts} to={to} isOn={isOn} lit={lit} stroke={2} />}
        </DrawnBoard>
      </div>
    </div>
  );
}

function Pieces({
  parts,
  to,
  isOn,
  lit,
  stroke,
}: {
  parts: readonly DrawnPart[];
  to: ToPicture;
  isOn: (p: DrawnPart) => boolean;
  lit: DrawnPart | undefined;
  stroke: number;
}) {
  return (
    <>
      {parts
        .filter((p) => p !== lit && p.corners.length > 0)
        .map((p) => (
          <path
            key={p.ref}
            d={path(p.corners.map(to))}
            fill={isOn(p) ? "var(--ink)" : "none"}
            fillOpacity="0.55"
            stroke="var(--sheet)"
            strokeWidth={stroke / 2}
          />
        ))}
      {lit && <Lit part={lit} to={to} stroke={stroke} />}
    </>
  );
}

/** The piece that is next: outlined twice, the pad that tells its direction marked and named. */
function Lit({ part, to, stroke }: { part: DrawnPart; to: ToPicture; stroke: number }) {
  const [x, y] = to(part.at);
  const mark = part.mark && to(part.mark.at);
  return (
    <>
      {part.corners.length > 0 ? (
        <>
          <path d={path(part.corners.map(to))} fill="none" stroke="var(--sheet)" strokeWidth={3 * stroke} />
          <path
            d={path(part.corners.map(to))}
            fill="var(--metal)"
            fillOpacity="0.3"
            stroke="var(--metal)"
            strokeWidth={1.4 * stroke}
          />
        </>
      ) : (
        <circle cx={x} cy={y} r={7 * stroke} fill="none" stroke="var(--metal)" strokeWidth={1.4 * stroke} />
      )}
      {mark && part.mark && (
        <>
          <circle
            cx={mark[0]}
            cy={mark[1]}
            r={2.6 * stroke}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={stroke}
          />
          {stroke > 2 && (
            <text
              x={mark[0]}
              y={mark[1] - 4 * stroke}
              textAnchor="middle"
              fontSize="20"
              fontWeight="700"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="5"
              paintOrder="stroke"
            >
              {part.mark.name}
            </text>
          )}
        </>
      )}
    </>
  );
}
