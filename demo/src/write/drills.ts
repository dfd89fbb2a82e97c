import type { Design } from "../design.ts";

interface Tool {
  readonly d: number;
  readonly fn: string;
  readonly hits: readonly (readonly [number, number])[];
  readonly slots: readonly (readonly [number, number, number, number])[];
}

function text(fn: string, tools: readonly Tool[]): string {
  const at = (x: number, y: number) => `X${x.toFixed(3)}Y${y.toFixed(3)}`;
  const lines = ["M48", `; #@! TF.FileFunction,${fn}`, "; #@! TF.GenerationSoftware,Kobbin,Demo,1", "METRIC"];
  tools.forEach((t, i) => {
    lines.push(`; #@! TA.AperFunction,${t.fn}`, `T${String(i + 1).padStart(2, "0")}C${t.d.toFixed(3)}`);
  });
  lines.push("; #@! TD", "%", "G90", "G05");
  tools.forEach((t, i) => {
    lines.push(`T${String(i + 1).padStart(2, "0")}`);
    for (const [x, y] of t.hits) lines.push(at(x, y));
    for (const [x1, y1, x2, y2] of t.slots) lines.push(`${at(x1, y1)}G85${at(x2, y2)}`);
  });
  return `${[...lines, "M30"].join("\n")}\n`;
}

/** Plated and unplated drill files. */
export function writeDrills(d: Design): Record<string, string> {
  const plated = new Map<
    string,
    { d: number; fn: string; hits: [number, number][]; slots: [number, number, number, number][] }
  >();
  for (const p of d.pads) {
    if (p.drill === undefined) continue;
    const fn = p.function === "ViaPad" ? "Plated,PTH,ViaDrill" : "Plated,PTH,ComponentDrill";
    const key = `${p.drill} ${fn}`;
    const tool = plated.get(key) ?? { d: p.drill, fn, hits: [], slots: [] };
    tool.hits.push([p.x, p.y]);
    plated.set(key, tool);
  }
  const bare = new Map<
    number,
    { d: number; fn: string; hits: [number, number][]; slots: [number, number, number, number][] }
  >();
  const tool = (size: number) => {
    const t = bare.get(size) ?? { d: size, fn: "NonPlated,NPTH,MechanicalDrill", hits: [], slots: [] };
    bare.set(size, t);
    return t;
  };
  for (const h of d.holes) tool(h.d).hits.push([h.x, h.y]);
  for (const s of d.slots) tool(s.d).slots.push([s.x1, s.y1, s.x2, s.y2]);
  const sorted = (m: Map<unknown, Tool>) => [...m.values()].sort((a, b) => a.d - b.d);
  const out: Record<string, string> = {};
  if (plated.size > 0) out[`${d.name}-plated.drl`] = text("Plated,1,2,PTH,Mixed", sorted(plated));
  if (bare.size > 0) out[`${d.name}-unplated.drl`] = text("NonPlated,1,2,NPTH,Mixed", sorted(bare));
  return out;
}
