import type { Cells } from "../table/columns.ts";
import type { HeatFinding } from "./findings.ts";
import { type Probe, readHeatLog } from "./log.ts";
import type { HeatWindow } from "./window.ts";

export interface ProbeHeat {
  readonly name: string;
  readonly peakC: number;
  readonly peakAtS: number;
  readonly secondsAboveLiquidus: number;
  /** Before the peak, between the levels of the soak. */
  readonly soakS: number;
  /** Steepest mean rise and fall over any ten seconds; left out where it was read for less. */
  readonly rampCps?: number;
  readonly coolCps?: number;
}
export interface HeatJudged {
  readonly kobbin: "heat/1";
  readonly unit: "C" | "F";
  readonly seconds: number;
  readonly probes: readonly ProbeHeat[];
  readonly spreadC?: number;
  readonly verdict: "inside" | "look" | "outside";
  readonly findings: readonly HeatFinding[];
}
export interface HeatRefused {
  readonly kobbin: "heat/1";
  readonly outcome: "reject";
  readonly reason: string;
}

const WINDOW_S = 10;
const LEAST_SAMPLES = 10;
const round = (v: number) => Math.round(v * 1000) / 1000 + 0;

/** Temperature at a moment, linear between samples. */
export function at(p: Probe, s: number): number {
  let [low, high] = [0, p.t.length - 1];
  if (s <= p.t[0]!) return p.c[0]!;
  if (s >= p.t[high]!) return p.c[high]!;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (p.t[middle]! <= s) low = middle;
    else high = middle;
  }
  const share = (s - p.t[low]!) / (p.t[high]! - p.t[low]!);
  return p.c[low]! + share * (p.c[high]! - p.c[low]!);
}

/** Seconds between two levels, both counted, up to a moment. */
export function secondsWithin(p: Probe, low: number, high: number, until = Number.POSITIVE_INFINITY): number {
  let sum = 0;
  for (let i = 1; i < p.t.length; i++) {
    const [t0, t1] = [p.t[i - 1]!, Math.min(p.t[i]!, until)];
    if (t1 <= t0) continue;
    const [a, b] = [p.c[i - 1]!, at(p, t1)];
    if (a === b) {
      if (a >= low && a <= high) sum += t1 - t0;
      continue;
    }
    // shares of this piece at which it enters and leaves the levels
    const [x, y] = [(low - a) / (b - a), (high - a) / (b - a)];
    const [from, to] = [Math.max(0, Math.min(x, y)), Math.min(1, Math.max(x, y))];
    if (to > from) sum += (to - from) * (t1 - t0);
  }
  return sum;
}

/** Greatest rise of a mean over ten seconds, and greatest fall as a positive number; it turns at a sample at one of its ends. */
function steepest(p: Probe): { readonly up: number; readonly down: number } | undefined {
  const [start, end] = [p.t[0]!, p.t.at(-1)!];
  if (end - start < WINDOW_S) return undefined;
  let [up, down] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const t of p.t)
    for (const from of [t, t - WINDOW_S]) {
      if (from < start || from + WINDOW_S > end) continue;
      const slope = (at(p, from + WINDOW_S) - at(p, from)) / WINDOW_S;
      up = Math.max(up, slope);
      down = Math.max(down, -slope);
    }
  return { up: Math.max(0, up), down: Math.max(0, down) };
}

/** Greatest difference of the probes while all are above a level: it turns at a sample or where one of them crosses it. */
function spreadOf(probes: readonly Probe[], level: number): number | undefined {
  if (probes.length < 2) return undefined;
  const start = Math.max(...probes.map((p) => p.t[0]!));
  const end = Math.min(...probes.map((p) => p.t.at(-1)!));
  const moments = new Set<number>();
  for (const p of probes)
    for (let i = 0; i < p.t.length; i++) {
      moments.add(p.t[i]!);
      const [a, b] = [p.c[i]!, p.c[i + 1]];
      if (b !== undefined && a !== b && (a - level) * (b - level) < 0)
        moments.add(p.t[i]! + ((level - a) / (b - a)) * (p.t[i + 1]! - p.t[i]!));
    }
  let spread: number | undefined;
  for (const s of moments) {
    if (s < start || s > end) continue;
    const values = probes.map((p) => at(p, s));
    const least = Math.min(...values);
    // on the level itself it is just being crossed
    if (least < level - 1e-9) continue;
    spread = Math.max(spread ?? 0, Math.max(...values) - least);
  }
  const isAbove = [...moments].some((s) => s >= start && s <= end && probes.every((p) => at(p, s) > level));
  return isAbove ? spread : undefined;
}

const longestGap = (p: Probe, seconds: number): number =>
  [0, ...p.t, seconds].reduce((most, t, i, all) => (i === 0 ? most : Math.max(most, t - all[i - 1]!)), 0);

interface Told {
  readonly tag: HeatFinding["tag"];
  readonly value: number;
  readonly limit: number;
  readonly level: HeatFinding["level"];
  readonly text: string;
}

type Say = (
  isSaid: boolean,
  tag: Told["tag"],
  level: Told["level"],
  value: number,
  limit: number,
  text: string,
) => void;
const n = (v: number) => String(Math.round(v * 10) / 10);

/** @param most hottest that the weakest part may become */
function peakOf(h: ProbeHeat, w: HeatWindow, most: number | undefined, say: Say): void {
  const { name, peakC } = h;
  const came = `${name} came to ${n(peakC)} °C`;
  const least = w.peakC[0];
  say(peakC < least, "heat-peak-low", "error", peakC, least, `${came}, at least ${least} are wanted.`);
  const isPart = most !== undefined && most < w.peakC[1];
  const limit = isPart ? most : w.peakC[1];
  const why = isPart
    ? `; the weakest part bears ${most + RESERVE_C}, less ${RESERVE_C} for what is not seen`
    : `, at most ${limit} are wanted`;
  say(peakC > limit, "heat-peak-high", "error", peakC, limit, `${came}${why}.`);
}

function liquidOf(h: ProbeHeat, w: HeatWindow, say: Say): void {
  const above = h.secondsAboveLiquidus;
  const [inner, outer] = [w.aboveS, w.aboveOuterS ?? w.aboveS];
  const was = `${h.name} was above ${w.liquidusC} °C for ${n(above)} s`;
  const [isShort, isLong] = [above < outer[0], above > outer[1]];
  const least = isShort ? outer[0] : inner[0];
  const most = isLong ? outer[1] : inner[1];
  const level = isShort || isLong ? "error" : "warning";
  say(above < inner[0], "heat-liquidus-short", level, above, least, `${was}, at least ${least} are wanted.`);
  say(above > inner[1], "heat-liquidus-long", level, above, most, `${was}, at most ${most} are wanted.`);
}

function slopesOf(h: ProbeHeat, w: HeatWindow, say: Say): void {
  const { name, rampCps, coolCps } = h;
  if (rampCps !== undefined)
    say(
      rampCps > w.rampCps,
      "heat-ramp",
      "warning",
      rampCps,
      w.rampCps,
      `${name} rose by up to ${n(rampCps)} °C/s, at most ${w.rampCps} are wanted.`,
    );
  if (coolCps === undefined) return;
  const hard = w.coolOuterCps ?? w.coolCps;
  const isHard = coolCps > hard;
  const limit = isHard ? hard : w.coolCps;
  const text = `${name} fell by up to ${n(coolCps)} °C/s, at most ${limit} are wanted.`;
  say(coolCps > w.coolCps, "heat-cool", isHard ? "error" : "warning", coolCps, limit, text);
}

/** Everything one probe says against a window. */
function against(p: Probe, h: ProbeHeat, seconds: number, w: HeatWindow, most: number | undefined): Told[] {
  const out: Told[] = [];
  const say: Say = (isSaid, tag, level, value, limit, text) => {
    if (isSaid) out.push({ tag, level, value: round(value), limit, text });
  };
  peakOf(h, w, most, say);
  liquidOf(h, w, say);
  const { soakS, peakAtS, name } = h;
  const [least, longest] = w.soakS;
  const levels = `between ${w.soakC[0]} and ${w.soakC[1]} °C`;
  say(
    soakS < least || soakS > longest,
    "heat-soak",
    "warning",
    soakS,
    soakS < least ? least : longest,
    `${name} soaked for ${n(soakS)} s ${levels}, ${least} to ${longest} are wanted.`,
  );
  slopesOf(h, w, say);
  const took = `${name} took ${n(peakAtS)} s to its peak, at most ${w.toPeakS} are wanted.`;
  say(peakAtS > w.toPeakS, "heat-slow", "warning", peakAtS, w.toPeakS, took);
  const gap = longestGap(p, seconds);
  const between = `${name} has no sample for ${n(gap)} s; what was between is taken as a straight line.`;
  say(gap > WINDOW_S, "heat-gap", "warning", gap, WINDOW_S, between);
  return out;
}

/** A part bears what its data sheet says, less this for what a probe does not see (domain.md 7.8). */
export const RESERVE_C = 5;

/** Figures of one probe, seconds from the log's first sample. */
function heatOf(p: Probe, w: HeatWindow): ProbeHeat {
  const hottest = p.c.reduce((best, c, i) => (c > p.c[best]! ? i : best), 0);
  const slope = steepest(p);
  const peakAtS = p.t[hottest]!;
  return {
    name: p.name,
    peakC: round(p.c[hottest]!),
    peakAtS: round(peakAtS),
    secondsAboveLiquidus: round(secondsWithin(p, w.liquidusC, Number.MAX_VALUE)),
    soakS: round(secondsWithin(p, w.soakC[0], w.soakC[1], peakAtS)),
    ...(slope ? { rampCps: round(slope.up), coolCps: round(slope.down) } : {}),
  };
}

/**
 * A temperature log held against what its paste wants (domain.md 7.8).
 * @param peakLimitC what the weakest part is rated for, °C
 */
export function judgeHeat(cells: Cells, w: HeatWindow, peakLimitC?: number): HeatJudged | HeatRefused {
  const refuse = (reason: string): HeatRefused => ({ kobbin: "heat/1", outcome: "reject", reason });
  const log = readHeatLog(cells);
  if (typeof log === "string") return refuse(log);
  if (log.probes.length === 0) return refuse("No probe has a reading that can be used.");
  if (log.rows < LEAST_SAMPLES)
    return refuse(`It holds ${log.rows} samples; at least ${LEAST_SAMPLES} are needed.`);
  if (log.seconds < WINDOW_S)
    return refuse(`It lasts ${round(log.seconds)} s; at least ${WINDOW_S} are needed.`);
  const probes = log.probes.map((p) => heatOf(p, w));
  const most = peakLimitC === undefined ? undefined : peakLimitC - RESERVE_C;
  const spread = spreadOf(log.probes, w.liquidusC);
  const findings: HeatFinding[] = [
    ...log.findings,
    ...log.probes.flatMap((p, i) =>
      against(p, probes[i]!, log.seconds, w, most).map(({ tag, level, text, value, limit }) => ({
        tag,
        level,
        probe: p.name,
        value,
        limit,
        text,
      })),
    ),
  ];
  if (spread !== undefined && spread > w.spreadC)
    findings.push({
      tag: "heat-spread",
      level: "warning",
      value: round(spread),
      limit: w.spreadC,
      text: `The probes were up to ${Math.round(spread * 10) / 10} °C apart while all were above ${w.liquidusC} °C, at most ${w.spreadC} are wanted.`,
    });
  const has = (level: HeatFinding["level"]) => findings.some((f) => f.level === level);
  return {
    kobbin: "heat/1",
    unit: log.unit,
    seconds: round(log.seconds),
    probes,
    ...(spread === undefined ? {} : { spreadC: round(spread) }),
    verdict: has("error") ? "outside" : has("warning") ? "look" : "inside",
    findings,
  };
}
