import type { FitJudged } from "@kobbin/core";
import { useEffect, useRef, useSyncExternalStore } from "react";
import { boardColours } from "../../../proof/colours.ts";
import type { Forward } from "../../../proof/Proof.tsx";
import { useRun } from "../../../run/runState.ts";
import { currentTheme, onTheme } from "../../../theme.ts";
import type { BoardConnection } from "../../../workers/board.ts";

const SIZE_PX = 68;
/** The place takes this share of the picture. */
const SHARE = 0.45;
const LAYERS: readonly (readonly [Forward, string])[] = [
  ["copper", "copper"],
  ["mask", "mask"],
  ["paste", "paste"],
  ["legend", "silkscreen"],
];

/** A place as each layer has it, in small, with the circle that is judged; a window is seen from both sides. */
export function PlaceLayers({ fit, board }: { fit: FitJudged; board: BoardConnection | undefined }) {
  const { spec } = fit.row;
  if (spec.kind !== "intended" || !fit.at || !board) return null;
  const sides = spec.what === "window" ? (["top", "bottom"] as const) : ([spec.side] as const);
  return (
    <div className="grid grid-cols-4 gap-x-2 gap-y-1">
      {sides.flatMap((side) =>
        LAYERS.map(([forward, words]) => (
          <Layer
            key={`${side} ${forward}`}
            board={board}
            at={fit.at!}
            diameterMm={spec.diameterMm}
            side={side}
            forward={forward}
            words={sides.length > 1 ? `${words} ${side}` : words}
          />
        )),
      )}
    </div>
  );
}

function Layer({
  board,
  at,
  diameterMm,
  side,
  forward,
  words,
}: {
  board: BoardConnection;
  at: { readonly x: number; readonly y: number };
  diameterMm: number;
  side: "top" | "bottom";
  forward: Forward;
  words: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useSyncExternalStore(onTheme, currentTheme);
  const { result } = useRun();
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const { x, y } = at;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's tokens are read when it changes
  useEffect(() => {
    let isGone = false;
    const ratio = window.devicePixelRatio || 1;
    const px = Math.round(SIZE_PX * ratio);
    const request = {
      side,
      widthPx: px,
      heightPx: px,
      scale: (px * SHARE) / diameterMm,
      cx: x,
      cy: y,
      forward,
      colours: boardColours(mask, finish, legend),
    };
    board.paint(request).then(
      (bitmap) => {
        if (!bitmap) return;
        if (isGone || !canvas.current) return bitmap.close();
        canvas.current.width = px;
        canvas.current.height = px;
        canvas.current.getContext("2d")?.drawImage(bitmap, 0, 0);
        bitmap.close();
      },
      () => undefined,
    );
    return () => {
      isGone = true;
    };
  }, [board, side, forward, x, y, diameterMm, mask, finish, legend, theme]);
  const r = (SIZE_PX * SHARE) / 2;
  return (
    <figure>
      <div className="relative border border-rule" style={{ width: SIZE_PX, height: SIZE_PX }}>
        <canvas ref={canvas} style={{ width: SIZE_PX, height: SIZE_PX }} />
        <svg className="absolute inset-0" width={SIZE_PX} height={SIZE_PX} aria-hidden>
          <circle
            cx={SIZE_PX / 2}
            cy={SIZE_PX / 2}
            r={r}
            fill="none"
            stroke="var(--sheet)"
            strokeWidth="3.5"
          />
          <circle
            cx={SIZE_PX / 2}
            cy={SIZE_PX / 2}
            r={r}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.5"
            strokeDasharray="5 3"
          />
        </svg>
      </div>
      <figcaption className="text-[12.5px] leading-tight text-ink-2">{words}</figcaption>
    </figure>
  );
}
