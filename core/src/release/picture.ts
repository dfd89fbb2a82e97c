import type { BoardFile, BoardSet } from "../board/board-file.ts";
import { cutoutRings, edgeRings } from "../board/copper/copper.ts";
import { chainOutline } from "../board/outline/outline.ts";
import { orGivenUp } from "../geometry/work.ts";
import { ringsOfSolid, type Solids, solidsOf } from "../gerber/solids.ts";

/** Colours of the materials, as CSS. */
export interface PictureColours {
  readonly mask: string;
  readonly copperUnderMask: string;
  readonly finish: string;
  readonly laminate: string;
  readonly legend: string;
  readonly edge: string;
}

const n = (v: number) => String(Math.round(v * 1000) / 1000);

/**
 * One side of the board as delivered, as an SVG in millimetres for documents: laminate, copper through the mask, openings
 * with the finish, silkscreen clipped where the mask is open, holes and slots. The bottom is seen from below.
 *
 * @returns undefined where there is nothing with a size
 */
export function boardSvg(set: BoardSet, side: "top" | "bottom", c: PictureColours): string | undefined {
  const of = (role: string): Solids | undefined => {
    const f = set.files.find((x) => x.role === role && x.side === side && x.layer);
    const { layer } = f ?? {};
    // a layer that was too tangled to be measured, which the release names, is not drawn either
    return layer
      ? orGivenUp(
          () => solidsOf(layer),
          () => undefined,
        )
      : undefined;
  };
  const profile = set.files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  const copper = of("copper");
  const box = outline?.isClosed ? outline.box : copper ? boxOf(copper) : undefined;
  if (!box) return undefined;
  const [x0, y0, x1, y1] = box;
  const [w, h] = [x1 - x0, y1 - y0];
  const edge = outline?.isClosed
    ? [...edgeRings(outline), ...cutoutRings(outline)].map(ring).join("")
    : `M${n(x0)} ${n(y0)}H${n(x1)}V${n(y1)}H${n(x0)}Z`;
  const [mask, legend] = [of("mask"), of("legend")];
  const holes = set.files.flatMap((f) => (f.role === "drill" ? [drilled(f)] : [])).join("");
  const flip = side === "bottom" ? `translate(${n(x0 + x1)} 0) scale(-1 1)` : "";
  const open = mask ? pathOf(mask) : "";
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w + 2)}mm" height="${n(h + 2)}mm" viewBox="${n(x0 - 1)} ${n(-y1 - 1)} ${n(w + 2)} ${n(h + 2)}">`,
    `<title>${side} side, ${n(w)} × ${n(h)} mm</title>`,
    `<defs><clipPath id="board"><path d="${edge}" clip-rule="evenodd"/></clipPath>`,
    mask ? `<clipPath id="open"><path d="${open}"/></clipPath>` : "",
    mask
      ? `<mask id="closed" maskUnits="userSpaceOnUse" x="${n(x0)}" y="${n(y0)}" width="${n(w)}" height="${n(h)}"><path d="${edge}" fill="#fff"/><path d="${open}" fill="#000"/></mask>`
      : "",
    `</defs><g transform="scale(1 -1) ${flip}"><g clip-path="url(#board)">`,
    `<path d="${edge}" fill="${c.mask}" fill-rule="evenodd"/>`,
    copper ? `<path d="${pathOf(copper)}" fill="${c.copperUnderMask}"/>` : "",
    mask
      ? `<g clip-path="url(#open)"><path d="${edge}" fill="${c.laminate}"/>${copper ? `<path d="${pathOf(copper)}" fill="${c.finish}"/>` : ""}</g>`
      : "",
    legend ? `<path d="${pathOf(legend)}" fill="${c.legend}"${mask ? ' mask="url(#closed)"' : ""}/>` : "",
    `</g><g fill="#fff" stroke="#fff">${holes}</g>`,
    `<path d="${edge}" fill="none" stroke="${c.edge}" stroke-width="0.1"/></g></svg>\n`,
  ].join("");
}

const ring = (r: readonly number[]): string => {
  let d = "";
  for (let i = 0; i < r.length; i += 2) d += `${i === 0 ? "M" : "L"}${n(r[i]!)} ${n(r[i + 1]!)}`;
  return `${d}Z`;
};

/** All pieces as one path, filled by the non-zero rule: outer rings run one way, their holes the other. */
function pathOf(s: Solids): string {
  const parts: string[] = [];
  for (let k = 0; k < s.count; k++) {
    const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
    const r = s.radius[k]!;
    if (!s.isArea[k])
      for (let i = from * 4; i < to * 4; i += 4)
        parts.push(capsule(s.edges[i]!, s.edges[i + 1]!, s.edges[i + 2]!, s.edges[i + 3]!, r));
    else for (const x of ringsOfSolid(s, k)) parts.push(ring(x));
  }
  return parts.join("");
}

/** A capsule with true arcs, counter-clockwise. */
function capsule(x1: number, y1: number, x2: number, y2: number, r: number): string {
  const l = Math.hypot(x2 - x1, y2 - y1);
  if (l < 1e-9)
    return `M${n(x1 + r)} ${n(y1)}a${n(r)} ${n(r)} 0 1 1 ${n(-2 * r)} 0a${n(r)} ${n(r)} 0 1 1 ${n(2 * r)} 0Z`;
  const [nx, ny] = [(-(y2 - y1) / l) * r, ((x2 - x1) / l) * r];
  const a = `A${n(r)} ${n(r)} 0 0 1 `;
  return `M${n(x1 - nx)} ${n(y1 - ny)}L${n(x2 - nx)} ${n(y2 - ny)}${a}${n(x2 + nx)} ${n(y2 + ny)}L${n(x1 + nx)} ${n(y1 + ny)}${a}${n(x1 - nx)} ${n(y1 - ny)}Z`;
}

const drilled = (f: BoardFile): string =>
  [
    ...(f.drill?.hits ?? []).map(
      (h) => `<circle cx="${n(h.x)}" cy="${n(h.y)}" r="${n(h.diameterMm / 2)}" stroke="none"/>`,
    ),
    ...(f.drill?.routs ?? []).map(
      (r) =>
        `<polyline points="${r.points.map(([x, y]) => `${n(x)},${n(y)}`).join(" ")}" fill="none" stroke-width="${n(r.widthMm)}" stroke-linecap="round" stroke-linejoin="round"/>`,
    ),
  ].join("");

function boxOf(s: Solids): readonly [number, number, number, number] | undefined {
  if (s.count === 0) return undefined;
  let [x0, y0, x1, y1] = [s.box[0]!, s.box[1]!, s.box[2]!, s.box[3]!];
  for (let o = 4; o < s.count * 4; o += 4) {
    x0 = Math.min(x0, s.box[o]!);
    y0 = Math.min(y0, s.box[o + 1]!);
    x1 = Math.max(x1, s.box[o + 2]!);
    y1 = Math.max(y1, s.box[o + 3]!);
  }
  return [x0, y0, x1, y1];
}
