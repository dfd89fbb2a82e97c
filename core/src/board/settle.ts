import { type DrillData, READINGS, readDrill } from "../drill/read.ts";
import type { Finding } from "./findings.ts";
import { words } from "./guess.ts";
import type { BoardFile } from "./read.ts";

/** Two layers of one role and side: the later ones are kept but said; a lone copper of unknown side is the top. */
export function settleLayers(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const seen = new Map<string, string>();
  let out = files.map((f) => ({ ...f }));
  const sideless = out.filter((f) => f.role === "copper" && !f.side);
  const freeSides = (["top", "bottom"] as const).filter(
    (s) => !out.some((f) => f.role === "copper" && f.side === s),
  );
  if (sideless.length > 0)
    out = out.map((f) => {
      const k = sideless.findIndex((s) => s.path === f.path);
      return k >= 0 && freeSides[k]
        ? { ...f, side: freeSides[k]!, reason: `${f.reason}; taken as ${freeSides[k]}` }
        : f;
    });
  for (const f of out) {
    if (!["copper", "mask", "legend", "paste", "profile"].includes(f.role)) continue;
    const key = `${f.role} ${f.side ?? ""} ${f.index ?? ""}`;
    const first = seen.get(key);
    if (first !== undefined)
      findings.push({
        tag: "duplicate-layer",
        level: "warning",
        file: f.path,
        text: `A second layer for ${words(f)}; ${first} came first and is used.`,
        do: "Set the role of the one that does not count to unknown.",
      });
    else seen.set(key, f.path);
  }
  return out;
}

/** Pads tried as targets of holes: enough to tell one reading from another. */
const MOST_PADS = 50_000;

/** Drill files that leave unit or zeros open are read the way that fits the copper best. */
export function settleDrills(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  if (!files.some((f) => f.drill && !f.drill.isCertain)) {
    for (const f of files) if (f.drill) findings.push(...f.drill.findings);
    return [...files];
  }
  const pads: { x: number; y: number }[] = [];
  for (const f of files)
    if (f.role === "copper" && f.layer)
      for (let i = 0; i < f.layer.n && pads.length < MOST_PADS; i++)
        if (f.layer.kind[i] === 4) pads.push({ x: f.layer.geo[i * 6]!, y: f.layer.geo[i * 6 + 1]! });
  const cells = new Set(
    pads.flatMap((p) =>
      [0, 1].flatMap((a) => [0, 1].map((b) => `${Math.floor(p.x * 10) + a} ${Math.floor(p.y * 10) + b}`)),
    ),
  );
  const score = (d: DrillData) =>
    d.hits.length === 0
      ? 0
      : d.hits.filter((h) => cells.has(`${Math.floor(h.x * 10)} ${Math.floor(h.y * 10)}`)).length /
        d.hits.length;
  return files.map((f) => {
    if (!f.drill) return f;
    let drill = f.drill;
    if (!drill.isCertain && pads.length > 0 && drill.text !== undefined) {
      const tried = READINGS.map((r) => readDrill(f.drill!.text!, f.path, r)).sort(
        (a, b) => score(b) - score(a),
      );
      if (tried[0] && score(tried[0]) > score(drill) + 0.2) {
        findings.push({
          tag: "drill-unit-unknown",
          level: score(tried[0]) >= 0.95 ? "remark" : "warning",
          file: f.path,
          text: `The drill file leaves its unit or zeros open; the reading that puts ${Math.round(score(tried[0]) * 100)} % of its holes on pads was taken.`,
          do: "Look at the holes on the picture.",
        });
        drill = tried[0];
      }
    }
    findings.push(...drill.findings);
    return { ...f, drill };
  });
}
