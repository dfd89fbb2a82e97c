import type { RunBoard } from "@kobbin/core";
import { useEffect, useState } from "react";

/** Pixels of the close-up, and of the whole board beside it. */
export const CLOSE = [620, 560] as const;
const CLOSE_NARROW = [352, 300] as const;
export const SMALL = [300, 210] as const;

/** Pixels of a millimetre in the close-up, and the most a side is painted at. */
const CLOSE_SCALE = 36;
const MOST_PAINTED = 2400;
/** Pixels of the whole side a close-up is cut from: as large as wished, as far as a picture may be. */
export function wholeOf({ measure: { outline } }: RunBoard): readonly [number, number] {
  const [w, h] = [outline?.widthMm ?? 60, outline?.heightMm ?? 40];
  const scale = Math.min(CLOSE_SCALE, MOST_PAINTED / Math.max(w, h));
  return [Math.round(Math.max(CLOSE[0], w * scale + 80)), Math.round(Math.max(CLOSE[1], h * scale + 80))];
}

const NARROW = "(max-width: 700px)";
/** How large a close-up is on this screen. @param wide where there is room */
export function useClose(
  wide: readonly [number, number] = CLOSE,
  narrow: readonly [number, number] = CLOSE_NARROW,
): readonly [number, number] {
  const [isNarrow, setNarrow] = useState(() => window.matchMedia(NARROW).matches);
  useEffect(() => {
    const media = window.matchMedia(NARROW);
    const hear = () => setNarrow(media.matches);
    media.addEventListener("change", hear);
    return () => media.removeEventListener("change", hear);
  }, []);
  return isNarrow ? narrow : wide;
}
