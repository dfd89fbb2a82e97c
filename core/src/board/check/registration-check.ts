import type { Finding } from "../../findings.ts";
import type { BoardFile } from "../board-file.ts";
import type { LayerSolids } from "../copper/copper.ts";
import type { Pad } from "../copper/nets.ts";
import type { Hole } from "../measure-document.ts";
import { flashesOf, type Registration, register, shareOnto } from "../read/registration.ts";

/**
 * Layers and drills that do not lie on each other: shifted, or mirrored. What falls into place after one move is said
 * with that move as a correction to take; nothing is moved silently.
 */
export function checkRegistration(
  used: readonly BoardFile[],
  holes: readonly Hole[],
  copper: readonly (LayerSolids & { readonly file: BoardFile })[],
  pads: readonly Pad[],
  findings: Finding[],
): void {
  const plated = holes.filter((h) => h.plated).map((h) => [h.x, h.y] as const);
  const onLayers = copper.map((l) => flashesOf(l.image));
  const shares = onLayers.map((f) => shareOnto(plated, f));
  const best = Math.max(0, ...shares);
  const say = (file: BoardFile, what: string, onto: string, r: Registration) =>
    findings.push({
      tag: "layer-misaligned",
      level: "error",
      file: file.path,
      text: `${what} does not lie on ${onto}: ${r.isMirrored ? "mirrored and " : ""}moved by ${r.dxMm.toFixed(3)}, ${r.dyMm.toFixed(3)} mm, ${Math.round(r.share * 100)} % of it would.`,
      do: "Take the move here, or export all files with one origin.",
      offer: {
        says: r.isMirrored ? "mirror and move it" : "move it into place",
        file: file.path,
        move: { dxMm: r.dxMm, dyMm: r.dyMm, ...(r.isMirrored ? { isMirrored: true } : {}) },
      },
    });
  if (plated.length >= 4 && copper.length > 0) {
    if (best < 0.5) {
      // the drills miss every layer: each drill file on its own onto all pads
      const target = onLayers.flat();
      for (const f of used) {
        if (f.role !== "drill" || !f.drill) continue;
        const points = f.drill.hits
          .filter((h) => h.plated ?? f.plated !== false)
          .map((h) => [h.x, h.y] as const);
        const r = register(points, target);
        if (r && (Math.hypot(r.dxMm, r.dyMm) > 0.05 || r.isMirrored))
          say(f, "The drill file", "the copper's pads", r);
      }
    } else if (best >= 0.8)
      copper.forEach((l, i) => {
        if (shares[i]! >= 0.5 || onLayers[i]!.length < 4 || l.name.startsWith("inner")) return;
        const back = register(plated, onLayers[i]!);
        if (!back || back.share < 0.8) return;
        // the move of the layer is the holes' move undone
        const r = back.isMirrored
          ? { ...back, dxMm: back.dxMm, dyMm: -back.dyMm }
          : { ...back, dxMm: -back.dxMm, dyMm: -back.dyMm };
        say(l.file, `The copper ${l.name}`, "the plated holes", r);
      });
  }
  for (const f of used) {
    if ((f.role !== "mask" && f.role !== "paste") || !f.layer || !f.side) continue;
    const index = copper.findIndex((l) => l.name === f.side);
    if (index < 0) continue;
    const target = pads.filter((p) => p.layer === index).map((p) => [p.x, p.y] as const);
    const points = flashesOf(f.layer);
    if (points.length < 6 || target.length < 6 || shareOnto(points, target) > 0.3) continue;
    const r = register(points, target);
    if (r && r.share >= 0.8 && (Math.hypot(r.dxMm, r.dyMm) > 0.05 || r.isMirrored))
      say(f, `The ${f.role} ${f.side}`, "the pads below it", r);
  }
}
