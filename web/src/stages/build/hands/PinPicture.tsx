import { coverageOf, type PaintedPin, type TestItem } from "@kobbin/core";
import { useMemo } from "react";
import { SMALL, useClose, wholeOf } from "../../../bench-side/closeUp.ts";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import type { ToPicture } from "../../../proof/drawnParts.ts";
import { useRun } from "../../../run/runState.ts";

const WINDOW = [430, 340] as const;
const WINDOW_NARROW = [352, 170] as const;

const NO_NAMES: ReadonlyMap<string, string> = new Map();

interface Lit {
  readonly pin: PaintedPin;
  /** A and B for the two needles, "in" where it is driven; or what goes there. */
  readonly letter: string;
}

/** Where the needles go: the first place that is read close up, all of them on the whole board. */
export function PinPicture({
  item: t,
  names = NO_NAMES,
}: {
  item: TestItem;
  /** Pin → what is to be written beside it in the letter's place. */
  names?: ReadonlyMap<string, string>;
}) {
  const { doc } = useRun();
  const close = useClose(WINDOW, WINDOW_NARROW);
  const places = useMemo(() => new Map(coverageOf(doc)?.pins.map((p) => [p.name, p] as const)), [doc]);
  const lit = useMemo(() => litOf(t, places, names), [t, places, names]);
  const [first] = lit;
  const board = first && doc.boards[first.pin.board];
  const whole = useMemo(() => (board ? wholeOf(board) : WINDOW), [board]);
  if (!first || !board) return null;
  const side = first.pin.layer === "bottom" ? "bottom" : "top";
  const here = lit.filter(
    (l) => l.pin.board === first.pin.board && (l.pin.layer === "bottom") === (side === "bottom"),
  );
  return (
    <div className="flex flex-col gap-3">
      <figure>
        <DrawnBoard board={board} side={side} size={whole} window={close} about={[first.pin.x, first.pin.y]}>
          {(to) => <Needles lit={here} to={to} r={15} />}
        </DrawnBoard>
        <figcaption className="mt-1 text-[14px] text-ink-2">
          {doc.boards.length > 1 ? `${board.name}, ` : ""}
          {side} side; {lit.map((l) => `${l.letter} ${l.pin.name}`).join(", ")}
        </figcaption>
      </figure>
      <div className="max-sm:hidden">
        <DrawnBoard board={board} side={side} size={SMALL}>
          {(to) => <Needles lit={here} to={to} r={8} />}
        </DrawnBoard>
      </div>
    </div>
  );
}

/** Pins that are read, A and B, and those that are driven and not read. */
function litOf(
  t: TestItem,
  places: ReadonlyMap<string, PaintedPin>,
  names: ReadonlyMap<string, string>,
): Lit[] {
  // a part of one pin may be named without it
  const at = (name: string) =>
    places.get(name) ?? [...places.values()].find((p) => p.name.startsWith(`${name}.`));
  const named = (list: readonly string[], letter: (i: number) => Lit["letter"]) =>
    list.flatMap((name, i): Lit[] => {
      const pin = at(name);
      return pin ? [{ pin, letter: names.get(name) ?? letter(i) }] : [];
    });
  const reads = named(t.reads.slice(0, 2), (i) => (i === 0 ? "A" : "B"));
  const drives = named(
    t.drives.filter((d) => !t.reads.includes(d)),
    () => "in",
  );
  return [...reads, ...drives];
}

function Needles({ lit, to, r }: { lit: readonly Lit[]; to: ToPicture; r: number }) {
  return lit.map(({ pin, letter }) => {
    const [x, y] = to([pin.x, pin.y]);
    const isB = letter === "B";
    return (
      <g key={`${letter} ${pin.name}`}>
        <circle cx={x} cy={y} r={r} fill="none" stroke="var(--sheet)" strokeWidth={r / 2} />
        <circle
          cx={x}
          cy={y}
          r={r}
          fill="none"
          stroke={isB ? "var(--ink)" : "var(--metal)"}
          strokeWidth={r / 4}
        />
        <text
          x={x + 1.3 * r}
          y={y - 0.9 * r}
          fontSize={Math.max(13, 1.2 * r)}
          fontWeight="700"
          fill={isB ? "var(--ink)" : "var(--metal)"}
          stroke="var(--sheet)"
          strokeWidth="5"
          paintOrder="stroke"
        >
          {letter}
        </text>
      </g>
    );
  });
}
