import type { LessonCheck } from "@kobbin/core";
import { measureSpec } from "@kobbin/core";
import { written } from "../../ui/text/format.ts";

const WIDE = 84;
const HIGH = 52;
const INK = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "none" } as const;
const METAL = { fill: "var(--metal-soft)", stroke: "var(--metal-line)", strokeWidth: 1 } as const;

/** What a lesson looks at, drawn: the slot with its width, the land pattern as it is, the row of contacts. */
export function CheckDrawing({ check: c }: { check: LessonCheck }) {
  return (
    <svg width={WIDE} height={HIGH} viewBox={`0 0 ${WIDE} ${HIGH}`} className="shrink-0" aria-hidden="true">
      {drawn(c)}
    </svg>
  );
}

function drawn(c: LessonCheck) {
  switch (c.kind) {
    case "slot":
      return (
        <>
          <rect x="8" y="22" width="68" height="16" rx="8" {...INK} />
          <Width from={22} to={38} x={42} text={written(String(c.leastMm))} />
        </>
      );
    case "pattern":
      return <Lands at={c.at} />;
    case "measure":
      return <Gap text={`${measureSpec(c.key).is === "at most" ? "≤" : "≥"} ${written(String(c.limit))}`} />;
    case "marked":
      return (
        <>
          <rect x="10" y="18" width="14" height="18" {...METAL} />
          <rect x="60" y="18" width="14" height="18" {...METAL} />
          <rect x="26" y="14" width="32" height="26" {...INK} />
          <line x1="32" y1="14" x2="32" y2="40" stroke="var(--ink)" strokeWidth="4" />
        </>
      );
    case "contacts":
      return (
        <>
          {[10, 24, 38, 52, 66].map((x) => (
            <rect key={x} x={x} y="10" width="8" height={c.what === "setback" ? 26 : 32} {...METAL} />
          ))}
          <line x1="2" y1="44" x2="82" y2="44" stroke="var(--ink)" strokeWidth="1.3" />
          {c.what === "bars" && <path d="M41 32v10m-3-3l6 6m0-6l-6 6" {...INK} />}
        </>
      );
    case "place":
      return (
        <>
          <circle cx="42" cy="26" r="20" {...INK} strokeDasharray="3 3" />
          {c.what === "window" ? (
            <path d="M42 12v-6M42 40v6M28 26h-6M56 26h6" {...INK} />
          ) : c.what === "cutout" ? (
            <path d="M32 16l20 20M52 16l-20 20" {...INK} />
          ) : (
            <circle cx="42" cy="26" r="12" {...METAL} />
          )}
        </>
      );
    case "asked":
      return (
        <text x="42" y="38" fontSize="34" textAnchor="middle" fill="var(--ink-2)">
          ?
        </text>
      );
    default:
      return <Shunned kind={c.kind} />;
  }
}

/** A part, a bag, a house, a heater, a program: struck through, as it is not to be used. */
function Shunned({ kind }: { kind: "part" | "lot" | "house" | "machine" | "program" }) {
  const shapes = {
    part: <path d="M26 14h32v24h-32zM18 19h8M18 26h8M18 33h8M58 19h8M58 26h8M58 33h8" {...INK} />,
    lot: <path d="M24 12h36v28h-36zM24 19h36M30 27h24M30 33h14" {...INK} />,
    house: <path d="M22 26l20-16 20 16M27 24v18h30v-18M38 42v-10h8v10" {...INK} />,
    program: <path d="M24 12h36v28h-36zM30 20l6 5-6 5M40 32h12" {...INK} />,
    machine: <path d="M18 34h48v8h-48zM26 28q3-4 0-8t0-8M42 28q3-4 0-8t0-8M58 28q3-4 0-8t0-8" {...INK} />,
  };
  return (
    <>
      {shapes[kind]}
      <line x1="12" y1="46" x2="72" y2="6" stroke="var(--stop)" strokeWidth="2" />
    </>
  );
}

/** Pads where they lie; pin 1 filled. */
function Lands({ at }: { at: readonly (readonly [number, number])[] }) {
  const most = (k: 0 | 1) => Math.max(0.3, ...at.map((p) => Math.abs(p[k])));
  const scale = Math.min((WIDE / 2 - 9) / most(0), (HIGH / 2 - 9) / most(1), 22);
  const size = Math.max(3, Math.min(12, scale * 0.9, 60 / Math.sqrt(at.length)));
  return at.map(([x, y], i) => (
    <rect
      // biome-ignore lint/suspicious/noArrayIndexKey: pads keep their order
      key={i}
      x={WIDE / 2 + x * scale - size / 2}
      y={HIGH / 2 - y * scale - size / 2}
      width={size}
      height={size}
      {...METAL}
      {...(i === 0 ? { fill: "var(--metal)" } : {})}
    />
  ));
}

function Gap({ text }: { text: string }) {
  return (
    <>
      <path d="M8 12h68M8 40h68" stroke="var(--metal-line)" strokeWidth="9" />
      <line x1="16" y1="17" x2="16" y2="35" stroke="var(--ink)" />
      <path d="M13 20l3-3 3 3M13 32l3 3 3-3" {...INK} strokeWidth={1} />
      <text x="48" y="30" fontSize="12" fontWeight="700" textAnchor="middle" fill="var(--ink)">
        {text}
      </text>
    </>
  );
}

/** A dimension across a slot. */
function Width({ from, to, x, text }: { from: number; to: number; x: number; text: string }) {
  return (
    <>
      <line x1={x} y1={from} x2={x} y2={to} stroke="var(--ink)" />
      <path d={`M${x - 3} ${from + 3}l3-3 3 3M${x - 3} ${to - 3}l3 3 3-3`} {...INK} strokeWidth={1} />
      <text x={x} y={from - 6} fontSize="12" fontWeight="700" textAnchor="middle" fill="var(--ink)">
        ≥ {text}
      </text>
    </>
  );
}
