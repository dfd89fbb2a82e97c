import type { TestItem, UnitLine } from "@kobbin/core";
import { written } from "../../../ui/text/format.ts";
import { graphOf } from "./lineModel.ts";

/**
 * How far each point lies off the line, many times enlarged: the band is what is allowed, the middle the line. A point beyond is
 * a cross.
 */
export function LineGraph({ is, wide = 260 }: { is: UnitLine<TestItem>; wide?: number }) {
  const g = graphOf(is, wide);
  if (!g) return null;
  const { line } = is;
  const words = g.points.map((p) => `${p.off} ${line.unit} off at ${p.applied}`).join(", ");
  return (
    <svg width={wide} height={g.high} role="img" aria-label={`Off the line: ${words}`}>
      {g.band !== undefined && (
        <rect x="6" y={g.mid - g.band} width={wide - 12} height={2 * g.band} fill="var(--fine-soft)" />
      )}
      <path d={`M6 ${g.mid}H${wide - 6}`} stroke="var(--rule-2)" />
      {g.points.map((p) => (
        <g key={p.applied}>
          <path d={`M${p.x} ${g.mid}V${p.y}`} stroke="var(--ink-3)" />
          {p.isOver ? (
            <path
              d={`M${p.x - 5} ${p.y - 5}l10 10M${p.x + 5} ${p.y - 5}l-10 10`}
              stroke="var(--stop)"
              strokeWidth="2.5"
            />
          ) : (
            <circle cx={p.x} cy={p.y} r="4" fill="var(--metal)" />
          )}
          <text x={p.x} y={g.high - 3} textAnchor={p.anchor} className="num fill-ink-2 text-[12px]">
            {written(p.applied)} {line.unit}
          </text>
        </g>
      ))}
    </svg>
  );
}
