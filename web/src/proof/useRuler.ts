import { useCallback, useState } from "react";
import type { BoardConnection } from "../workers/board.ts";

/** A measured stretch between two points of the board, mm. */
export interface Stretch {
  readonly from: { readonly x: number; readonly y: number; readonly what: string };
  readonly to?: { readonly x: number; readonly y: number; readonly what: string };
}

/**
 * Measuring between two points of the board. A press near a pad, hole, track end or corner means that point.
 *
 * @param reachPx how near, in pixels, is near
 */
export function useRuler(board: BoardConnection, side: "top" | "bottom", reachPx = 14) {
  const [stretch, setStretch] = useState<Stretch>();
  const press = useCallback(
    async (x: number, y: number, scale: number) => {
      const point = (await board.snap(x, y, reachPx / scale, side)) ?? { x, y, what: "a point beside all" };
      setStretch((old) => (old && !old.to ? { from: old.from, to: point } : { from: point }));
    },
    [board, side, reachPx],
  );
  return { stretch, press, clear: useCallback(() => setStretch(undefined), []) };
}
