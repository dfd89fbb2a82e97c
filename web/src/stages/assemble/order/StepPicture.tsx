import { type Body, boardOf, type RunBoard, type RunDocument, type Step, standingOn } from "@kobbin/core";
import { useMemo, useState } from "react";
import { boardColours } from "../../../proof/colours.ts";
import type { SmallPicture } from "../../../proof/small.ts";
import { Thumb } from "../../../proof/Thumb.tsx";
import { useRun } from "../../../run/runState.ts";

const SIZE = [374, 262] as const;

/** A part of a step as it is drawn: its body's corners, or its place alone where no size is known; where its pin 1 is. */
export interface DrawnPart {
  readonly ref: string;
  readonly at: readonly [number, number];
  readonly corners: readonly (readonly [number, number])[];
  /** The pad its direction is told by, and what it is called: 1, or K of a diode. */
  readonly mark?: { readonly at: readonly [number, number]; readonly name: string };
}

/** What of a step's parts can be drawn on a side of a board; parts are named as in the step. */
export function drawnParts(
  doc: RunDocument,
  board: RunBoard,
  side: "top" | "bottom",
  refs: readonly string[],
  directed: ReadonlySet<string>,
): DrawnPart[] {
  const { bodies, unknown } = standingOn(doc, board);
  const name = (ref: string) => (doc.boards.length > 1 ? `${ref} of ${board.name}` : ref);
  const wanted = new Set(refs);
  const pads = new Map(
    (board.measure.nets?.islands ?? []).flatMap((i) => i.pads.map((p) => [p.pin ?? "", p] as const)),
  );
  const markOf = (ref: string): Pick<DrawnPart, "mark"> => {
    if (!directed.has(name(ref))) return {};
    for (const pin of ["1", "K", "A1", "+"]) {
      const pad = pads.get(`${ref}.${pin}`);
      if (pad) return { mark: { at: [pad.x, pad.y], name: pin } };
    }
    return {};
  };
  return [
    ...bodies
      .filter((b) => b.side === side && wanted.has(name(b.ref)))
      .map((b) => ({ ref: b.ref, at: [b.x, b.y] as const, corners: cornersOf(b), ...markOf(b.ref) })),
    ...unknown.flatMap((u) =>
      u.at && (u.side ?? side) === side && wanted.has(name(u.ref))
        ? [{ ref: u.ref, at: [u.at.x, u.at.y] as const, corners: [], ...markOf(u.ref) }]
        : [],
    ),
  ];
}

function cornersOf(b: Body): [number, number][] {
  const turn = (b.turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([i, j]) => {
    const [u, v] = [(i * b.lengthMm) / 2, (j * b.widthMm) / 2];
    return [b.x + u * c - v * s, b.y + u * s + v * c];
  });
}

/** The board a step is about; the first where it is about all. */
export const boardOfStep = (doc: RunDocument, step: Step): RunBoard | undefined => {
  if (step.board !== undefined) return doc.boards[step.board];
  const line = doc.lines.find((l) => l.id === step.lines[0]?.line);
  return (line && boardOf(doc, line)) ?? doc.boards[0];
};

/** The side a step's parts are put on; by iron from the side where most of them sit. */
export function sideOfStep(doc: RunDocument, step: Step): "top" | "bottom" {
  if (step.side) return step.side;
  const refs = new Set(step.refs.map((r) => r.split(" of ")[0]));
  const sides = doc.placements.filter((p) => refs.has(p.ref)).map((p) => p.side);
  return sides.filter((s) => s === "bottom").length > sides.length / 2 ? "bottom" : "top";
}

/** The board with the parts of a step lit, in the size they have, the pad that tells their direction marked. */
export function StepPicture({
  step,
  shown,
  directed,
}: {
  step: Step;
  /** Of the step's references those that are lit; the others are only outlined. */
  shown: ReadonlySet<string>;
  directed: ReadonlySet<string>;
}) {
  const { answer, doc, result } = useRun();
  const [picture, setPicture] = useState<{ readonly of: string; readonly picture: SmallPicture }>();
  const board = boardOfStep(doc, step);
  const side = sideOfStep(doc, step);
  const parts = useMemo(
    () => (board ? drawnParts(doc, board, side, step.refs, directed) : []),
    [doc, board, side, step.refs, directed],
  );
  if (!board) return null;
  const index = doc.boards.indexOf(board);
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const of = `${answer.boardIds[index]} ${side}`;
  const now = picture?.of === of ? picture.picture : undefined;
  const to = now && mapTo(now, side);
  const lost = step.refs.length - parts.length;
  return (
    <figure>
      <div className="relative w-fit max-w-full overflow-hidden">
        <Thumb
          key={of}
          boardId={answer.boardIds[index] ?? ""}
          look={JSON.stringify([mask, finish, legend, board.measure.layers, board.measure.extentMm])}
          side={side}
          size={SIZE}
          colours={() => boardColours(mask, finish, legend)}
          onPainted={(p) => setPicture({ of, picture: p })}
        />
        {to && (
          <svg className="absolute inset-0" width={SIZE[0] + 2} height={SIZE[1] + 2} aria-hidden="true">
            <Outlined parts={parts} to={to} doc={doc} board={board} shown={shown} />
          </svg>
        )}
      </div>
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

type ToPicture = (at: readonly [number, number]) => [number, number];

function mapTo({ box: [x0, y0, x1, y1], scale }: SmallPicture, side: "top" | "bottom"): ToPicture {
  const flip = side === "bottom" ? -1 : 1;
  return ([x, y]) => [
    SIZE[0] / 2 + flip * (x - (x0 + x1) / 2) * scale + 1,
    SIZE[1] / 2 - (y - (y0 + y1) / 2) * scale + 1,
  ];
}

const path = (corners: readonly (readonly [number, number])[]) =>
  `M${corners.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;

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
