import type { Cells } from "../table/columns.ts";
import type { HeatFinding } from "./findings.ts";
import {
  areMinutes,
  type Layout,
  layoutOf,
  NOT_A_PROBE,
  nameOf,
  OWN_UNIT,
  secondsIn,
  unitOf,
} from "./layout.ts";
import { continued, momentOf, numberOf } from "./time.ts";

/** What one probe read: seconds from the first sample of the log, and °C. */
export interface Probe {
  readonly name: string;
  readonly t: readonly number[];
  readonly c: readonly number[];
}
export interface HeatLog {
  readonly unit: "C" | "F";
  readonly seconds: number;
  readonly rows: number;
  readonly probes: readonly Probe[];
  readonly findings: readonly HeatFinding[];
}

const DEAD =
  /^(|open|nan|null|n\/?a|-+|—|\?+|err(or)?|ol|o\.l\.?|over(load)?|inf(inity)?|fault|no ?(probe|tc)|disconnected)$/i;
/** No board and no heater is there: what a logger writes for a probe that is not joined. */
const [LEAST_C, MOST_C] = [-60, 600];
/** A value, or why there is none: a probe that is not joined, or a text that means nothing. */
function readingOf(cell: string, unit: "C" | "F"): number | "dead" | "unread" {
  const text = cell.trim();
  if (DEAD.test(text)) return "dead";
  const suffix = /^(.*?)\s*(?:°|º)?\s*([CF])$/i.exec(text);
  const v = numberOf((suffix?.[1] ?? text).replace("−", "-").trim());
  if (v === undefined) return "unread";
  const c = (suffix ? suffix[2]!.toUpperCase() : unit) === "F" ? ((v - 32) * 5) / 9 : v;
  return c < LEAST_C || c > MOST_C || v <= -200 ? "dead" : c;
}

/** Time of each row; undefined where it is none. */
function secondsOf(rows: Cells, layout: Layout): (number | undefined)[] {
  const unitS = secondsIn(layout.headings[layout.time]!);
  const minutes = areMinutes(rows, layout);
  return continued(rows.map((r) => momentOf(r[layout.time] ?? "", unitS, minutes)));
}

/** Unit of each column: by its heading, else by what another heading, a line above or the cells say; else the likelier one, said. */
function unitsOf(
  rows: Cells,
  columns: readonly number[],
  { headings, above }: Layout,
): { readonly units: readonly HeatLog["unit"][]; readonly assumed?: string } {
  const stated = columns.map((k) => unitOf(headings[k]!));
  const inCells = columns.map((k) => OWN_UNIT.exec((rows[0]?.[k] ?? "").trim())?.[1]?.toUpperCase());
  const general = [...above.map(unitOf), ...stated, ...(inCells as (HeatLog["unit"] | undefined)[])].find(
    (u) => u !== undefined,
  );
  const greatest = rows.reduce((most, r) => columns.reduce((m, k) => Math.max(m, plainOf(r[k])), most), 0);
  // no paste bears as many °C
  const likelier = greatest > 300 ? "F" : "C";
  const isOpen = general === undefined && stated.some((u) => u === undefined);
  return {
    units: stated.map((u) => u ?? general ?? likelier),
    ...(isOpen
      ? {
          assumed: `No heading says °C or °F; the values, up to ${Math.round(greatest)}, are taken as °${likelier}.`,
        }
      : {}),
  };
}

/**
 * A log of temperatures as loggers write it: one row a sample, a column of time, a column a probe. Every cell is a value, a
 * probe that is not joined, or told. @returns why not, where it holds no samples
 */
export function readHeatLog(cells: Cells): HeatLog | string {
  const layout = layoutOf(cells);
  if (!layout) return "It holds no column of time with temperatures beside it.";
  const { first, time, headings } = layout;
  const rows = cells.slice(first).filter((r) => r.some((c) => c.trim() !== ""));
  const findings: HeatFinding[] = [];
  const say = (tag: HeatFinding["tag"], level: HeatFinding["level"], text: string, probe?: string) =>
    findings.push({ tag, level, ...(probe === undefined ? {} : { probe }), text });
  const seconds = secondsOf(rows, layout);
  const bad = rows.flatMap((_, i) => (seconds[i] !== undefined ? [] : [first + i + 1]));
  if (bad.length > 0)
    say(
      "heat-unreadable",
      "warning",
      `${bad.length === 1 ? `Row ${bad[0]} has` : `${bad.length} rows, the first ${bad[0]}, have`} no time that can be read; left out.`,
    );
  const columns = headings.map((_, k) => k).filter((k) => k !== time && !NOT_A_PROBE.test(headings[k]!));
  const { units, assumed } = unitsOf(rows, columns, layout);
  if (assumed) say("heat-unit-assumed", "remark", assumed);
  const order = seconds
    .flatMap((s, i) => (s === undefined ? [] : [[s, i] as const]))
    .sort((a, b) => a[0] - b[0]);
  const start = order[0]?.[0] ?? 0;
  const probes = columns.flatMap((k, n): Probe[] => {
    const name = nameOf(headings[k]!) || `probe ${n + 1}`;
    const read = order.map(([at, i]) => ({ t: at - start, v: readingOf(rows[i]![k] ?? "", units[n]!) }));
    const unread = read.filter((x) => x.v === "unread").length;
    const good = read.filter((x): x is { t: number; v: number } => typeof x.v === "number");
    const cells = unread === 1 ? "One cell" : `${unread} cells`;
    if (good.length === 0)
      say(
        "heat-unreadable",
        "warning",
        `${name} has no reading at all: not joined, or no probe; the others are judged.`,
        name,
      );
    else if (unread > 0)
      say(
        "heat-unreadable",
        "warning",
        `${cells} of ${name} can not be read as a temperature; left out.`,
        name,
      );
    return good.length === 0 ? [] : [{ name, ...merged(good) }];
  });
  return {
    unit: units.every((u) => u === "F") ? "F" : "C",
    seconds: order.length > 0 ? order.at(-1)![0] - start : 0,
    rows: order.length,
    probes,
    findings,
  };
}

/** Samples of one moment, as a clock of whole seconds gives them when it is read more often, as their mean. */
function merged(read: readonly { readonly t: number; readonly v: number }[]): Pick<Probe, "t" | "c"> {
  const t: number[] = [];
  const c: number[] = [];
  let count = 0;
  for (const x of read) {
    const last = t.length - 1;
    if (last >= 0 && t[last] === x.t) {
      count++;
      c[last] = c[last]! + (x.v - c[last]!) / count;
    } else {
      t.push(x.t);
      c.push(x.v);
      count = 1;
    }
  }
  return { t, c };
}

const plainOf = (cell: string | undefined): number => {
  const v = numberOf((cell ?? "").trim());
  return v !== undefined && v < 900 ? v : 0;
};
