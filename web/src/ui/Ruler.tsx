import { type KeyboardEvent, type PointerEvent, useId, useRef, useState } from "react";
import { isMixed, type RulerPoint, sweetSpots } from "./chart/sweetSpots.ts";
import { amount } from "./text/format.ts";

const W = 470;
const H = 96;
const BASE = 62;

/**
 * A logarithmic quantity rule: dragged, typed, or stepped with the arrow keys; the cost curve stands above it, with
 * marks where the unit cost drops.
 */
export function Ruler({
  value,
  onChange,
  points,
  known,
  currency,
  disabled = false,
  label,
}: {
  value: number;
  onChange: (n: number) => void;
  points: readonly RulerPoint[];
  /** The chosen quantity itself, once it is counted. */
  known?: RulerPoint;
  currency: string;
  disabled?: boolean;
  /** What is counted. */
  label: string;
}) {
  const id = useId();
  const rule = useRef<HTMLDivElement>(null);
  const [draft, setDraft] = useState<number>();
  // what is being typed stays, whatever comes from elsewhere meanwhile
  const [typed, setTyped] = useState<string>();
  const top = Math.max(100, ...points.map((p) => p.quantity), value);
  const x = (q: number) => 8 + (Math.log(Math.max(1, q)) / Math.log(top)) * (W - 16);
  const q = (px: number) => Math.max(1, Math.min(top, Math.round(top ** ((px - 8) / (W - 16)))));
  const shown = draft ?? value;
  const costs = points.map((p) => p.perGood);
  const [low, high] = [Math.min(...costs), Math.max(...costs)];
  const y = (c: number) =>
    high > low
      ? BASE - 6 - ((Math.log(c) - Math.log(low)) / (Math.log(high) - Math.log(low))) * (BASE - 14)
      : BASE - 20;
  const pointer = (e: PointerEvent) => {
    const box = rule.current!.getBoundingClientRect();
    return q(((e.clientX - box.left) / box.width) * W);
  };
  const commit = (n: number) => {
    setDraft(undefined);
    setTyped(undefined);
    if (Number.isInteger(n) && n >= 1 && n <= 100_000 && n !== value) onChange(n);
  };
  const step = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[e.key];
    if (by === undefined || disabled) return;
    e.preventDefault();
    commit(Math.max(1, value + by));
  };
  const ticks = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].filter((t) => t <= top);
  const near =
    points.length > 0
      ? points.reduce((b, p) =>
          Math.abs(Math.log(p.quantity / shown)) < Math.abs(Math.log(b.quantity / shown)) ? p : b,
        )
      : undefined;
  // what is not counted for this very quantity is told of the nearest that is
  const exact = known?.quantity === shown ? known : points.find((p) => p.quantity === shown);
  const told = exact ?? near;
  const each = told && `${told.unpriced ? "≥ " : ""}${amount(told.perGood, currency)}`;
  return (
    <div className="flex items-end gap-4">
      <div className="flex flex-col">
        <label htmlFor={id} className="text-[13px] text-ink-2">
          {label}
        </label>
        <input
          id={id}
          className="num w-[76px] text-right"
          inputMode="numeric"
          disabled={disabled}
          value={draft === undefined ? (typed ?? String(value)) : String(draft)}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={() => typed !== undefined && commit(Number(typed))}
          onKeyDown={(e) =>
            e.key === "Enter"
              ? commit(Number(typed ?? value))
              : e.key === "Escape"
                ? setTyped(undefined)
                : undefined
          }
        />
      </div>
      <div
        ref={rule}
        className={`w-full min-w-0 touch-none ${disabled ? "" : "cursor-ew-resize"}`}
        role="slider"
        tabIndex={disabled ? -1 : 0}
        aria-label={`Number of ${label}`}
        aria-valuemin={1}
        aria-valuemax={top}
        aria-valuenow={shown}
        aria-valuetext={`${shown} ${label}${each ? `, ${each} each${exact ? "" : ` at ${told.quantity}`}` : ""}`}
        onKeyDown={step}
        onPointerDown={(e) => {
          if (disabled) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          setDraft(pointer(e));
        }}
        onPointerMove={(e) => draft !== undefined && setDraft(pointer(e))}
        onPointerUp={() => draft !== undefined && commit(draft)}
      >
        <svg viewBox={`0 0 ${W} ${H}`} className="w-full overflow-visible" aria-hidden="true">
          {points.length > 1 && (
            <polyline
              fill="none"
              stroke="var(--metal)"
              strokeWidth="1.6"
              points={points.map((p) => `${x(p.quantity)},${y(p.perGood)}`).join(" ")}
            />
          )}
          <line x1="8" x2={W - 8} y1={BASE} y2={BASE} stroke="var(--ink)" strokeWidth="1.4" />
          {ticks.map((t) => (
            <g key={t}>
              <line x1={x(t)} x2={x(t)} y1={BASE} y2={BASE + 7} stroke="var(--ink)" />
              <text
                x={x(t)}
                y={BASE + 21}
                textAnchor="middle"
                fontSize="12"
                fill="var(--ink-2)"
                fontFamily="var(--font-mono)"
              >
                {t}
              </text>
            </g>
          ))}
          {sweetSpots(points).map((p) => (
            <path key={p.quantity} d={`M${x(p.quantity)} ${BASE - 1} l-5 -8 h10 z`} fill="var(--fine)">
              <title>{`${p.quantity}: ${amount(p.perGood, currency)} each, a step down`}</title>
            </path>
          ))}
          {isMixed(points) &&
            points
              .filter((p) => p.quoted)
              .map((p) => (
                <circle
                  key={p.quantity}
                  cx={x(p.quantity)}
                  cy={y(p.perGood)}
                  r="3.4"
                  fill="var(--sheet)"
                  stroke="var(--metal)"
                  strokeWidth="1.6"
                >
                  <title>{`${p.quantity}: by the quotation of ${p.quoted!.join(" and ")}; estimates elsewhere`}</title>
                </circle>
              ))}
          <line x1={x(shown)} x2={x(shown)} y1={4} y2={BASE + 8} stroke="var(--metal)" strokeWidth="2" />
          <circle cx={x(shown)} cy={BASE} r="6" fill="var(--metal)" />
          {told && (
            <text
              x={Math.min(W - 8, Math.max(8, x(shown) + (x(shown) > W * 0.7 ? -8 : 8)))}
              y={14}
              textAnchor={x(shown) > W * 0.7 ? "end" : "start"}
              fontSize="13"
              fill="var(--ink)"
              fontFamily="var(--font-mono)"
            >
              {exact ? `${shown}: ${each}` : `${shown} (${told.quantity}: ${each})`}
            </text>
          )}
        </svg>
      </div>
    </div>
  );
}
