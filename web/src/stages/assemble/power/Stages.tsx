import type { PowerStage } from "@kobbin/core";
import { useFormats, written } from "../../../ui/text/format.ts";

const WIDE = 660;
const HIGH = 132;
const FLOOR = 108;

/** The knob turned up: so many volts a stage, each with the current at which it is switched off again. */
export function Stages({ stages }: { stages: readonly PowerStage[] }) {
  useFormats();
  const top = Math.max(...stages.map((s) => Math.abs(s.volts)));
  const step = (WIDE - 20) / stages.length;
  const y = (v: number) => FLOOR - 74 * (Math.abs(v) / top);
  const said = stages
    .map((s) => `${written(String(s.volts))} V, stop over ${written(String(s.stopMa))} mA`)
    .join("; ");
  return (
    <svg
      width={WIDE}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="mt-1 max-w-full"
      role="img"
      aria-label={`In stages: ${said}`}
    >
      <path
        d={`M10 ${FLOOR}${stages.map((s, i) => `L${10 + i * step} ${y(s.volts)}L${10 + (i + 1) * step} ${y(s.volts)}`).join("")}L${WIDE - 10} ${FLOOR}z`}
        fill="var(--metal-soft)"
        stroke="var(--metal)"
        strokeWidth="2"
      />
      {stages.map((s, i) => (
        <g key={s.volts} textAnchor="middle">
          <text
            x={10 + (i + 0.5) * step}
            y={y(s.volts) - 8}
            fontSize="16"
            fontWeight="700"
            fill="var(--ink)"
            fontFamily="var(--font-mono)"
          >
            {written(String(s.volts))} V
          </text>
          <text
            x={10 + (i + 0.5) * step}
            y={FLOOR + 18}
            fontSize="13.5"
            fill="var(--stop)"
            fontFamily="var(--font-mono)"
          >
            stop over {written(String(s.stopMa))} mA
          </text>
        </g>
      ))}
    </svg>
  );
}
