import type { Finding } from "../findings.ts";
import { posed, posedBox } from "../geometry/turn.ts";
import { withFreeSides } from "./free-sides.ts";
import { BALANCE_MM, furnish } from "./furnish.ts";
import { clean, type Field, turnedBox, turnedSide } from "./grid.ts";
import { apart, laidOut } from "./laid.ts";
import { frameOf } from "./material.ts";
import { COPPER_WANTED_MM, perforationToCopper } from "./perforate.ts";
import { checkScores, scoreLines } from "./scores.ts";
import type {
  PanelDesign,
  PanelLayout,
  PanelPlace,
  PanelRefusal,
  PanelSpec,
  Separation,
  SheetParts,
  SheetSide,
  WasteItem,
} from "./spec.ts";
import { placeTabs, tabbedSides, type Untabbed } from "./tabs.ts";
import { placeWaste } from "./waste.ts";

/** A field on a sheet: how wide the rails are, and where the field begins. */
export interface Framed {
  readonly field: Field;
  readonly rails: Readonly<Record<SheetSide, number>>;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly x0: number;
  readonly y0: number;
}

/** Rails about a field, as wide as asked, or wider where the sheet has a least size. */
export function framed(spec: PanelSpec, field: Field, sides: readonly SheetSide[]): Framed {
  const has = (s: SheetSide) => sides.includes(s);
  const [gx, gy] = [field.across === "tabs" ? spec.gapMm : 0, field.along === "tabs" ? spec.gapMm : 0];
  const size = (lo: SheetSide, hi: SheetSide, inner: number, gap: number, least: number) => {
    const n = Number(has(lo)) + Number(has(hi));
    const whole = inner + n * (spec.railMm + gap);
    const more = n > 0 ? Math.max(0, least - whole) / n : 0;
    const rail = (s: SheetSide) => (has(s) ? clean(spec.railMm + more) : 0);
    return {
      lo: rail(lo),
      hi: rail(hi),
      whole: clean(whole + n * more),
      from: clean(has(lo) ? rail(lo) + gap : 0),
    };
  };
  const x = size("left", "right", field.widthMm, gx, spec.minWidthMm);
  const y = size("bottom", "top", field.heightMm, gy, spec.minHeightMm);
  return {
    field,
    rails: { left: x.lo, right: x.hi, bottom: y.lo, top: y.hi },
    widthMm: x.whole,
    heightMm: y.whole,
    x0: x.from,
    y0: y.from,
  };
}

/** Boards of a field where they lie on the sheet. */
export function placesOf(designs: readonly PanelDesign[], f: Framed): PanelPlace[] {
  return f.field.slots.map((s, i) => {
    const [bx, by] = turnedBox(designs[s.board]!, s.turnDeg);
    return {
      board: s.board,
      copy: i + 1,
      xMm: clean(f.x0 + s.x - bx),
      yMm: clean(f.y0 + s.y - by),
      turnDeg: ((s.turnDeg % 360) + 360) % 360,
    };
  });
}

/** A field made into a sheet. */
export const layoutOf = (
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  f: Framed,
): PanelLayout | PanelRefusal =>
  layoutAt(designs, spec, {
    widthMm: f.widthMm,
    heightMm: f.heightMm,
    rails: f.rails,
    across: f.field.across,
    along: f.field.along,
    places: placesOf(designs, f),
  });

/**
 * A sheet from where its boards lie: gaps, tabs, scores, rails with what stands on them, and what is to be said of it.
 *
 * @returns a refusal where boards overlap, leave the sheet, or cannot be parted so
 */
export function layoutAt(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  s: SheetParts,
): PanelLayout | PanelRefusal {
  const laid = laidOut(withFreeSides(designs, spec), s.places);
  const clash = clashOf(laid, s, spec.gapMm);
  if (clash) return clash;
  const findings: Finding[] = [];
  const rings = laid.map((l) => l.ring);
  const cells = laid.map((l) => posedBox(l.place, l.design.box));
  const frame = frameOf([s.widthMm, s.heightMm], s.rails, rings, cells, s, spec.gapMm);
  const scores = scoreLines(cells, s);
  if (scores.length > 0) {
    const wrong = checkScores(laid, scores, spec.thicknessMm, findings);
    if (wrong) return wrong;
  }
  const held =
    s.across === "tabs" || s.along === "tabs"
      ? placeTabs({ laid, frame, gapMm: spec.gapMm }, spec.tabMm, spec.thicknessMm, tabbedSides(s), spec.tabs)
      : { tabs: [], untabbed: [], loose: [] };
  const isRouted = s.across === "tabs" && s.along === "tabs";
  const loose = isRouted ? looseOf(laid, held) : undefined;
  if (loose) return loose;
  if (spec.tabs) sayOwnTabs(held, laid, isRouted, findings);
  else sayUntabbed(held.untabbed, s, findings);
  const separation: Separation = isRouted
    ? "tabs"
    : s.across === "score" && s.along === "score"
      ? "score"
      : "mixed";
  if (held.tabs.length > 0) sayPerforations(laid, findings);
  sayOutward(laid, s, findings);
  sayOverhangs(laid, findings);
  const stands = furnish(spec, s, laid, findings);
  const waste =
    spec.waste.length > 0 ? placeWaste(spec, [s.widthMm, s.heightMm], frame, stands, designs, findings) : [];
  const boards = laid.reduce((n, l) => n + l.design.areaMm2, 0);
  return {
    widthMm: s.widthMm,
    heightMm: s.heightMm,
    places: s.places,
    counts: designs.map((_, i) => s.places.filter((p) => p.board === i).length),
    separation,
    across: s.across,
    along: s.along,
    gapMm: spec.gapMm,
    rails: s.rails,
    scores,
    tabs: held.tabs,
    frame,
    ...stands,
    balance: stands.balance.filter((b) =>
      waste.every((w) => !holds(w.box, b.xMm, b.yMm, BALANCE_MM / 2 + 0.3)),
    ),
    waste,
    utilisation: boards / (s.widthMm * s.heightMm),
    findings,
  };
}

/** Whether boards may lie so at all: quick enough to be asked while one is dragged. */
export const clashAt = (
  designs: readonly PanelDesign[],
  gapMm: number,
  s: SheetParts,
): PanelRefusal | undefined => clashOf(laidOut(designs, s.places), s, gapMm);

/** Whether a disc meets a box. */
const holds = ([x0, y0, x1, y1]: WasteItem["box"], x: number, y: number, r: number) =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1)) < r;

/** Boards that overlap, come nearer than the cutter, or leave the sheet. */
function clashOf(laid: ReturnType<typeof laidOut>, s: SheetParts, gapMm: number): PanelRefusal | undefined {
  const e = 1e-4;
  for (const l of laid) {
    const [x0, y0, x1, y1] = l.box;
    const [gx, gy] = [s.across === "tabs" ? gapMm : 0, s.along === "tabs" ? gapMm : 0];
    const lo = (rail: number, gap: number) => (rail > 0 ? rail + gap : 0);
    if (
      x0 < lo(s.rails.left, gx) - e ||
      y0 < lo(s.rails.bottom, gy) - e ||
      x1 > s.widthMm - lo(s.rails.right, gx) + e ||
      y1 > s.heightMm - lo(s.rails.top, gy) + e
    )
      return {
        tag: "off-the-sheet",
        reason: `Copy ${l.place.copy} reaches into a rail or over the sheet's edge.`,
        at: { x: (x0 + x1) / 2, y: (y0 + y1) / 2 },
        nearest: [],
      };
  }
  for (let i = 0; i < laid.length; i++)
    for (let k = i + 1; k < laid.length; k++) {
      const [a, b] = [laid[i]!, laid[k]!];
      const least = Math.min(s.across === "tabs" ? gapMm : 0, s.along === "tabs" ? gapMm : 0);
      const far = (p: number, q: number) => p > q + least + e;
      if (
        far(a.box[0], b.box[2]) ||
        far(b.box[0], a.box[2]) ||
        far(a.box[1], b.box[3]) ||
        far(b.box[1], a.box[3])
      )
        continue;
      const near = nearness(a, b, least);
      if (near)
        return {
          tag: "boards-collide",
          reason: `Copies ${a.place.copy} and ${b.place.copy} ${near.mm <= 0 ? "lie over each other" : `come within ${near.mm.toFixed(2)} mm, less than the cutter's ${gapMm} mm`}.`,
          at: { x: near.x, y: near.y },
          nearest: [],
        };
    }
  return undefined;
}

type Laid = ReturnType<typeof laidOut>[number];

function nearness(a: Laid, b: Laid, least: number): { mm: number; x: number; y: number } | undefined {
  const { mm, at } = apart(a, b, least + 0.1);
  const overlaps =
    a.strips.inside(...middleOf(b)) ||
    b.strips.inside(...middleOf(a)) ||
    (mm < 1e-7 && least > 0) ||
    (least === 0 && crossesInto(a, b));
  if (overlaps) return { mm: 0, x: at[0], y: at[1] };
  return mm < least - 2e-3 ? { mm, x: at[0], y: at[1] } : undefined;
}

/** Boards that share an edge touch; those whose boxes overlap by more lie over each other. */
function crossesInto(a: Laid, b: Laid): boolean {
  const w = Math.min(a.box[2], b.box[2]) - Math.max(a.box[0], b.box[0]);
  const h = Math.min(a.box[3], b.box[3]) - Math.max(a.box[1], b.box[1]);
  return w > 1e-3 && h > 1e-3 && apart(a, b, 0.1).mm < 1e-7;
}

/** A point that is board, and in no cut-out: the middle of the longest piece across, at some height. */
export function middleOf(l: {
  readonly ring: readonly number[];
  readonly box: readonly number[];
  readonly cutouts?: readonly (readonly number[])[];
}): readonly [number, number] {
  const [, y0, , y1] = l.box as [number, number, number, number];
  let best: [number, number] = [l.ring[0]!, l.ring[1]!];
  let most = -1;
  for (const f of [0.5, 0.31, 0.69, 0.13, 0.87, 0.05, 0.95]) {
    const y = y0 + (y1 - y0) * f + 1e-7;
    const xs: number[] = [];
    for (const ring of [l.ring, ...(l.cutouts ?? [])])
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ya, yb] = [ring[j + 1]!, ring[i + 1]!];
        if (ya > y !== yb > y) xs.push(ring[j]! + ((ring[i]! - ring[j]!) * (y - ya)) / (yb - ya));
      }
    xs.sort((p, q) => p - q);
    for (let k = 0; k + 1 < xs.length; k += 2)
      if (xs[k + 1]! - xs[k]! > most) {
        most = xs[k + 1]! - xs[k]!;
        best = [(xs[k]! + xs[k + 1]!) / 2, y];
      }
  }
  return best;
}

/** Why boards would be held by nothing; undefined where all are held. */
function looseOf(
  laid: readonly Laid[],
  held: { readonly untabbed: readonly Untabbed[]; readonly loose: readonly number[] },
): PanelRefusal | undefined {
  if (held.loose.length === 0) return undefined;
  const l = laid.find((k) => k.place.copy === held.loose[0])!;
  const why = held.untabbed.find((u) => held.loose.includes(u.copy))?.why;
  return {
    tag: "cannot-be-held",
    reason: `Copy ${held.loose.join(", ")} would be held by nothing${why ? `: ${why}` : ""}.`,
    at: { x: (l.box[0] + l.box[2]) / 2, y: (l.box[1] + l.box[3]) / 2 },
    nearest: [],
    do: "Give the sheet rails on more sides, a wider gap, or narrower tabs.",
  };
}

/** Tabs by hand that cannot stand any more, and boards that hang by one alone. */
function sayOwnTabs(
  held: { readonly tabs: PanelLayout["tabs"]; readonly untabbed: readonly Untabbed[] },
  laid: readonly Laid[],
  isRouted: boolean,
  findings: Finding[],
): void {
  for (const u of held.untabbed)
    findings.push({
      tag: "tab-left-out",
      level: "warning",
      at: { x: clean(u.x), y: clean(u.y) },
      text: `The tab put at ${u.x.toFixed(1)}, ${u.y.toFixed(1)} mm on copy ${u.copy} cannot stand there: ${u.why}. It is left out.`,
      do: "Put it elsewhere, or let tabs be found anew.",
    });
  if (!isRouted) return;
  for (const l of laid) {
    const n = held.tabs.filter((t) => t.between.includes(l.place.copy)).length;
    if (n === 1)
      findings.push({
        tag: "held-by-one-tab",
        level: "warning",
        at: { x: clean((l.box[0] + l.box[2]) / 2), y: clean((l.box[1] + l.box[3]) / 2) },
        text: `Copy ${l.place.copy} hangs by one tab: it swings when it is milled and printed.`,
        do: "Put a second one, opposite.",
      });
  }
}

/** Stretches that got no tab, each reason of a design once. */
function sayUntabbed(untabbed: readonly Untabbed[], s: SheetParts, findings: Finding[]): void {
  const said = new Set<string>();
  for (const u of untabbed) {
    const key = `${s.places.find((p) => p.copy === u.copy)?.board} ${u.why}`;
    if (said.has(key) || said.size >= 4) continue;
    said.add(key);
    findings.push({
      tag: "edge-without-tab",
      level: "remark",
      at: { x: clean(u.x), y: clean(u.y) },
      text: `Copy ${u.copy} has no tab at ${u.x.toFixed(1)}, ${u.y.toFixed(1)} mm: ${u.why}.`,
    });
  }
}

/** Copper that perforations would come nearer to than is usual, wherever along the edge it is. */
function sayPerforations(laid: readonly Laid[], findings: Finding[]): void {
  const said = new Set<unknown>();
  for (const { design, place } of laid) {
    const c = design.copperToEdge;
    if (!c || said.has(design)) continue;
    said.add(design);
    const mm = perforationToCopper(c.mm);
    if (mm >= COPPER_WANTED_MM - 1e-9) continue;
    const [x, y] = posed(place, c.x, c.y);
    findings.push({
      tag: "perforation-near-copper",
      level: mm < 0.1 ? "warning" : "remark",
      at: { x: clean(x), y: clean(y) },
      text: `Copper of ${design.name} comes within ${Number(c.mm.toFixed(2))} mm of its edge: perforations there would leave ${Number(Math.max(0, mm).toFixed(2))} mm to it, ${COPPER_WANTED_MM} mm is usual.`,
      do: "Draw the copper back where tabs stand, or cut tabs with a cutter instead of breaking them.",
    });
  }
}

/** Parts of one copy that would stand over another: they are in the way when boards are placed on the sheet. */
function sayOverhangs(laid: readonly Laid[], findings: Finding[]): void {
  const said = new Set<string>();
  for (const l of laid)
    for (const o of l.design.overhangs) {
      const key = `${l.place.board} ${o.ref}`;
      if (said.has(key)) continue;
      const b = posedBox(l.place, o.box);
      const other = laid.find(
        (k) => k !== l && k.box[0] < b[2] && k.box[2] > b[0] && k.box[1] < b[3] && k.box[3] > b[1],
      );
      if (!other) continue;
      said.add(key);
      findings.push({
        tag: "part-over-neighbour",
        level: "warning",
        at: { x: clean((b[0] + b[2]) / 2), y: clean((b[1] + b[3]) / 2) },
        text: `${o.ref} of copy ${l.place.copy} reaches over copy ${other.place.copy}: it hangs ${o.mm} mm over its board's edge.`,
        do: `Make the gap ${Math.ceil((o.mm + CLEAR_MM) * 2) / 2} mm, turn the boards, or solder ${o.ref} after they are parted.`,
      });
    }
}

/** Room an overhanging part wants to the next board, mm. */
export const CLEAR_MM = 0.5;

/** Contacts that are bevelled and do not look out of the sheet. */
function sayOutward(laid: readonly Laid[], s: SheetParts, findings: Finding[]): void {
  const hidden = laid.filter((l) =>
    l.design.outward.some((edge) => {
      if (l.place.turnDeg % 90 !== 0) return true;
      const side = turnedSide(edge, l.place.turnDeg);
      const at = {
        left: l.box[0],
        bottom: l.box[1],
        right: s.widthMm - l.box[2],
        top: s.heightMm - l.box[3],
      };
      return at[side] > 1e-3;
    }),
  );
  const [first] = hidden;
  if (first)
    findings.push({
      tag: "bevel-inside",
      level: "warning",
      at: { x: first.box[0], y: first.box[1] },
      text: `The contacts of copy ${hidden
        .map((l) => l.place.copy)
        .slice(0, 6)
        .join(", ")} do not lie at the sheet's edge, where a bevel is ground.`,
      do: "Take one row, or two back to back, without a rail on those sides; or have the boards bevelled singly.",
    });
}
