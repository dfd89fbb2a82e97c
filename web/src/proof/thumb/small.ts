import type { Corrections } from "@kobbin/core";
import type { BoardColours } from "../../workers/paint.ts";
import { takeBoard } from "../openBoards.ts";
import { storedBoard } from "../useBoardWorker.ts";
import { bringPicture, keyOf as keptKey, keptPicture } from "./keptPictures.ts";

/** A small picture, and how a place of the board is found on it. */
export interface SmallPicture {
  readonly bitmap: ImageBitmap;
  /** The board's box, mm. */
  readonly box: Box;
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

type Box = readonly [number, number, number, number];

/** Device pixels a CSS pixel; more than two are not seen. */
export const pixelRatio = (): number => Math.min(2, window.devicePixelRatio || 1);

/** A view that holds the whole board with a little paper around it. */
export function viewOf([x0, y0, x1, y1]: Box, [width, height]: readonly [number, number]) {
  const ratio = pixelRatio();
  return {
    widthPx: width * ratio,
    heightPx: height * ratio,
    scale: 0.94 * ratio * Math.min(width / Math.max(1e-6, x1 - x0), height / Math.max(1e-6, y1 - y0)),
    cx: (x0 + x1) / 2,
    cy: (y0 + y1) / 2,
  };
}

/** On a small picture the paper has no grid. */
export const smallColours = (colours: BoardColours): BoardColours => ({ ...colours, grid: colours.paper });

const painted = new Map<string, SmallPicture>();
/** So many are kept, the oldest go first. */
const KEPT = 60;
/** One board after another: a list of many takes one worker's time, not all of the machine's. */
let turn: Promise<void> = Promise.resolve();

const keyOf = (w: Wish) => JSON.stringify([w.boardId, w.look, w.side, w.colours, w.size]);
export const paintedSmall = (wish: Wish): SmallPicture | undefined => painted.get(keyOf(wish));

const keep = (wish: Wish, picture: SmallPicture): SmallPicture => {
  painted.set(keyOf(wish), picture);
  for (const key of [...painted.keys()].slice(0, -KEPT)) painted.delete(key);
  return picture;
};

/** The key under which the server keeps it. */
const serverKey = ({ boardId, look, side, colours, size }: Wish) =>
  keptKey(boardId, look, side, smallColours(colours), size, pixelRatio());

/** A side of a stored board in small as some page painted it before; nothing where none did. */
export async function keptSmall(wish: Wish): Promise<SmallPicture | undefined> {
  const ready = paintedSmall(wish);
  if (ready) return ready;
  const ratio = pixelRatio();
  const [width, height] = wish.size;
  const key = await serverKey(wish);
  // a canvas has whole pixels
  const pixels = [Math.trunc(width * ratio), Math.trunc(height * ratio)] as const;
  const kept = key && (await keptPicture(wish.boardId, key, pixels));
  return kept ? keep(wish, { ...kept, scale: viewOf(kept.box, wish.size).scale / ratio }) : undefined;
}

/**
 * A side of a stored board in small, painted from its files once its turn has come, and kept for every page.
 *
 * @param isWanted asked when the turn has come
 * @returns nothing where it is not wanted any more or cannot be drawn
 */
export function paintSmall(wish: Wish, isWanted: () => boolean): Promise<SmallPicture | undefined> {
  const mine = turn.then(async () => {
    if (!isWanted()) return undefined;
    const ready = paintedSmall(wish);
    if (ready) return ready;
    const picture = await paint(wish).catch(() => undefined);
    if (!picture) return undefined;
    const { under, ...shown } = picture;
    const key = await serverKey(wish);
    if (key) bringPicture(wish.boardId, key, shown, under).catch(() => undefined);
    return keep(wish, shown);
  });
  turn = mine.then(() => undefined);
  return mine;
}

/** @returns the picture, and the corrections its files were read under */
async function paint({
  boardId,
  side,
  colours,
  size,
}: Wish): Promise<(SmallPicture & { readonly under: Corrections }) | undefined> {
  const stored = await storedBoard(boardId);
  const { board, shown, giveBack } = takeBoard(boardId, stored, () => undefined);
  try {
    const read = await shown;
    if (read.kind !== "ok" || !read.box) return undefined;
    const view = viewOf(read.box, size);
    const bitmap = await board.paint({ side, forward: undefined, ...view, colours: smallColours(colours) });
    return bitmap && { bitmap, box: read.box, scale: view.scale / pixelRatio(), under: stored.corrections };
  } finally {
    giveBack();
  }
}
