import { useEffect, useRef } from "react";
import { fixed } from "../ui/text/format.ts";
import type { BoardConnection } from "../workers/board.ts";
import {
  Dimensions,
  Marks,
  Places,
  type ProofMark,
  type ProofPlace,
  Readout,
  StretchLine,
  Target,
} from "./Overlay.tsx";
import { useHands } from "./useHands.ts";
import { useRuler } from "./useRuler.ts";
import { useTiles } from "./useTiles.ts";
import { type Focus, useView } from "./useView.ts";

export type Forward = "copper" | "mask" | "paste" | "legend";

/** How near a press must be to mean a point of the board, pixels. */
const REACH_PX = 10;

/** A hand that picks one place instead of measuring between two. */
const pickerOf = (
  board: BoardConnection,
  side: "top" | "bottom",
  onPick: (x: number, y: number) => void,
) => ({
  stretch: undefined,
  clear: () => undefined,
  press: async (x: number, y: number, scale: number) => {
    const at = (await board.snap(x, y, REACH_PX / scale, side)) ?? { x, y };
    onPick(at.x, at.y);
  },
});

/**
 * The board as delivered, on graph paper, with dimension lines and numbered marks. Wheel and pinch zoom, drag, keys.
 *
 * A worker paints it in tiles; the page's own thread only moves them.
 */
export function Proof({
  board,
  box,
  isSized,
  side,
  forward,
  mask = "green",
  finish = "",
  legend = "white",
  marks = [],
  onMark,
  places = [],
  isMeasuring = false,
  onPick,
  focus,
  height = 460,
  label = "Board",
  hasDimensions = true,
  paintKey = 0,
}: {
  board: BoardConnection;
  box: readonly [number, number, number, number];
  /** The box is the board's: its outline is closed. Where it is not, it only holds the copper, and no size is told; undefined: not known yet. */
  isSized: boolean | undefined;
  side: "top" | "bottom";
  forward?: Forward | undefined;
  mask?: string;
  finish?: string;
  legend?: string;
  marks?: readonly ProofMark[];
  /** A mark was pressed: the note of its number is meant. */
  onMark?: ((number: number) => void) | undefined;
  /** Further places of the measure that is shown. */
  places?: readonly ProofPlace[];
  /** Presses measure between two points instead of moving the board. */
  isMeasuring?: boolean;
  /** Presses pick a place of the board: a pad's or a hole's middle where one is near. */
  onPick?: ((x: number, y: number) => void) | undefined;
  focus?: Focus | undefined;
  height?: number;
  /** What the picture is of, for who does not see it. */
  label?: string;
  /** Its size is drawn about it. */
  hasDimensions?: boolean;
  /** Changes when the worker holds another board. */
  paintKey?: number;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const host = useRef<HTMLDivElement>(null);
  const flip = side === "bottom" ? -1 : 1;
  const ruler = useRuler(board, side);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a stretch belongs to the side it was measured on
  useEffect(() => ruler.clear(), [side, isMeasuring]);
  const viewed = useView(frame, box, height, flip, focus, hasDimensions);
  const { view, size, toScreen } = viewed;
  useTiles(host, board, viewed, { side, forward, mask, finish, legend, paintKey });
  const isPicking = isMeasuring || onPick !== undefined;
  const hands = useHands(frame, viewed, flip, isPicking, onPick ? pickerOf(board, side, onPick) : ruler);
  return (
    <div
      ref={frame}
      className="relative w-full touch-none overflow-hidden border border-rule bg-sheet"
      style={{ height }}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the picture is panned and zoomed by keys
      tabIndex={0}
      role="application"
      aria-label={`${label}, ${side} side. Arrow keys move, plus and minus zoom, 0 shows all${isPicking ? ", Enter takes the middle as a point" : ""}.`}
      {...hands}
    >
      <div
        ref={host}
        data-testid="tiles"
        className={`absolute inset-0 overflow-hidden ${isPicking ? "cursor-crosshair" : "cursor-grab"}`}
      />
      {view && (
        <svg className="pointer-events-none absolute inset-0" width={size.w} height={size.h} aria-hidden>
          {isSized && <Dimensions box={box} flip={flip} toScreen={toScreen} />}
          <Places places={places} toScreen={toScreen} />
          {isPicking && (
            <path
              d={`M${size.w / 2 - 9} ${size.h / 2}h18M${size.w / 2} ${size.h / 2 - 9}v18`}
              stroke="var(--ink-3)"
              strokeWidth="1"
            />
          )}
          {ruler.stretch && <StretchLine stretch={ruler.stretch} toScreen={toScreen} />}
          {focus && <Target at={toScreen(focus.x, focus.y)} />}
          <Marks marks={marks} onMark={onMark} toScreen={toScreen} />
        </svg>
      )}
      {isSized === false && (
        <p className="absolute top-2 left-3 text-[13px] text-ink-2">
          without a closed outline: the box of the copper, not the board's size
        </p>
      )}
      {ruler.stretch && <Readout stretch={ruler.stretch} />}
      <ul className="sr-only">
        {marks.map((m) => (
          <li
            key={`${m.number} ${m.x}`}
          >{`Mark ${m.number} at ${fixed(m.x, 1)}, ${fixed(m.y, 1)} mm: ${m.text}`}</li>
        ))}
      </ul>
    </div>
  );
}
