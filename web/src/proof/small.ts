import { connectBoard } from "../workers/board.ts";
import type { BoardColours } from "../workers/paint.ts";
import { storedBoard } from "./useBoardWorker.ts";

/** A small picture, and how a place of the board is found on it. */
export interface SmallPicture {
  readonly bitmap: ImageBitmap;
  /** The board's box, mm. */
  readonly box: readonly [number, number, number, number];
  /** CSS pixels a millimetre. */
  readonly scale: number;
}

interface Wish {
  readonly boardId: string;
  /** What the picture hangs on beside the files. */
  readonly look: string;
  readonly side: "top" | "bottom";
  readonly colours: BoardColours;
  /** CSS pixels. */
  readonly size: readonly [number, number];
}

const painted = new Map<string, SmallPicture>();
/** So many are kept, the oldest go first. */
const KEPT = 60;
/** One board after another: a list of many takes one worker's time, not all of the machine's. */
let turn: Promise<void> = Promise.resolve();

const keyOf = (w: Wish) => JSON.stringify([w.boardId, w.look, w.side, w.colours, w.size]);
export const paintedSmall = (wish: Wish): SmallPicture | undefined => painted.get(keyOf(wish));

/**
 * A side of a stored board in small, painted from its files once its turn has come, and kept.
 *
 * @param isWanted asked when the turn has come
 * @returns nothing where it is not wanted any more or cannot be drawn
 */
export function paintSmall(wish: Wish, isWanted: () => boolean): Promise<SmallPicture | undefined> {
  const mine = turn.then(async () => {
    if (!isWanted()) return undefined;
    const picture = paintedSmall(wish) ?? (await paint(wish).catch(() => undefined));
    if (picture) painted.set(keyOf(wish), picture);
    for (const key of [...painted.keys()].slice(0, -KEPT)) painted.delete(key);
    return picture;
  });
  turn = mine.then(() => undefined);
  return mine;
}

async function paint({
  boardId,
  side,
  colours,
  size: [width, height],
}: Wish): Promise<SmallPicture | undefined> {
  const board = connectBoard();
  try {
    const { bytes, corrections } = await storedBoard(boardId);
    const shown = await board.open([{ path: "board.zip", bytes }], corrections, () => undefined);
    if (shown.kind !== "ok" || !shown.box) return undefined;
    const [x0, y0, x1, y1] = shown.box;
    const ratio = Math.min(2, window.devicePixelRatio || 1);
    const scale = 0.94 * Math.min(width / Math.max(1e-6, x1 - x0), height / Math.max(1e-6, y1 - y0));
    const bitmap = await board.paint({
      side,
      forward: undefined,
      widthPx: width * ratio,
      heightPx: height * ratio,
      scale: scale * ratio,
      cx: (x0 + x1) / 2,
      cy: (y0 + y1) / 2,
      colours: { ...colours, grid: colours.paper },
    });
    return bitmap && { bitmap, box: shown.box, scale };
  } finally {
    board.close();
  }
}
