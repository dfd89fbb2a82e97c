import type { CurvePoint, Route } from "@kobbin/core";
import { useEffect, useRef } from "react";
import { pointWords } from "../../run/CurveSays.tsx";
import { Chart, quantityScales, token } from "../../ui/chart/quantityChart.ts";
import { useTheme } from "../../ui/useTheme.ts";

const INKS = ["--ink", "--metal", "--link", "--fine", "--look", "--stop", "--ink-3"];
/** Told apart without colour too. */
const DASHES: readonly number[][] = [[], [8, 4], [2, 3], [10, 3, 2, 3], [4, 2], [12, 6], [1, 4]];

/** Colour and dashes together are another for every way there may be. */
const ink = (i: number) => INKS[i % INKS.length]!;
const dash = (i: number) => DASHES[(i + 3 * Math.floor(i / INKS.length)) % DASHES.length]!;

/** What one costs over quantity, a line a way; the run's own quantity marked. */
export function RoutesChart({
  routes,
  curve,
  chosen,
  currency,
  unit,
}: {
  routes: readonly Route[];
  curve: ReadonlyMap<string, readonly CurvePoint[]>;
  chosen: number;
  currency: string;
  unit: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the theme's tokens are read when it changes
  useEffect(() => {
    const chart = new Chart(canvas.current!, {
      type: "line",
      data: {
        datasets: routes.map((r, i) => {
          const own = curve.get(r.key) ?? [];
          const points = own.map((p) => ({ x: p.quantity, y: p.perGood }));
          return {
            label: r.label,
            data: points,
            borderColor: token(ink(i)),
            borderDash: dash(i),
            borderWidth: r.isOwn ? 3 : 1.6,
            pointRadius: points.map((p) => (p.x === chosen ? 5 : 0)),
            pointBackgroundColor: token(ink(i)),
          };
        }),
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        interaction: { mode: "nearest", intersect: false },
        scales: quantityScales(`good ${unit}s`, `${currency} each`),
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: (items) => `${items[0]?.parsed.x} good ${unit}s`,
              label: (item) => {
                const p = curve.get(routes[item.datasetIndex]!.key)?.[item.dataIndex];
                return `${item.dataset.label}: ${pointWords(p, item.parsed.y ?? 0, currency)}`;
              },
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [routes, curve, chosen, currency, unit, theme]);
  return (
    <div className="h-[280px]">
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Cost per good ${unit} over quantity, one line for each of ${routes.length} ways; the table has them at this run's quantity, the crossings stand below.`}
      />
    </div>
  );
}

/** The stroke a way is drawn with, for the table beside the chart. */
export function Stroke({ index }: { index: number }) {
  return (
    <svg width="34" height="10" aria-hidden className="mr-2 inline-block">
      <path
        d="M1 5H33"
        stroke={`var(${ink(index)})`}
        strokeWidth="2"
        strokeDasharray={dash(index).join(" ")}
      />
    </svg>
  );
}
