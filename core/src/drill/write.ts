import type { FileAttribute } from "../gerber/write.ts";

/** A round hole to be written. */
export interface HoleToWrite {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  /** Aperture function of its tool, as "ViaDrill" or "MechanicalDrill,Tooling". */
  readonly use?: string;
}

/** A path the tool's middle follows. */
export interface RoutToWrite {
  readonly points: readonly (readonly [number, number])[];
  readonly widthMm: number;
  readonly use?: string;
}

const at = (v: number) => {
  const t = v.toFixed(4);
  return t === "-0.0000" ? "0.0000" : t;
};

/**
 * A drill file in the published drill and rout format: millimetres, decimal points, tools ascending, slots routed
 * (domain.md 11.2). Holes of one tool are drilled along a short way; two within 0.01 mm are drilled once.
 *
 * @param attributes of the file, written as its comments
 * @returns the text, line ends LF
 */
export function writeDrill(
  holes: readonly HoleToWrite[],
  routs: readonly RoutToWrite[],
  attributes: readonly FileAttribute[],
): string {
  const tools = new Map<
    string,
    { diameterMm: number; use: string | undefined; holes: HoleToWrite[]; routs: RoutToWrite[] }
  >();
  const tool = (diameterMm: number, use: string | undefined) => {
    const key = `${diameterMm.toFixed(4)} ${use ?? ""}`;
    let t = tools.get(key);
    if (!t) {
      t = { diameterMm, use, holes: [], routs: [] };
      tools.set(key, t);
    }
    return t;
  };
  for (const h of holes) tool(h.diameterMm, h.use).holes.push(h);
  for (const r of routs) tool(r.widthMm, r.use).routs.push(r);
  const list = [...tools.values()].sort(
    (a, b) => a.diameterMm - b.diameterMm || ((a.use ?? "") < (b.use ?? "") ? -1 : 1),
  );
  const name = (i: number) => `T${String(i + 1).padStart(2, "0")}`;
  const lines = [
    "M48",
    "; #@! TF.GenerationSoftware,Kobbin,Kobbin,1",
    ...attributes.map((a) => `; #@! TF.${a.join(",")}`),
    "METRIC",
  ];
  list.forEach((t, i) => {
    if (t.use) lines.push(`; #@! TA.AperFunction,${t.use}`);
    lines.push(`${name(i)}C${t.diameterMm.toFixed(4).replace(/0{1,3}$/, "")}`);
    if (t.use) lines.push("; #@! TD");
  });
  lines.push("%", "G05");
  list.forEach((t, i) => {
    lines.push(name(i));
    for (const h of shortWay(t.holes)) lines.push(`X${at(h.x)}Y${at(h.y)}`);
    for (const r of t.routs) {
      const [first, ...rest] = r.points;
      if (!first) continue;
      lines.push(`G00X${at(first[0])}Y${at(first[1])}`, "M15");
      for (const p of rest) lines.push(`G01X${at(p[0])}Y${at(p[1])}`);
      lines.push("M16", "G05");
    }
  });
  lines.push("M30", "");
  return lines.join("\n");
}

/** Side of the squares holes are swept by, mm. */
const SWATH_MM = 8;

/** Holes once each, swept in swaths up and down. */
function shortWay(holes: readonly HoleToWrite[]): readonly HoleToWrite[] {
  const seen = new Set<string>();
  const once = holes.filter((h) => {
    const key = `${Math.round(h.x * 100)} ${Math.round(h.y * 100)}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
  const swath = (h: HoleToWrite) => Math.floor(h.x / SWATH_MM);
  return once.sort((a, b) => {
    const [s, t] = [swath(a), swath(b)];
    return s - t || (s % 2 === 0 ? a.y - b.y : b.y - a.y) || a.x - b.x;
  });
}
