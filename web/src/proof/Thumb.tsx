import { useEffect, useRef, useState } from "react";
import { connectBoard } from "../workers/board.ts";
import { boardColours } from "./colours.ts";
import { storedBoard } from "./useBoardWorker.ts";

const WIDTH = 84;
const HEIGHT = 56;
/** A list that is only passed through paints nothing. */
const AFTER_MS = 400;

const painted = new Map<string, ImageBitmap>();
/** One board after another: a list of many takes one worker's time, not all of the machine's. */
let turn: Promise<void> = Promise.resolve();

async function paintSmall(boardId: string, ratio: number): Promise<ImageBitmap | undefined> {
  const board = connectBoard();
  try {
    const { bytes, corrections } = await storedBoard(boardId);
    const shown = await board.open([{ path: "board.zip", bytes }], corrections, () => undefined);
    if (shown.kind !== "ok" || !shown.box) return undefined;
    const [x0, y0, x1, y1] = shown.box;
    const colours = boardColours("green", "immersion-gold", "white");
    return await board.paint({
      side: "top",
      forward: undefined,
      widthPx: WIDTH * ratio,
      heightPx: HEIGHT * ratio,
      scale: 0.94 * ratio * Math.min(WIDTH / Math.max(1e-6, x1 - x0), HEIGHT / Math.max(1e-6, y1 - y0)),
      cx: (x0 + x1) / 2,
      cy: (y0 + y1) / 2,
      colours: { ...colours, grid: colours.paper },
    });
  } finally {
    board.close();
  }
}

/** The top of a stored board in small, painted from its files once it is in sight; empty where it cannot be drawn. */
export function Thumb({
  boardId,
  look,
}: {
  boardId: string;
  /** What its picture hangs on beside its files. */
  look: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [theme, setTheme] = useState(0);
  useEffect(() => {
    const follow = () => setTheme((t) => t + 1);
    window.addEventListener("kobbin-theme", follow);
    return () => window.removeEventListener("kobbin-theme", follow);
  }, []);
  const ratio = Math.min(2, window.devicePixelRatio || 1);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's tokens are read when it changes
  useEffect(() => {
    const at = canvas.current!;
    const key = `${boardId} ${look} ${getComputedStyle(document.documentElement).getPropertyValue("--sheet")}`;
    let isWanted = true;
    const show = (bitmap: ImageBitmap | undefined) => {
      if (isWanted && bitmap) at.getContext("2d")?.drawImage(bitmap, 0, 0);
    };
    if (painted.has(key)) {
      show(painted.get(key));
      return;
    }
    let timer: ReturnType<typeof setTimeout>;
    const sight = new IntersectionObserver(([entry]) => {
      if (!entry?.isIntersecting) return;
      sight.disconnect();
      timer = setTimeout(() => {
        turn = turn.then(async () => {
          if (!isWanted) return;
          const bitmap = painted.get(key) ?? (await paintSmall(boardId, ratio).catch(() => undefined));
          if (bitmap) painted.set(key, bitmap);
          show(bitmap);
        });
      }, AFTER_MS);
    });
    sight.observe(at);
    return () => {
      isWanted = false;
      sight.disconnect();
      clearTimeout(timer);
    };
  }, [boardId, look, theme, ratio]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={WIDTH * ratio}
      height={HEIGHT * ratio}
      style={{ width: WIDTH, height: HEIGHT }}
      className="block border border-rule bg-sheet"
    />
  );
}
