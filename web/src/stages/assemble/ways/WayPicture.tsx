import type { BoardSide, Method, RunBoard } from "@kobbin/core";
import { type PointerEvent, useId, useMemo, useRef, useState } from "react";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import { type DrawnPart, drawnParts, path, type ToPicture } from "../../../proof/drawnParts.ts";
import { useRun } from "../../../run/runState.ts";

/** The ways as their column is called. */
export const WAY_WORDS = { house: "house", stencil: "paste", iron: "iron" } as const satisfies Record<
  Method,
  string
>;

/** How a way is filled: whole, hatched, or a dot in an outline; never told by colour alone. */
export function Swatch({ method }: { method: Method }) {
  const id = useId();
  return (
    <svg width="15" height="11" className="inline-block align-[-1px]" aria-hidden="true">
      <defs>
        <Hatch id={id} />
      </defs>
      <path d="M1 1H14V10H1Z" stroke="var(--ink)" strokeWidth="1.4" fill={fillOf(method, id)} />
      {method === "iron" && <circle cx="7.5" cy="5.5" r="1.8" fill="var(--ink)" />}
    </svg>
  );
}

const Hatch = ({ id }: { id: string }) => (
  <pattern id={id} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <rect width="4" height="4" fill="var(--sheet)" />
    <rect width="2" height="4" fill="var(--metal)" />
  </pattern>
);
const fillOf = (method: Method, hatch: string) =>
  method === "house" ? "var(--ink)" : method === "stencil" ? `url(#${hatch})` : "var(--sheet)";

/** CSS pixels, so that both sides stand beside each other. */
const SIZE = [340, 238] as const;

interface Frame {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
}

/** A side of a board with its parts filled by who puts them on; a frame drawn over it picks parts. */
export function WayPicture({
  board,
  side,
  methodOf,
  lit,
  picked,
  onPick,
}: {
  board: RunBoard;
  side: BoardSide;
  /** The way of a part by its name; undefined where it is not put on. */
  methodOf: ReadonlyMap<string, Method>;
  /** Parts pointed at elsewhere. */
  lit: ReadonlySet<string>;
  picked: ReadonlySet<string>;
  onPick: (refs: ReadonlySet<string>) => void;
}) {
  const { doc, isLocked } = useRun();
  const [frame, setFrame] = useState<Frame>();
  const at = useRef<SVGSVGElement>(null);
  const hatch = useId();
  const parts = useMemo(
    () => drawnParts(doc, board, side, [...methodOf.keys()], new Set()),
    [doc, board, side, methodOf],
  );
  const where = (e: PointerEvent): [number, number] => {
    const box = at.current!.getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  const inside = ({ from, to: end }: Frame, to: ToPicture): Set<string> => {
    const [x0, x1] = [Math.min(from[0], end[0]), Math.max(from[0], end[0])];
    const [y0, y1] = [Math.min(from[1], end[1]), Math.max(from[1], end[1])];
    return new Set(
      parts.flatMap((p) => {
        const [x, y] = to(p.at);
        return x >= x0 && x <= x1 && y >= y0 && y <= y1 ? [p.ref] : [];
      }),
    );
  };
  return (
    <figure>
      <DrawnBoard
        board={board}
        side={side}
        size={SIZE}
        over={(to) => ({
          ref: at,
          className: `touch-none ${isLocked ? "" : "cursor-crosshair"}`,
          onPointerDown: (e) => {
            if (isLocked) return;
            e.currentTarget.setPointerCapture(e.pointerId);
            setFrame({ from: where(e), to: where(e) });
          },
          onPointerMove: (e) => frame && setFrame({ ...frame, to: where(e) }),
          onPointerUp: () => {
            if (frame) onPick(inside(frame, to));
            setFrame(undefined);
          },
          onPointerCancel: () => setFrame(undefined),
        })}
      >
        {(to) => (
          <>
            <defs>
              <Hatch id={hatch} />
            </defs>
            {parts.map((p) => (
              <Part
                key={p.ref}
                part={p}
                corners={p.corners.map(to)}
                at={to(p.at)}
                method={methodOf.get(doc.boards.length > 1 ? `${p.ref} of ${board.name}` : p.ref)!}
                hatch={hatch}
                isLit={lit.has(p.ref) || picked.has(p.ref)}
              />
            ))}
            {frame && <Drawn frame={frame} />}
          </>
        )}
      </DrawnBoard>
      <figcaption className="mt-1 text-[13px] text-ink-2">
        {doc.boards.length > 1 ? `${board.name}, ` : ""}
        {side} side
      </figcaption>
    </figure>
  );
}

const Drawn = ({ frame: { from, to } }: { frame: Frame }) => (
  <rect
    x={Math.min(from[0], to[0])}
    y={Math.min(from[1], to[1])}
    width={Math.abs(to[0] - from[0])}
    height={Math.abs(to[1] - from[1])}
    fill="var(--sheet)"
    fillOpacity="0.25"
    stroke="var(--ink)"
    strokeDasharray="4 3"
  />
);

function Part({
  corners,
  at: [x, y],
  method,
  hatch,
  isLit,
}: {
  part: DrawnPart;
  corners: readonly (readonly [number, number])[];
  at: readonly [number, number];
  method: Method;
  hatch: string;
  isLit: boolean;
}) {
  const fill = fillOf(method, hatch);
  const body =
    corners.length > 0 ? (
      <path d={path(corners)} fill={fill} stroke="var(--sheet)" strokeWidth="1" />
    ) : (
      <circle cx={x} cy={y} r="5" fill={fill} stroke="var(--sheet)" strokeWidth="1" />
    );
  return (
    <g>
      {body}
      {method === "iron" && <circle cx={x} cy={y} r="1.8" fill="var(--ink)" />}
      {isLit &&
        (corners.length > 0 ? (
          <path d={path(corners)} fill="none" stroke="var(--metal)" strokeWidth="3" />
        ) : (
          <circle cx={x} cy={y} r="7" fill="none" stroke="var(--metal)" strokeWidth="3" />
        ))}
    </g>
  );
}
