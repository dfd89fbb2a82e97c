import { arcPoints } from "../geometry/arc.ts";
import { KIND, type LayerImage } from "../gerber/image.ts";
import type { DrillTool } from "./data.ts";
import type { DrillData, Hit, Rout } from "./read.ts";
import { holesFor } from "./use.ts";

/**
 * Drill data written as a layer image: round flashes are holes, other flashes as long as they are wide slots, strokes
 * routed paths. Shapes that no tool can drill are left out and said.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one pass over the objects of a drawing
export function drillOfImage(image: LayerImage, file: string): DrillData {
  const hits: Hit[] = [];
  const routs: Rout[] = [];
  const [key = ""] = image.fileAttributes.FileFunction ?? [];
  const plated = /^plated$/i.test(key) ? true : /^nonplated$/i.test(key) ? false : undefined;
  let odd = 0;
  const g = image.geo;
  const tools = image.apertures.map((a): DrillTool => {
    const use = holesFor(a.function ?? []);
    return {
      name: `D${a.code}`,
      plated: a.function?.[1] === "NonPlated" || a.function?.[0] === "MechanicalDrill" ? false : plated,
      ...(use ? { use } : {}),
      ...(a.toleranceMm ? { toleranceMm: a.toleranceMm } : {}),
    };
  });
  for (let i = 0; i < image.n; i++) {
    if (image.dark[i] === 0) continue;
    const o = i * 6;
    const kind = image.kind[i]!;
    const a = kind === KIND.region ? undefined : image.apertures[image.aperture[i]!];
    const tool = tools[image.aperture[i]!]!;
    const own = tool?.plated;
    if (!a) odd++;
    else if (kind === KIND.flash && a.circleMm !== undefined)
      hits.push({ x: g[o]!, y: g[o + 1]!, diameterMm: a.circleMm, plated: own, tool });
    else if (kind === KIND.flash && a.capsules.length === 1 && a.areas.length === 0) {
      const c = a.capsules[0]!;
      const [x, y] = [g[o]!, g[o + 1]!];
      routs.push({
        points: [
          [x + c.x1, y + c.y1],
          [x + c.x2, y + c.y2],
        ],
        widthMm: 2 * c.r,
        plated: own,
        tool,
        isSlot: true,
      });
    } else if (kind === KIND.line && a.circleMm !== undefined)
      routs.push({
        points: [
          [g[o]!, g[o + 1]!],
          [g[o + 2]!, g[o + 3]!],
        ],
        widthMm: a.circleMm,
        plated: own,
        tool,
        isSlot: true,
      });
    else if (kind !== KIND.flash && a.circleMm !== undefined) {
      const path = arcPoints(
        g[o]!,
        g[o + 1]!,
        g[o + 2]!,
        g[o + 3]!,
        g[o + 4]!,
        g[o + 5]!,
        kind === KIND.arcCcw,
        true,
      );
      const points: [number, number][] = [[g[o]!, g[o + 1]!]];
      for (let k = 0; k < path.length; k += 2) points.push([path[k]!, path[k + 1]!]);
      routs.push({ points, widthMm: a.circleMm, plated: own, isSlot: false });
    } else odd++;
  }
  return {
    hits,
    routs,
    plated,
    fileAttributes: image.fileAttributes,
    isCertain: true,
    isDrillFile: true,
    findings:
      odd > 0
        ? [
            {
              tag: "value-out-of-range",
              level: "warning",
              file,
              text: `${odd} shapes of the drill layer are neither round nor slots; they were left out.`,
              do: "Export the holes as a drill file.",
            },
          ]
        : [],
  };
}
