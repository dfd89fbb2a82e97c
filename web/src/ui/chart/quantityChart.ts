import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from "chart.js";

Chart.register(LineController, LineElement, PointElement, LogarithmicScale, LinearScale, Tooltip);

/** A colour of the page as it is now. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Both rules of a chart of money over quantity: logarithmic, with 1, 2 and 5 of each power written out. */
export function quantityScales(across: string, up: string) {
  const font = { family: "Commit Mono", size: 12 };
  const text = { family: "Atkinson Hyperlegible Next Variable", size: 13 };
  const rule = (title: string, isWritten: RegExp) => ({
    type: "logarithmic" as const,
    title: { display: true, text: title, color: token("--ink-2"), font: text },
    ticks: {
      autoSkip: false,
      maxRotation: 0,
      color: token("--ink-2"),
      font,
      callback: (v: string | number) => (isWritten.test(String(v)) ? String(v) : ""),
    },
    grid: { color: token("--grid") },
  });
  return { x: rule(across, /^[125]0*$/), y: rule(up, /^[125]0*$|^0?\.[125]0*$/) };
}

export { Chart };
