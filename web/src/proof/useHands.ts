import { type KeyboardEvent, type PointerEvent, type RefObject, useRef } from "react";
import type { useRuler } from "./useRuler.ts";
import type { Viewed } from "./useView.ts";

/** Fingers, mouse and keys on a board: one moves it, two scale it; where one measures, a press takes a point. */
export function useHands(
  frame: RefObject<HTMLDivElement | null>,
  { view, size, place, zoomAt, showWhole }: Viewed,
  flip: 1 | -1,
  isMeasuring: boolean,
  ruler: Pick<ReturnType<typeof useRuler>, "press" | "clear" | "stretch">,
) {
  const pointers = useRef(new Map<number, { x: number; y: number }>());
  const move = (e: PointerEvent) => {
    const old = pointers.current.get(e.pointerId);
    if (!old) return;
    const others = [...pointers.current.entries()].filter(([id]) => id !== e.pointerId);
    pointers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
    if (others.length === 0) {
      const [dx, dy] = [e.clientX - old.x, e.clientY - old.y];
      place((v) => ({ ...v, cx: v.cx - (dx / v.scale) * flip, cy: v.cy + dy / v.scale }));
    } else {
      const [, o] = others[0]!;
      const r = frame.current!.getBoundingClientRect();
      const factor =
        Math.hypot(e.clientX - o.x, e.clientY - o.y) / Math.max(1, Math.hypot(old.x - o.x, old.y - o.y));
      zoomAt((e.clientX + o.x) / 2 - r.left, (e.clientY + o.y) / 2 - r.top, factor);
    }
  };
  const pressed = useRef<{ x: number; y: number }>(undefined);
  const release = (e: PointerEvent) => {
    pointers.current.delete(e.pointerId);
    const from = pressed.current;
    pressed.current = undefined;
    if (!isMeasuring || !view || !from || Math.hypot(e.clientX - from.x, e.clientY - from.y) > 4) return;
    const r = frame.current!.getBoundingClientRect();
    measureAt(e.clientX - r.left, e.clientY - r.top);
  };
  const measureAt = (px: number, py: number) => {
    if (!view) return;
    const x = view.cx + ((px - size.w / 2) / view.scale) * flip;
    const y = view.cy - (py - size.h / 2) / view.scale;
    ruler.press(x, y, view.scale);
  };
  const keys = (e: KeyboardEvent) => {
    const pan = { ArrowLeft: [-40, 0], ArrowRight: [40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[e.key];
    if (pan) place((v) => ({ ...v, cx: v.cx + (pan[0]! / v.scale) * flip, cy: v.cy + pan[1]! / v.scale }));
    else if (e.key === "+" || e.key === "=") zoomAt(size.w / 2, size.h / 2, 1.3);
    else if (e.key === "-") zoomAt(size.w / 2, size.h / 2, 1 / 1.3);
    else if (e.key === "0") showWhole();
    else if (e.key === "Enter" && isMeasuring) measureAt(size.w / 2, size.h / 2);
    else if (e.key === "Escape" && ruler.stretch) ruler.clear();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return {
    onKeyDown: keys,
    onPointerDown: (e: PointerEvent) => {
      e.currentTarget.setPointerCapture(e.pointerId);
      pointers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
      pressed.current = { x: e.clientX, y: e.clientY };
    },
    onPointerMove: move,
    onPointerUp: release,
    onPointerCancel: release,
    onDoubleClick: showWhole,
  };
}
