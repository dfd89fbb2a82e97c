import { useEffect, useRef } from "react";
import { useTheme } from "../../ui/useTheme.ts";
import type { BoardColours } from "../../workers/paint.ts";
import { boardColours } from "../colours.ts";
import { keptSmall, paintedSmall, paintSmall, pixelRatio, type SmallPicture } from "./small.ts";

const SIZE = [84, 56] as const;
/** A list that is only passed through paints nothing. */
const AFTER_MS = 400;

/** A side of a stored board in small once it is in sight, as it is kept, else painted from its files; empty where it cannot be drawn. */
export function Thumb({
  boardId,
  look,
  side = "top",
  size = SIZE,
  colours,
  onPainted,
}: {
  boardId: string;
  /** What its picture hangs on beside its files. */
  look: string;
  side?: "top" | "bottom";
  /** CSS pixels. */
  size?: readonly [number, number];
  /** As usual where left out. */
  colours?: (() => BoardColours) | undefined;
  onPainted?: (picture: SmallPicture) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const ratio = pixelRatio();
  const [width, height] = size;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's tokens are read when it changes; look stands for the colours
  useEffect(() => {
    const at = canvas.current!;
    let isWanted = true;
    const wish = {
      boardId,
      look,
      side,
      colours: colours?.() ?? boardColours("green", "immersion-gold", "white"),
      size: [width, height] as const,
    };
    const show = (picture: SmallPicture | undefined) => {
      if (!isWanted || !picture) return;
      at.getContext("2d")?.drawImage(picture.bitmap, 0, 0);
      onPainted?.(picture);
    };
    const ready = paintedSmall(wish);
    if (ready) {
      show(ready);
      return;
    }
    let timer: ReturnType<typeof setTimeout>;
    const sight = new IntersectionObserver(async ([entry]) => {
      if (!entry?.isIntersecting) return;
      sight.disconnect();
      const kept = await keptSmall(wish);
      if (kept) show(kept);
      else if (isWanted) timer = setTimeout(() => paintSmall(wish, () => isWanted).then(show), AFTER_MS);
    });
    sight.observe(at);
    return () => {
      isWanted = false;
      sight.disconnect();
      clearTimeout(timer);
    };
  }, [boardId, look, side, width, height, theme]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={width * ratio}
      height={height * ratio}
      style={{ width, height }}
      className="block border border-rule bg-sheet"
    />
  );
}
