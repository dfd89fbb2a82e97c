import type { CurvePoint } from "@kobbin/core";
import { useEffect, useRef } from "react";
import { pointWords } from "../../run/CurveSays.tsx";
import { Chart, quantityScales, token } from "../../ui/chart/quantityChart.ts";
import { amount } from "../../ui/text/format.ts";
import { useTheme } from "../../ui/useTheme.ts";

/** Cost per good board over quantity, both on logarithmic rules; the run's own quantity marked. */
export function CurveChart({
  points,
  currency,
  chosen,
  unit,
}: {
  points: readonly CurvePoint[];
  currency: string;
  chosen: number;
  /** What is counted. */
  unit: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's tokens are read when it changes
  useEffect(() => {
    const chart = new Chart(canvas.current!, {
      type: "line",
      data: {
        datasets: [
          {
            data: points.map((p) => ({ x: p.quantity, y: p.perGood })),
            borderColor: token("--metal"),
            borderWidth: 1.8,
            stepped: false,
            // beyond the stock the line is an estimate
            segment: { borderDash: (s) => (points[s.p1DataIndex]?.isEstimate ? [5, 4] : undefined) },
            pointRadius: points.map((p) => (p.quantity === chosen ? 6 : 2.2)),
            pointBackgroundColor: points.map((p) =>
              p.quantity === chosen ? token("--metal") : token("--sheet"),
            ),
            pointBorderColor: token("--metal"),
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: quantityScales(`good ${unit}s`, `${currency} each`),
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: (items) => `${items[0]?.parsed.x} good ${unit}s`,
              label: (item) => pointWords(points[item.dataIndex], item.parsed.y ?? 0, currency),
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [points, currency, chosen, unit, theme]);
  return (
    <div className="h-[260px]">
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Cost per good ${unit} falls from ${amount(points[0]!.perGood, currency)} at ${points[0]!.quantity} to ${amount(points.at(-1)!.perGood, currency)} at ${points.at(-1)!.quantity}; the table below has all points.`}
      />
    </div>
  );
}
