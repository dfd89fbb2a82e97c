import { analyseLayer } from "../../board/copper/copper.ts";
import { settlePlating, settleSlots } from "../../board/copper/holes.ts";
import { type HoleToWrite, type RoutToWrite, writeDrill } from "../../drill/write.ts";
import { posed } from "../../geometry/turn.ts";
import { PERFORATION } from "../hold/perforate.ts";
import type { PanelLayout, PanelSource } from "../spec.ts";
import type { Cell } from "./cells.ts";

/** A drill file's holes of one kind: plated or not, through which layers. */
interface DrillGroup {
  readonly plated: boolean;
  readonly from: number;
  readonly to: number;
  readonly holes: HoleToWrite[];
  readonly routs: RoutToWrite[];
}

const USES: Readonly<Record<string, string>> = {
  via: "ViaDrill",
  component: "ComponentDrill",
  "half hole": "CastellatedDrill",
};

/** Drill files of a sheet, by plating and by the layers they go through, tooling and perforations with the unplated ones. */
export function drillFiles(
  sources: readonly PanelSource[],
  layout: PanelLayout,
  slug: string,
  copper: number,
  cells: readonly Cell[],
) {
  const groups = new Map<string, DrillGroup>();
  const group = (plated: boolean, span: readonly [number, number] | undefined) => {
    const [from, to] = span ?? [1, copper];
    const key = `${plated} ${from} ${to}`;
    let g = groups.get(key);
    if (!g) {
      g = { plated, from, to, holes: [], routs: [] };
      groups.set(key, g);
    }
    return g;
  };
  sources.forEach(({ set }, board) => {
    const drills = set.files.filter((f) => f.role === "drill" && f.drill);
    const isOpen = drills.some(
      (f) =>
        typeof f.plated !== "boolean" &&
        [...f.drill!.hits, ...f.drill!.routs].some((h) => h.plated === undefined),
    );
    const copperLayers = isOpen
      ? set.files.flatMap((f) => (f.role === "copper" && f.layer ? [analyseLayer(f.layer, f.path)] : []))
      : [];
    const holes = settlePlating(drills, copperLayers);
    const uses = drills.flatMap((f) => f.drill!.hits.map((h) => h.tool?.use));
    const slots = settleSlots(drills, copperLayers);
    for (const p of layout.places) {
      if (p.board !== board) continue;
      holes.forEach((h, i) => {
        if (!cells[board]!.has(h.x, h.y)) return;
        const [x, y] = posed(p, h.x, h.y);
        const use = USES[uses[i] ?? ""] ?? (h.plated ? undefined : "MechanicalDrill,Other");
        group(h.plated, h.span).holes.push({ x, y, diameterMm: h.diameterMm, ...(use ? { use } : {}) });
      });
      for (const s of slots)
        if (s.points.some(([x, y]) => cells[board]!.has(x, y)))
          group(s.plated, s.span).routs.push({
            widthMm: s.widthMm,
            points: s.points.map(([x, y]) => posed(p, x, y)),
          });
    }
  });
  const bare = group(false, undefined);
  for (const h of layout.toolingHoles)
    bare.holes.push({ x: h.xMm, y: h.yMm, diameterMm: h.diameterMm, use: "MechanicalDrill,Tooling" });
  for (const t of layout.tabs)
    for (const [x, y] of t.at)
      bare.holes.push({ x, y, diameterMm: PERFORATION.diameterMm, use: "MechanicalDrill,Breakout" });
  return [...groups.values()]
    .filter((g) => g.holes.length + g.routs.length > 0)
    .map((g) => {
      const isThrough = g.from === 1 && g.to === copper;
      const fn = g.plated
        ? [
            "Plated",
            String(g.from),
            String(g.to),
            isThrough ? "PTH" : g.from === 1 || g.to === copper ? "Blind" : "Buried",
          ]
        : ["NonPlated", String(g.from), String(g.to), "NPTH"];
      return {
        path: `${slug}-${g.plated ? "plated" : "unplated"}${isThrough ? "" : `-${g.from}-${g.to}`}.drl`,
        text: writeDrill(g.holes, g.routs, [
          ["FileFunction", ...fn],
          ["Part", "Array"],
        ]),
        function: fn.join(","),
      };
    });
}
