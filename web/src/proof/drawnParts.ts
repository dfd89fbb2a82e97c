import { type Body, boardOf, type RunBoard, type RunDocument, type Step, standingOn } from "@kobbin/core";
import type { SmallPicture } from "./thumb/small.ts";

/** CSS pixels of a board's picture at a step. */
export const SIZE = [374, 262] as const;

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

/** From millimetres of a board to the pixels of its small picture. */
export type ToPicture = (at: readonly [number, number]) => [number, number];

export function toPicture(
  { box: [x0, y0, x1, y1], scale }: SmallPicture,
  side: "top" | "bottom",
  size: readonly [number, number] = SIZE,
): ToPicture {
  const flip = side === "bottom" ? -1 : 1;
  return ([x, y]) => [
    size[0] / 2 + flip * (x - (x0 + x1) / 2) * scale + 1,
    size[1] / 2 - (y - (y0 + y1) / 2) * scale + 1,
  ];
}

/** A closed outline of corners. */
export const path = (corners: readonly (readonly [number, number])[]) =>
  `M${corners.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;

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
