import { type RefObject, useLayoutEffect, useMemo, useRef } from "react";
import { useTheme } from "../ui/useTheme.ts";
import type { BoardConnection } from "../workers/board.ts";
import { boardColours } from "./colours.ts";
import { type Look, Tiles } from "./tiles.ts";
import type { Viewed } from "./useView.ts";

/** What is painted beside the view. */
interface Painted extends Pick<Look, "side" | "forward"> {
  readonly mask: string;
  readonly finish: string;
  readonly legend: string;
  /** Changes when the worker holds another board. */
  readonly paintKey: number;
}

/** Keeps a host filled with a board's tiles for what is viewed. */
export function useTiles(
  host: RefObject<HTMLDivElement | null>,
  board: BoardConnection,
  { view, size }: Viewed,
  { side, forward, mask, finish, legend, paintKey }: Painted,
): void {
  const tiles = useRef<Tiles>(undefined);
  const theme = useTheme();
  // before anything is shown on it, also when another board comes
  useLayoutEffect(() => {
    const made = new Tiles(host.current!, board);
    tiles.current = made;
    return () => made.close();
  }, [host, board]);
  // what is painted follows side, layer, colours, theme and the board in the worker
  // biome-ignore lint/correctness/useExhaustiveDependencies: theme and paintKey stand for what the tokens and the worker hold
  const look = useMemo(
    (): Look => ({
      side,
      forward,
      colours: boardColours(mask, finish, legend),
      ratio: Math.min(2, window.devicePixelRatio || 1),
    }),
    [side, forward, mask, finish, legend, theme, paintKey, board],
  );
  useLayoutEffect(() => {
    if (view && size.w > 0) tiles.current?.show(view, look, size);
  }, [view, look, size]);
}
