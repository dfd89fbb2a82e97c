import {
  type Laid,
  laidOver,
  type Meeting,
  type PairVerdict,
  type Pin,
  type Put,
  putTogether,
} from "@kobbin/core";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";

const W = 58;
const ROW = 132;
const OURS = 30;
const THEIRS = 74;
const HEIGHT = 26;
export const STILL: Put = { isAcross: false, isBack: false, by: 0 };

const COLOUR: Readonly<Record<PairVerdict, string>> = {
  short: "var(--stop)",
  fight: "var(--stop)",
  over: "var(--stop)",
  unknown: "var(--look)",
  idle: "var(--ink-3)",
  meant: "var(--fine)",
};
/** Told by a sign too, not by colour alone. */
const SIGN: Readonly<Record<PairVerdict, string>> = {
  short: "✗",
  fight: "✗",
  over: "✗",
  unknown: "?",
  idle: "·",
  meant: "✓",
};

/** What a contact is, in the room of a few letters. */
export function shortKind({ kind, volts }: Pin): string {
  if (kind === undefined) return "?";
  if (kind === "supply") return volts === undefined ? "supply" : `${volts} V`;
  if (kind === "output" && volts !== undefined) return `out ${volts}`;
  return SHORT[kind];
}
const SHORT = {
  ground: "0 V",
  output: "out",
  input: "in",
  both: "in/out",
  passive: "pass.",
  open: "open",
} as const;

/** How it is put in, in words. */
export function putWords({ isBack, isAcross, by }: Put, rows: 1 | 2): string {
  const places = Math.abs(by);
  const words = [
    isBack && (isAcross || rows === 1) && "turned by half a turn",
    isBack && !isAcross && rows === 2 && "seen from behind",
    isAcross && !isBack && "rows exchanged",
    by !== 0 && `${places} ${places === 1 ? "place" : "places"} to the ${by > 0 ? "right" : "left"}`,
  ].filter(Boolean);
  return words.length > 0 ? words.join(", ") : "as meant";
}

/** The hand and the keys on the other side. */
function useSlide(how: Put, rows: 1 | 2, columns: number, onPut: (how: Put) => void) {
  const held = useRef<{ x: number; by: number }>(undefined);
  const [isHeld, setHeld] = useState(false);
  const slide = (by: number) => onPut({ ...how, by: Math.max(-columns, Math.min(columns, by)) });
  const turn = () => onPut({ ...how, isBack: !how.isBack, isAcross: rows === 2 ? !how.isAcross : false });
  const swap = () => onPut({ ...how, isAcross: !how.isAcross });
  const onKey = (e: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (step) slide(how.by + step);
    else if (e.key === "t") turn();
    else if (e.key === "x" && rows === 2) swap();
    else if (e.key === "Home") onPut(STILL);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const onDown = (e: PointerEvent<SVGGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    held.current = { x: e.clientX, by: how.by };
    setHeld(true);
  };
  const onMove = (e: PointerEvent<SVGGElement>) => {
    const from = held.current;
    const scale = e.currentTarget.getScreenCTM()?.a ?? 1;
    if (from) slide(from.by + Math.round((e.clientX - from.x) / (W * scale)));
  };
  const onUp = () => {
    held.current = undefined;
    setHeld(false);
  };
  const pointer = { onPointerDown: onDown, onPointerMove: onMove, onPointerUp: onUp, onPointerCancel: onUp };
  return { isHeld, slide, turn, swap, onKey, pointer };
}

/** Both sides as rows of contacts: theirs is slid, turned and mirrored over ours by hand and by keys, and says what it does. */
export function Slide({
  meeting: m,
  names,
  how,
  onPut,
}: {
  meeting: Meeting;
  /** What both sides are called. */
  names: readonly [string, string];
  how: Put;
  onPut: (how: Put) => void;
}) {
  const rows = m.rows ?? 1;
  const { columns, ours, theirs } = laidOver(m, how);
  const { pairs, verdict, because } = putTogether(m, how);
  const at = new Map(pairs.map((p) => [p.ours, p.verdict]));
  const { isHeld, slide, turn, swap, onKey, pointer } = useSlide(how, rows, columns, onPut);
  // room for a row that was slid as far as it goes by hand
  const room = Math.max(1, Math.abs(how.by));
  const width = (columns + 2 * room) * W + 8;
  const x = (column: number) => 4 + (column - 1 + room) * W;
  return (
    <figure>
      <div
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: an application has keys of its own
        tabIndex={0}
        aria-label={`${names[1]} over ${names[0]}, ${putWords(how, rows)}: ${verdict}${because ? `, ${because}` : ""}. Left and right arrow slide it, T turns it${rows === 2 ? ", X exchanges its rows" : ""}, Home puts it in as meant.`}
        className="overflow-x-auto outline-offset-2"
        onKeyDown={onKey}
      >
        <svg
          width={Math.min(width, 1180)}
          viewBox={`0 0 ${width} ${rows * ROW}`}
          className="block max-w-none"
          aria-hidden
        >
          <g fontFamily="var(--font-mono)" fontSize="11.5" textAnchor="middle">
            {ours.map((o) => (
              <Ours key={o.pin.pin} laid={o} x={x(o.column)} verdict={at.get(o.pin.pin)} />
            ))}
            <g {...pointer} style={{ cursor: isHeld ? "grabbing" : "grab", touchAction: "pan-y" }}>
              {theirs.map(({ pin, column, row }) => (
                <g key={pin.pin} transform={`translate(${x(column)} ${row * ROW})`}>
                  <Contact pin={pin} y={THEIRS} isTheirs />
                  <text x={W / 2} y={THEIRS + HEIGHT + 14} fill="var(--ink-2)">
                    {(pin.net ?? "").slice(0, 8)}
                  </text>
                </g>
              ))}
            </g>
          </g>
        </svg>
      </div>
      <figcaption className="no-print mt-1 flex flex-wrap items-baseline gap-x-4 text-[14px] text-ink-2">
        <span>
          {names[0]} above, {names[1]} below: <b className="text-ink">{putWords(how, rows)}</b>
        </span>
        <button type="button" className="quiet-link" onClick={() => slide(how.by - 1)}>
          slide left
        </button>
        <button type="button" className="quiet-link" onClick={() => slide(how.by + 1)}>
          slide right
        </button>
        <button type="button" className="quiet-link" onClick={turn}>
          turn
        </button>
        {rows === 2 && (
          <button type="button" className="quiet-link" onClick={swap}>
            exchange rows
          </button>
        )}
        {putWords(how, rows) !== "as meant" && (
          <button type="button" className="quiet-link" onClick={() => onPut(STILL)}>
            as meant
          </button>
        )}
      </figcaption>
    </figure>
  );
}

/** A contact of ours with what it does to what lies on it. */
function Ours({ laid, x, verdict: v }: { laid: Laid; x: number; verdict: PairVerdict | undefined }) {
  const { pin, row } = laid;
  return (
    <g transform={`translate(${x} ${row * ROW})`}>
      <text x={W / 2} y="22" fill="var(--ink-2)">
        {(pin.net ?? "").slice(0, 8)}
      </text>
      <Contact pin={pin} y={OURS} />
      {v && (
        <>
          <path
            d={`M${W / 2} ${OURS + HEIGHT}V${THEIRS}`}
            stroke={COLOUR[v]}
            strokeWidth={v === "idle" ? 1.5 : 4}
            strokeDasharray={v === "unknown" ? "3 3" : undefined}
          />
          <text x={W / 2 + 12} y={OURS + HEIGHT + 14} fill={COLOUR[v]} fontWeight="700">
            {SIGN[v]}
          </text>
        </>
      )}
    </g>
  );
}

function Contact({ pin, y, isTheirs = false }: { pin: Pin; y: number; isTheirs?: boolean }) {
  return (
    <>
      <rect
        x="2"
        y={y}
        width={W - 4}
        height={HEIGHT}
        rx="3"
        fill={isTheirs ? "var(--sheet)" : "var(--paper)"}
        stroke={pin.kind === undefined ? "var(--look)" : "var(--ink-3)"}
        strokeDasharray={pin.kind === undefined ? "3 3" : undefined}
      />
      <text x={W / 2} y={y + 11} fill="var(--ink)" fontWeight="700">
        {pin.pin}
      </text>
      <text x={W / 2} y={y + 22} fill="var(--ink-2)" fontSize="10.5">
        {shortKind(pin)}
      </text>
    </>
  );
}
