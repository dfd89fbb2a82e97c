import type { HeatLog, HeatWindow } from "@kobbin/core";

const [WIDE, HIGH] = [372, 190];
const PAD = { left: 34, right: 8, top: 8, bottom: 20 };
const DASHES = ["", "6 3", "2 3", "8 3 2 3"];
/** A curve has no more points than can be seen. */
const MOST_POINTS = 600;

/** Probes over time in the window of the alloy: the soak as a field, the peak as a band, the liquidus as a line. */
export function HeatCurve({
  log,
  window: w,
  limitC,
}: {
  log: HeatLog;
  window: HeatWindow;
  limitC: number | undefined;
}) {
  const top = Math.max(w.peakC[1] + 15, ...log.probes.map((p) => Math.max(...p.c) + 5));
  const x = (s: number) => PAD.left + (s / Math.max(1, log.seconds)) * (WIDE - PAD.left - PAD.right);
  const y = (c: number) => HIGH - PAD.bottom - (Math.max(0, c) / top) * (HIGH - PAD.top - PAD.bottom);
  const line = (t: readonly number[], c: readonly number[]) => {
    const step = Math.max(1, Math.ceil(t.length / MOST_POINTS));
    const shown = t.flatMap((s, i) =>
      i % step === 0 || i === t.length - 1 ? [`${x(s).toFixed(1)} ${y(c[i]!).toFixed(1)}`] : [],
    );
    return `M${shown.join("L")}`;
  };
  const band = (low: number, high: number) => ({ y: y(high), height: y(low) - y(high) });
  const right = WIDE - PAD.right;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="my-1 w-full max-w-[420px]"
      role="img"
      aria-label={`Temperature over ${Math.round(log.seconds)} s: ${log.probes.map((p) => `${p.name} up to ${Math.round(Math.max(...p.c))} °C`).join(", ")}`}
    >
      <rect x={PAD.left} width={right - PAD.left} {...band(w.soakC[0], w.soakC[1])} fill="var(--look-soft)" />
      <rect x={PAD.left} width={right - PAD.left} {...band(w.peakC[0], w.peakC[1])} fill="var(--fine-soft)" />
      <path d={`M${PAD.left} ${y(w.liquidusC)}H${right}`} stroke="var(--ink-3)" strokeDasharray="3 3" />
      {limitC !== undefined && (
        <path d={`M${PAD.left} ${y(limitC - 5)}H${right}`} stroke="var(--stop)" strokeWidth="1.5" />
      )}
      {log.probes.map((p, i) => (
        <path
          key={p.name}
          d={line(p.t, p.c)}
          fill="none"
          stroke={i % 2 === 0 ? "var(--metal)" : "var(--link)"}
          strokeWidth="2"
          strokeDasharray={DASHES[i % DASHES.length]}
        />
      ))}
      <path
        d={`M${PAD.left} ${PAD.top}V${HIGH - PAD.bottom}H${right}`}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth="1"
      />
      <g fontSize="10.5" fill="var(--ink-2)">
        <text x={right - 2} y={y(w.peakC[0]) - 3} textAnchor="end">
          peak {w.peakC.join("–")} °C
        </text>
        <text x={right - 2} y={y(w.soakC[0]) - 3} textAnchor="end">
          soak {w.soakC.join("–")} °C
        </text>
        <text x={PAD.left - 4} y={y(w.liquidusC) + 3.5} textAnchor="end">
          {w.liquidusC}
        </text>
        <text x={PAD.left - 4} y={y(0)} textAnchor="end">
          0
        </text>
        <text x={right} y={HIGH - 6} textAnchor="end">
          {Math.round(log.seconds)} s
        </text>
        {log.probes.map((p, i) => (
          <text key={p.name} x={PAD.left + 6} y={PAD.top + 10 + 12 * i} fill="var(--ink)">
            {i % 2 === 0 ? "— " : "- - "}
            {p.name}
          </text>
        ))}
      </g>
    </svg>
  );
}
