import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import type { View } from "./tiles.ts";

/** Room for the dimension lines, and about a picture without them, CSS pixels. */
const DIM = 46;
const RIM = 8;

/** A board point that is looked at. */
export interface Focus {
  readonly x: number;
  readonly y: number;
  readonly key: string;
}

/**
 * Which part of a board a frame shows, and how that is changed: shown whole until somebody moves or scales it, scaled about
 * the pointer by the wheel, brought to what is looked at.
 *
 * @param flip −1 for the bottom, which is seen mirrored
 */
export function useView(
  frame: RefObject<HTMLDivElement | null>,
  box: readonly [number, number, number, number],
  height: number,
  flip: 1 | -1,
  focus: Focus | undefined,
  hasDimensions = true,
) {
  const [size, setSize] = useState({ w: 0, h: height });
  const [view, setView] = useState<View>();
  /** Nobody has moved or scaled it: it goes on showing all when the frame changes. */
  const isWhole = useRef(true);
  const boxKey = box.join(" ");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same box may come as another array
  const whole = useCallback((): View => {
    const [x0, y0, x1, y1] = box;
    const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
    if (!hasDimensions)
      return {
        scale: Math.max(0.5, Math.min((size.w - 2 * RIM) / (x1 - x0), (size.h - 2 * RIM) / (y1 - y0))),
        cx,
        cy,
      };
    const scale = Math.max(
      0.5,
      Math.min((size.w - 2 * DIM - 24) / (x1 - x0), (size.h - DIM - 58) / (y1 - y0)),
    );
    // room for the dimension lines above and at the left
    return { scale, cx: cx - (flip * 20) / scale, cy: cy + 16 / scale };
  }, [boxKey, size, flip, hasDimensions]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another board is shown whole
  useEffect(() => {
    isWhole.current = true;
  }, [boxKey]);
  const showWhole = useCallback(() => {
    isWhole.current = true;
    setView(whole());
  }, [whole]);
  const place = useCallback((change: (v: View) => View) => {
    isWhole.current = false;
    setView((v) => v && change(v));
  }, []);

  useLayoutEffect(() => {
    const el = frame.current!;
    const observer = new ResizeObserver(() => setSize({ w: el.clientWidth, h: height }));
    observer.observe(el);
    return () => observer.disconnect();
  }, [frame, height]);
  useEffect(() => {
    if (size.w > 0 && isWhole.current) setView(whole());
  }, [whole, size.w]);
  useEffect(() => {
    if (!focus || size.w === 0) return;
    isWhole.current = false;
    setView((v) => ({ scale: Math.max(v?.scale ?? 10, 28), cx: focus.x, cy: focus.y }));
  }, [focus, size.w]);

  const toScreen = (x: number, y: number): [number, number] =>
    view ? [size.w / 2 + (x - view.cx) * view.scale * flip, size.h / 2 - (y - view.cy) * view.scale] : [0, 0];
  const zoomAt = useCallback(
    (px: number, py: number, factor: number) =>
      place((v) => {
        const scale = Math.max(1, Math.min(400, v.scale * factor));
        const bx = v.cx + ((px - size.w / 2) / v.scale) * flip;
        const by = v.cy - (py - size.h / 2) / v.scale;
        return { scale, cx: bx - ((px - size.w / 2) / scale) * flip, cy: by + (py - size.h / 2) / scale };
      }),
    [size, flip, place],
  );
  useWheel(frame, zoomAt);

  return { view, size, showWhole, place, zoomAt, toScreen };
}

/** The wheel over a frame scales what it shows, about the pointer. A frame that is not there takes none. */
export function useWheel(
  frame: RefObject<HTMLDivElement | null>,
  zoomAt: (px: number, py: number, factor: number) => void,
): void {
  useEffect(() => {
    const el = frame.current;
    if (!el) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const r = el.getBoundingClientRect();
      zoomAt(e.clientX - r.left, e.clientY - r.top, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016)));
    };
    el.addEventListener("wheel", wheel, { passive: false });
    return () => el.removeEventListener("wheel", wheel);
  }, [frame, zoomAt]);
}

export type Viewed = ReturnType<typeof useView>;
