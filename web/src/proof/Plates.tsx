import { useEffect, useRef } from "react";
import type { BoardConnection } from "../workers/board.ts";
import type { BoardColours } from "../workers/paint.ts";
import type { Forward } from "./Proof.tsx";
import { pixelRatio, smallColours, viewOf } from "./thumb/small.ts";

/** What the large plate shows: a side as delivered, or one of its working layers over it. */
export interface Plate {
  readonly side: "top" | "bottom";
  readonly forward: Forward | undefined;
}

const WORKING: readonly (readonly [Forward, string])[] = [
  ["copper", "copper"],
  ["mask", "mask"],
  ["paste", "paste"],
  ["legend", "silkscreen"],
];
const WIDTH = 92;
const HEIGHT = 56;
const LOW = 42;

/** The proof sheet's small plates: both sides, and the working layers of the side that is up. A press enlarges one. */
export function Plates({
  board,
  box,
  shown,
  colours,
  isLow = false,
  onShow,
}: {
  board: BoardConnection;
  box: readonly [number, number, number, number];
  shown: Plate;
  colours: BoardColours;
  /** The large plate is lower, as beside a table. */
  isLow?: boolean;
  onShow: (plate: Plate) => void;
}) {
  const { side } = shown;
  const plates: readonly (readonly [Plate, string])[] = [
    [{ side: "top", forward: undefined }, "top"],
    [{ side: "bottom", forward: undefined }, "bottom"],
    ...WORKING.map(([forward, label]) => [{ side, forward }, label] as const),
  ];
  return (
    <div
      role="toolbar"
      aria-label="Plates of the proof sheet"
      className="flex w-[100px] shrink-0 flex-col justify-between gap-1 max-md:w-full max-md:flex-row max-md:overflow-x-auto"
    >
      {plates.map(([plate, label]) => {
        const isOn = plate.side === side && plate.forward === shown.forward;
        return (
          <button
            key={label}
            type="button"
            aria-pressed={isOn}
            className={`group shrink-0 border px-[3px] pt-[3px] text-left text-[12px] leading-tight ${isOn ? "border-metal bg-metal-soft font-bold" : "border-rule bg-sheet text-ink-2 hover:border-ink-3"}`}
            onClick={() => onShow(isOn && plate.forward ? { side, forward: undefined } : plate)}
          >
            <Small
              board={board}
              box={box}
              plate={plate}
              colours={colours}
              size={[WIDTH, isLow ? LOW : HEIGHT]}
            />
            {label}
          </button>
        );
      })}
    </div>
  );
}

/** One plate in small, painted once the large one had its turn. */
export function Small({
  board,
  box,
  plate: { side, forward },
  colours,
  size: [width, height] = [WIDTH, HEIGHT],
}: {
  board: BoardConnection;
  box: readonly [number, number, number, number];
  plate: Plate;
  colours: BoardColours;
  /** CSS pixels. */
  size?: readonly [number, number];
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = JSON.stringify([side, forward, box, colours, width, height]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: look is all that a plate shows
  useEffect(() => {
    let isCurrent = true;
    const later = setTimeout(async () => {
      const bitmap = await board
        .paint({ side, forward, ...viewOf(box, [width, height]), colours: smallColours(colours) })
        .catch(() => undefined);
      if (!bitmap) return;
      if (isCurrent) canvas.current?.getContext("2d")?.drawImage(bitmap, 0, 0);
      bitmap.close();
    }, 350);
    return () => {
      isCurrent = false;
      clearTimeout(later);
    };
  }, [board, look]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={width * pixelRatio()}
      height={height * pixelRatio()}
      style={{ width, height }}
      className="block"
    />
  );
}
