import type { Cells } from "../table/columns.ts";
import type { HeatFinding } from "./findings.ts";
import {
  areMinutes,
  asideOf,
  headingsOf,
  isDead,
  type Layout,
  layoutOf,
  OWN_UNIT,
  secondsIn,
  type Unit,
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
  readonly unit: Unit;
  readonly seconds: number;
  readonly rows: number;
  readonly probes: readonly Probe[];
  readonly findings: readonly HeatFinding[];
}

/** No board and no heater is there: what a logger writes for a probe that is not joined. */
const [LEAST_C, MOST_C] = [-60, 600];
/** A value, or why there is none: no reading at all, a probe that is not joined, or a text that means nothing. */
function readingOf(cell: string, unit: Unit): number | "none" | "dead" | "unread" {
  const text = cell.trim();
  if (text === "") return "none";
  if (isDead(text)) return "dead";
  const suffix = /^(.*?)\s*(?:°|º)?\s*([CF])$/i.exec(text);
  const v = numberOf((suffix?.[1] ?? text).replace("−", "-").trim());
  if (v === undefined) return "unread";
  const c = (suffix ? suffix[2]!.toUpperCase() : unit) === "F" ? ((v - 32) * 5) / 9 : v;
  return c < LEAST_C || c > MOST_C ? "dead" : c;
}

type Say = (tag: HeatFinding["tag"], level: HeatFinding["level"], text: string, probe?: string) => void;

/** Time of each row; undefined where it is none. What is taken for known of it is said, and rows without one. */
function secondsOf(
  rows: Cells,
  numbers: readonly number[],
  layout: Layout,
  say: Say,
): (number | undefined)[] {
  const unitS = secondsIn(layout.headings[layout.time]!);
  const clock = areMinutes(rows, layout);
  if (clock.isTaken)
    say(
      "heat-unit-assumed",
      "warning",
      "Times like 1:30 are taken as minutes and seconds, and no heading says so. If they are hours and minutes everything here is sixty times too quick: write hh:mm above them.",
    );
  const seconds = continued(rows.map((r) => momentOf(r[layout.time] ?? "", unitS, clock.areMinutes)));
  const bad = rows.flatMap((_, i) => (seconds[i] === undefined ? [numbers[i]!] : []));
  if (bad.length > 0)
    say(
      "heat-unreadable",
      "warning",
      `${bad.length === 1 ? `Row ${bad[0]} has` : `${bad.length} rows, the first ${bad[0]}, have`} no time that can be read; left out.`,
    );
  return seconds;
}

/** Unit of each column: by its heading, else by what another heading, a line above or the cells say; else the likelier one, said. */
function unitsOf(
  rows: Cells,
  columns: readonly number[],
  stated: readonly (Unit | undefined)[],
  { above }: Layout,
): { readonly units: readonly Unit[]; readonly assumed?: string } {
  const inCells = columns.map((k) => OWN_UNIT.exec((rows[0]?.[k] ?? "").trim())?.[1]?.toUpperCase());
  const general = [...above.map(unitOf), ...stated, ...(inCells as (Unit | undefined)[])].find(
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
  const filled = cells.map((row, i) => [row, i + 1] as const).slice(first);
  const numbered = filled.filter(([row]) => row.some((c) => c.trim() !== ""));
  const rows = numbered.map(([row]) => row);
  const findings: HeatFinding[] = [];
  const say: Say = (tag, level, text, probe) =>
    findings.push({ tag, level, ...(probe === undefined ? {} : { probe }), text });
  const seconds = secondsOf(
    rows,
    numbered.map(([, number]) => number),
    layout,
    say,
  );
  const columns = headings.flatMap((heading, k) => {
    const aside =
      k === time
        ? "bare"
        : asideOf(
            heading,
            rows.map((r) => r[k] ?? ""),
          );
    if (aside === "words")
      say(
        "heat-unreadable",
        "remark",
        `The column ${heading} holds words, no temperatures; it is not judged.`,
      );
    return aside ? [] : [k];
  });
  const { names, units: stated } = headingsOf(columns.map((k) => headings[k]!));
  const { units, assumed } = unitsOf(rows, columns, stated, layout);
  if (assumed) say("heat-unit-assumed", "remark", assumed);
  const order = seconds
    .flatMap((s, i) => (s === undefined ? [] : [[s, i] as const]))
    .sort((a, b) => a[0] - b[0]);
  const start = order[0]?.[0] ?? 0;
  const probes = columns.flatMap((k, n) =>
    probeOf(
      names[n] || `probe ${n + 1}`,
      order.map(([at, i]) => ({ t: at - start, v: readingOf(rows[i]![k] ?? "", units[n]!) })),
      say,
    ),
  );
  return {
    unit: units.every((u) => u === "F") ? "F" : "C",
    seconds: order.length > 0 ? order.at(-1)![0] - start : 0,
    rows: order.length,
    probes,
    findings,
  };
}

/** One probe's samples; what of its cells is no reading is said, but for cells that are empty: nothing was there. */
function probeOf(
  name: string,
  read: readonly { readonly t: number; readonly v: ReturnType<typeof readingOf> }[],
  say: Say,
): Probe[] {
  const good = read.filter((x): x is { t: number; v: number } => typeof x.v === "number");
  const many = (what: "dead" | "unread") => read.filter((x) => x.v === what).length;
  const cells = (n: number) => (n === 1 ? "One cell" : `${n} cells`);
  const lost = (text: string) => say("heat-unreadable", "warning", text, name);
  if (good.length === 0) {
    lost(`${name} has no reading at all: not joined, or no probe; the others are judged.`);
    return [];
  }
  if (many("unread") > 0)
    lost(`${cells(many("unread"))} of ${name} cannot be read as a temperature; left out.`);
  if (many("dead") > 0)
    lost(
      `${cells(many("dead"))} of ${name} say that it was not joined, or lie beyond ${LEAST_C} to ${MOST_C} °C; left out.`,
    );
  return [{ name, ...merged(good) }];
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
