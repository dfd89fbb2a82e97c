import type { RunBoard, RunDocument, Step } from "@kobbin/core";
import { useMemo } from "react";
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

/** The board with the parts of a step lit, in the size they have, the pad that tells their direction marked. */
export function StepPicture({
  step,
  shown,
  directed,
  isPath = false,
}: {
  step: Step;
  /** Of the step's references those that are lit; the others are only outlined. */
  shown: ReadonlySet<string>;
  directed: ReadonlySet<string>;
  /** The way from part to part is drawn. */
  isPath?: boolean;
}) {
  const { doc } = useRun();
  const board = boardOfStep(doc, step);
  const side = sideOfStep(doc, step);
  const parts = useMemo(
    () => (board ? drawnParts(doc, board, side, step.refs, directed) : []),
    [doc, board, side, step.refs, directed],
  );
  if (!board) return null;
  const lost = step.refs.length - parts.length;
  return (
    <figure>
      <DrawnBoard board={board} side={side}>
        {(to) => (
          <>
            {isPath && <Way refs={step.refs} parts={parts} to={to} />}
            <Outlined parts={parts} to={to} doc={doc} board={board} shown={shown} />
          </>
        )}
      </DrawnBoard>
      <figcaption className="mt-1 text-[13px] text-ink-2">
        {doc.boards.length > 1 ? `${board.name}, ` : ""}
        {side} side
        {lost > 0
          ? `; ${lost} of ${step.refs.length} have no place that is known, or sit on the other side`
          : ""}
      </figcaption>
    </figure>
  );
}

/** From part to part in the order in which they are placed, with a ring where it begins. */
function Way({ refs, parts, to }: { refs: readonly string[]; parts: readonly DrawnPart[]; to: ToPicture }) {
  const at = new Map(parts.map((p) => [p.ref, p.at]));
  const points = refs.flatMap((r) => {
    const place = at.get(r.split(" of ")[0]!);
    return place ? [to(place)] : [];
  });
  const [first] = points;
  if (!first || points.length < 2) return null;
  return (
    <>
      <polyline
        points={points.map((p) => p.join(",")).join(" ")}
        fill="none"
        stroke="var(--sheet)"
        strokeWidth="1.6"
        strokeDasharray="5 3"
      />
      <circle cx={first[0]} cy={first[1]} r="8" fill="none" stroke="var(--sheet)" strokeWidth="2.2" />
    </>
  );
}

/** Names are written while so few are lit. */
const NAMED = 12;

function Outlined({
  parts,
  to,
  doc,
  board,
  shown,
}: {
  parts: readonly DrawnPart[];
  to: ToPicture;
  doc: RunDocument;
  board: RunBoard;
  shown: ReadonlySet<string>;
}) {
  const isLit = (p: DrawnPart) => shown.has(doc.boards.length > 1 ? `${p.ref} of ${board.name}` : p.ref);
  const lit = parts.filter(isLit);
  return (
    <>
      {parts
        .filter((p) => !isLit(p))
        .map((p) =>
          p.corners.length > 0 ? (
            <path
              key={p.ref}
              d={path(p.corners.map(to))}
              fill="none"
              stroke="var(--sheet)"
              strokeWidth="1.2"
            />
          ) : null,
        )}
      {lit.map((p) => {
        const [x, y] = to(p.at);
        return p.corners.length > 0 ? (
          <g key={p.ref}>
            <path d={path(p.corners.map(to))} fill="none" stroke="var(--sheet)" strokeWidth="5" />
            <path
              d={path(p.corners.map(to))}
              fill="var(--metal)"
              fillOpacity="0.35"
              stroke="var(--metal)"
              strokeWidth="2.4"
            />
          </g>
        ) : (
          <circle key={p.ref} cx={x} cy={y} r="9" fill="none" stroke="var(--metal)" strokeWidth="2.6" />
        );
      })}
      {lit.map((p) => {
        if (!p.mark) return null;
        const [x, y] = to(p.mark.at);
        return (
          <g key={p.ref}>
            <circle cx={x} cy={y} r="4.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.8" />
            <circle cx={x} cy={y} r="1.6" fill="var(--ink)" />
          </g>
        );
      })}
      {lit.length <= NAMED &&
        lit.map((p) => {
          const [x, y] = to(p.at);
          return (
            <text
              key={p.ref}
              x={x}
              y={y - 9}
              textAnchor="middle"
              fontSize="13"
              fontWeight="700"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {p.ref}
            </text>
          );
        })}
    </>
  );
}
