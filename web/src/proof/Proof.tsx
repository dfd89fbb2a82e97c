import {
  type KeyboardEvent,
  type PointerEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { fixed } from "../ui/format.ts";
import type { BoardConnection } from "../workers/board.ts";
import { boardColours } from "./colours.ts";
import { Dimensions, Marks, Places, type ProofMark, Readout, StretchLine, Target } from "./Overlay.tsx";
import { type Look, Tiles, type View } from "./tiles.ts";
import { useRuler } from "./useRuler.ts";

export type Forward = "copper" | "mask" | "paste" | "legend";

const DIM = 46;
/**
 * The board as delivered, on graph paper, with dimension lines and numbered marks. Wheel and pinch zoom, drag, keys.
 *
 * A worker paints it in tiles; the page's own thread only moves them.
 */
export function Proof({
  board,
  box,
  isSized,
  side,
  forward,
  mask = "green",
  finish = "",
  legend = "white",
  marks = [],
  onMark,
  places = [],
  isMeasuring = false,
  focus,
  height = 460,
  paintKey = 0,
}: {
  board: BoardConnection;
  box: readonly [number, number, number, number];
  /** The box is the board's: its outline is closed. Where it is not, it only holds the copper, and no size is told; undefined: not known yet. */
  isSized: boolean | undefined;
  side: "top" | "bottom";
  forward?: Forward | undefined;
  mask?: string;
  finish?: string;
  legend?: string;
  marks?: readonly ProofMark[];
  /** A mark was pressed: the note of its number is meant. */
  onMark?: ((number: number) => void) | undefined;
  /** Further places of the measure that is shown. */
  places?: readonly { readonly x: number; readonly y: number }[];
  /** Presses measure between two points instead of moving the board. */
  isMeasuring?: boolean;
  focus?: { readonly x: number; readonly y: number; readonly key: string } | undefined;
  height?: number;
  /** Changes when the worker holds another board. */
  paintKey?: number;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const host = useRef<HTMLDivElement>(null);
  const tiles = useRef<Tiles>(undefined);
  const [size, setSize] = useState({ w: 0, h: height });
  const [view, setView] = useState<View>();
  const [theme, setTheme] = useState(0);
  const flip = side === "bottom" ? -1 : 1;
  const ruler = useRuler(board, side);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a stretch belongs to the side it was measured on
  useEffect(() => ruler.clear(), [side, isMeasuring]);

  /** Nobody has moved or scaled it: it goes on showing all when the frame changes. */
  const isWhole = useRef(true);
  const boxKey = box.join(" ");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same box may come as another array
  const whole = useCallback((): View => {
    const [x0, y0, x1, y1] = box;
    const scale = Math.max(
      0.5,
      Math.min((size.w - 2 * DIM - 24) / (x1 - x0), (size.h - DIM - 58) / (y1 - y0)),
    );
    // room for the dimension lines above and at the left
    return { scale, cx: (x0 + x1) / 2 - (flip * 20) / scale, cy: (y0 + y1) / 2 + 16 / scale };
  }, [boxKey, size, flip]);
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
  }, [height]);
  useEffect(() => {
    const follow = () => setTheme((t) => t + 1);
    window.addEventListener("kobbin-theme", follow);
    return () => window.removeEventListener("kobbin-theme", follow);
  }, []);
  useEffect(() => {
    if (size.w > 0 && isWhole.current) setView(whole());
  }, [whole, size.w]);
  useEffect(() => {
    if (!focus || size.w === 0) return;
    isWhole.current = false;
    setView((v) => ({ scale: Math.max(v?.scale ?? 10, 28), cx: focus.x, cy: focus.y }));
  }, [focus, size.w]);

  // before anything is shown on it, also when another board comes
  useLayoutEffect(() => {
    const made = new Tiles(host.current!, board);
    tiles.current = made;
    return () => made.close();
  }, [board]);
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
  useEffect(() => {
    const el = frame.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const r = el.getBoundingClientRect();
      zoomAt(e.clientX - r.left, e.clientY - r.top, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016)));
    };
    el.addEventListener("wheel", wheel, { passive: false });
    return () => el.removeEventListener("wheel", wheel);
  }, [zoomAt]);

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
  return (
    <div
      ref={frame}
      className="relative w-full touch-none overflow-hidden border border-rule bg-sheet"
      style={{ height }}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the picture is panned and zoomed by keys
      tabIndex={0}
      role="application"
      aria-label={`Board, ${side} side. Arrow keys move, plus and minus zoom, 0 shows all${isMeasuring ? ", Enter takes the middle as a point" : ""}.`}
      onKeyDown={keys}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        pointers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
        pressed.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={release}
      onDoubleClick={showWhole}
    >
      <div
        ref={host}
        data-testid="tiles"
        className={`absolute inset-0 overflow-hidden ${isMeasuring ? "cursor-crosshair" : "cursor-grab"}`}
      />
      {view && (
        <svg className="pointer-events-none absolute inset-0" width={size.w} height={size.h} aria-hidden>
          {isSized && <Dimensions box={box} flip={flip} toScreen={toScreen} />}
          <Places places={places} toScreen={toScreen} />
          {isMeasuring && (
            <path
              d={`M${size.w / 2 - 9} ${size.h / 2}h18M${size.w / 2} ${size.h / 2 - 9}v18`}
              stroke="var(--ink-3)"
              strokeWidth="1"
            />
          )}
          {ruler.stretch && <StretchLine stretch={ruler.stretch} toScreen={toScreen} />}
          {focus && <Target at={toScreen(focus.x, focus.y)} />}
          <Marks marks={marks} onMark={onMark} toScreen={toScreen} />
        </svg>
      )}
      {isSized === false && (
        <p className="absolute top-2 left-3 text-[13px] text-ink-2">
          without a closed outline: the box of the copper, not the board's size
        </p>
      )}
      {ruler.stretch && <Readout stretch={ruler.stretch} />}
      <ul className="sr-only">
        {marks.map((m) => (
          <li
            key={`${m.number} ${m.x}`}
          >{`Mark ${m.number} at ${fixed(m.x, 1)}, ${fixed(m.y, 1)} mm: ${m.text}`}</li>
        ))}
      </ul>
    </div>
  );
}
