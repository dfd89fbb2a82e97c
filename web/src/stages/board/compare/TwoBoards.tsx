import { useMemo, useRef } from "react";
import { Places, type ProofPlace, Target } from "../../../proof/Overlay.tsx";
import { useHands } from "../../../proof/useHands.ts";
import { useRuler } from "../../../proof/useRuler.ts";
import { useTiles } from "../../../proof/useTiles.ts";
import { type Focus, useView, useWheel } from "../../../proof/useView.ts";
import type { BoardConnection } from "../../../workers/board.ts";

/** How two boards are looked at: beside each other, or one over the other, the upper showing this much. */
export type Way = { readonly kind: "beside" } | { readonly kind: "over"; readonly share: number };

type Box = readonly [number, number, number, number];

/**
 * Two boards at one place and one scale, moved and scaled together, each painted in tiles by its own worker.
 *
 * @param shift added to a place of the other board, it lies where it is on this one, mm
 */
export function TwoBoards({
  now,
  was,
  names,
  box,
  shift: [dx, dy],
  side,
  look,
  way,
  focus,
  places,
  height = 400,
}: {
  now: BoardConnection;
  was: BoardConnection;
  names: readonly [now: string, was: string];
  box: Box;
  shift: readonly [number, number];
  side: "top" | "bottom";
  look: { readonly mask: string; readonly finish: string; readonly legend: string };
  way: Way;
  focus: Focus | undefined;
  places: readonly ProofPlace[];
  height?: number;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const right = useRef<HTMLDivElement>(null);
  const [hostNow, hostWas] = [useRef<HTMLDivElement>(null), useRef<HTMLDivElement>(null)];
  const flip = side === "bottom" ? -1 : 1;
  const viewed = useView(frame, box, height, flip, focus, false);
  const { view, size, zoomAt, toScreen } = viewed;
  const moved = useMemo(() => view && { ...view, cx: view.cx - dx, cy: view.cy - dy }, [view, dx, dy]);
  const painted = { side, forward: undefined, ...look, paintKey: 0 };
  useTiles(hostNow, now, viewed, painted);
  useTiles(hostWas, was, { ...viewed, view: moved }, painted);
  const ruler = useRuler(now, side);
  const hands = useHands(frame, viewed, flip, false, ruler);
  const isBeside = way.kind === "beside";
  // laid over, nothing is pressed on the upper one
  useWheel(right, zoomAt);
  const drawn = view && (
    <svg className="pointer-events-none absolute inset-0" width={size.w} height={size.h} aria-hidden>
      <Places places={places} toScreen={toScreen} />
      {focus && <Target at={toScreen(focus.x, focus.y)} />}
    </svg>
  );
  const says = `${side} side. Arrow keys move, plus and minus zoom, 0 shows all`;
  const frameLook = "relative touch-none overflow-hidden border border-rule bg-sheet cursor-grab";
  const host = "pointer-events-none absolute inset-0 overflow-hidden";
  const name = (text: string) => (
    <span className="pointer-events-none absolute top-2 left-2 border border-rule bg-sheet px-2 text-[14px] font-bold">
      {text}
    </span>
  );
  const top =
    way.kind === "beside" || way.share === 1 ? names[0] : way.share === 0 ? names[1] : names.join(" over ");
  return (
    <div className="relative flex gap-2">
      <div
        ref={frame}
        className={`${frameLook} min-w-0 flex-1`}
        style={{ height }}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the picture is panned and zoomed by keys
        tabIndex={0}
        role="application"
        aria-label={isBeside ? `${names[1]}, ${says}` : `${names[0]} over ${names[1]}, ${says}`}
        {...hands}
      >
        <div ref={hostWas} className={host} />
        {isBeside && drawn}
        {isBeside && name(names[1])}
      </div>
      {/* one element for both ways: its tiles stay */}
      <div
        ref={right}
        className={
          isBeside
            ? `${frameLook} min-w-0 flex-1`
            : "pointer-events-none absolute inset-0 overflow-hidden border border-transparent"
        }
        style={{ height }}
        {...(isBeside
          ? { tabIndex: 0, role: "application", "aria-label": `${names[0]}, ${says}`, ...hands }
          : {})}
      >
        <div ref={hostNow} className={host} style={{ opacity: way.kind === "over" ? way.share : 1 }} />
        {drawn}
        {name(top)}
      </div>
    </div>
  );
}
