import { counted } from "../../counted.ts";
import type { Plan } from "../../geometry/plan.ts";
import { posedRing } from "../../geometry/turn.ts";
import { PERFORATION } from "../hold/perforate.ts";
import { sheetMaterial } from "../lay/material.ts";
import { scoreDepth } from "../lay/scores.ts";
import type { PanelDesign, PanelLayout } from "../spec.ts";

type Line = Plan["lines"][number];
type Text = Plan["texts"][number];

const two = (v: number) => String(Math.round(v * 100) / 100);

/** A dimension line with its figure, ticks at its ends. */
export function dimension(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  text: string,
  mm = 2.6,
): { lines: Line[]; texts: Text[] } {
  const isUpright = Math.abs(y2 - y1) > Math.abs(x2 - x1);
  const t = 1.2;
  const tick = (x: number, y: number): Line =>
    isUpright
      ? { x1: x - t, y1: y, x2: x + t, y2: y, kind: "dimension" }
      : { x1: x, y1: y - t, x2: x, y2: y + t, kind: "dimension" };
  return {
    lines: [{ x1, y1, x2, y2, kind: "dimension" }, tick(x1, y1), tick(x2, y2)],
    texts: [
      {
        x: (x1 + x2) / 2 - (isUpright ? 0.8 : 0),
        y: (y1 + y2) / 2 + (isUpright ? 0 : 0.8),
        mm,
        text,
        isMiddle: true,
        isUpright,
      },
    ],
  };
}

/** The order boards come off in: scores the long way first, then tabs from the outside in. */
export function separationSteps(layout: PanelLayout): string[] {
  const steps: string[] = [];
  const upright = layout.scores.filter((s) => s.x1 === s.x2).length;
  const lying = layout.scores.length - upright;
  const first = layout.widthMm >= layout.heightMm ? "lying" : "upright";
  const say = (n: number, way: string) =>
    n > 0 ? [`Break the ${counted(n, `${way} score`)} over a straight edge, the outer ones first.`] : [];
  if (first === "lying") steps.push(...say(lying, "lying"), ...say(upright, "upright"));
  else steps.push(...say(upright, "upright"), ...say(lying, "lying"));
  const tabs = (n: number) => `${n} ${n === 1 ? "tab" : "tabs"}`;
  const frame = layout.tabs.filter((t) => t.between[1] === 0).length;
  const between = layout.tabs.length - frame;
  if (between > 0)
    steps.push(
      `Part the copies from each other at ${tabs(between)} with a cutter, while the frame still holds them.`,
    );
  if (frame > 0)
    steps.push(
      `${between > 0 ? "Then cut" : "Cut"} the ${tabs(frame)} to the frame, from the outer copies inward.`,
    );
  if (layout.tabs.length > 0)
    steps.push(
      "File what is left of the tabs outdoors or under extraction: glass dust is not to be breathed.",
    );
  return steps;
}

/** The dimensioned drawing of a sheet. */
export function panelPlan(
  designs: readonly PanelDesign[],
  layout: PanelLayout,
  name: { readonly name: string; readonly revision: string },
  thicknessMm: number,
): Plan {
  const { widthMm: W, heightMm: H, rails } = layout;
  const lines: Line[] = layout.scores.map((s) => ({ ...s, kind: "score" as const }));
  const texts: Text[] = [];
  const put = (d: { lines: Line[]; texts: Text[] }) => {
    lines.push(...d.lines);
    texts.push(...d.texts);
  };
  put(dimension(0, H + 6, W, H + 6, two(W)));
  put(dimension(-6, 0, -6, H, two(H)));
  if (rails.bottom > 0) put(dimension(W + 5, 0, W + 5, rails.bottom, two(rails.bottom)));
  if (rails.left > 0) put(dimension(0, -5, rails.left, -5, two(rails.left)));
  const [first] = layout.places;
  if (first) {
    const ring = posedRing(first, designs[first.board]!.outline);
    const xs = ring.filter((_, i) => i % 2 === 0);
    const ys = ring.filter((_, i) => i % 2 === 1);
    put(dimension(Math.min(...xs), -5, Math.max(...xs), -5, two(Math.max(...xs) - Math.min(...xs))));
    put(dimension(W + 5, Math.min(...ys), W + 5, Math.max(...ys), two(Math.max(...ys) - Math.min(...ys))));
  }
  for (const p of layout.places) {
    const ring = posedRing(p, designs[p.board]!.outline);
    let [x, y] = [0, 0];
    for (let i = 0; i < ring.length; i += 2) {
      x += ring[i]!;
      y += ring[i + 1]!;
    }
    const n = ring.length / 2;
    texts.push({ x: x / n, y: y / n - 1, mm: 3, text: String(p.copy), isMiddle: true });
  }
  return {
    title: `${name.name} ${name.revision}: sheet of ${layout.places.length}`,
    subtitle: `${two(W)} × ${two(H)} × ${thicknessMm} mm, ${layout.counts.map((c, i) => `${c} × ${designs[i]!.name}`).join(", ")}`,
    box: [-10, -9, W + 10, H + 10],
    areas: sheetMaterial(designs, layout).map((rings) => ({ rings, tone: "board" as const })),
    lines,
    circles: [
      ...layout.toolingHoles.map((h) => ({ x: h.xMm, y: h.yMm, d: h.diameterMm })),
      ...layout.fiducials.map((f) => ({ x: f.xMm, y: f.yMm, d: 1, isFilled: true })),
      ...layout.badMarks.map((b) => ({ x: b.xMm, y: b.yMm, d: 2 })),
      ...layout.tabs.flatMap((t) => t.at.map(([x, y]) => ({ x, y, d: PERFORATION.diameterMm }))),
    ],
    texts,
    notes: [...noteLines(layout, thicknessMm), ...separationSteps(layout).map((s, i) => `${i + 1}. ${s}`)],
  };
}

function noteLines(layout: PanelLayout, thicknessMm: number): string[] {
  const d = scoreDepth(thicknessMm);
  const fid = layout.fiducials.map((f) => `${two(f.xMm)}/${two(f.yMm)}`).join(", ");
  const tool = layout.toolingHoles.map((h) => `${two(h.xMm)}/${two(h.yMm)}`).join(", ");
  return [
    ...(layout.scores.length > 0
      ? [
          `Scores on both sides, ${two(d.depthMm)} mm deep, ${two(d.webMm)} mm left between them; the edge then varies by up to 0.2 mm.`,
        ]
      : []),
    ...(layout.tabs.length > 0
      ? [
          `Gaps milled ${two(layout.gapMm)} mm wide; ${layout.tabs.length} tabs of ${two(layout.tabs[0]!.widthMm)} mm, perforated with ${PERFORATION.diameterMm} mm at ${PERFORATION.pitchMm} mm, on the boards' edges or up to half a hole inside.`,
        ]
      : []),
    ...(fid ? [`Fiducials, 1 mm copper in 2 mm bare: ${fid}.`] : []),
    ...(tool ? [`Tooling holes, 3 mm, not plated: ${tool}.`] : []),
  ];
}
