import type { BoardFile, BoardSet } from "../../board/board-file.ts";
import type { Measure } from "../../board/measure-document.ts";
import { chainOutline } from "../../board/outline/outline.ts";
import { reversed } from "../../board/outline/outline-loops.ts";
import { signedArea } from "../../geometry/polygon.ts";
import { posed, posedBox, posedRing } from "../../geometry/turn.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import { PERFORATION } from "../hold/perforate.ts";
import { middleOf } from "../lay/clash.ts";
import { piecesAfterCutting, sheetMaterial } from "../lay/material.ts";
import type { PanelLayout, PanelSource } from "../spec.ts";
import { Cell } from "./cells.ts";
import { type LayerDifference, layerDifferences } from "./proof-layer.ts";

/** One thing that was held against the boards. */
export interface ProofRow {
  readonly what: string;
  /** Of the sheet, as read back. */
  readonly panel: number;
  /** What n times the board, and what was added, come to. */
  readonly boards: number;
}

/** What reading a sheet's own files back says. */
export interface PanelProof {
  readonly agrees: boolean;
  readonly checked: readonly ProofRow[];
  /** What does not agree, in words, with its place where it has one. */
  readonly wrong: readonly {
    readonly text: string;
    readonly at?: { readonly x: number; readonly y: number };
  }[];
}

/** A board with its measure, to count on. */
export type ProvenSource = PanelSource & { readonly measure: Measure };

const ROLES = ["copper", "mask", "paste", "legend"];
const nameOf = (f: BoardFile) => `${f.role} ${f.side === "inner" ? `inner ${f.index ?? 1}` : (f.side ?? "")}`;
const same = (a: number, b: number, within = 1e-6) => Math.abs(a - b) <= Math.max(within, 1e-7 * Math.abs(b));

/**
 * Reads a sheet that was written, and holds it against the boards it is made of (domain.md 6.7): every layer of every copy
 * turned back, holes by size and place, the pieces after cutting; with the sheet's own measure also areas, nets and least
 * gaps.
 *
 * @param written the sheet's own files, read by the readers any board is read by
 * @param measured the sheet's measure; left out where a quick proof is enough
 */
export function provePanel(
  sources: readonly ProvenSource[],
  layout: PanelLayout,
  written: BoardSet,
  measured?: Measure,
): PanelProof {
  const wrong: { text: string; at?: { x: number; y: number } }[] = [];
  const checked: ProofRow[] = [];
  const row = (what: string, panel: number, boards: number, within?: number) => {
    checked.push({ what, panel, boards });
    if (!same(panel, boards, within))
      wrong.push({ text: `${what}: the sheet has ${panel}, the boards make ${boards}.` });
  };
  proveLayers(sources, layout, written, row, wrong);
  proveHoles(sources, layout, written, row, wrong);
  provePieces(sources, layout, written, row, wrong);
  row(
    "places of parts",
    written.placements?.parts.length ?? 0,
    layout.places.reduce((n, p) => n + (sources[p.board]!.set.placements?.parts.length ?? 0), 0),
  );
  row(
    "points of the netlist",
    written.netlist?.points.length ?? 0,
    layout.places.reduce((n, p) => n + (sources[p.board]!.set.netlist?.points.length ?? 0), 0),
  );
  if (measured) proveMeasures(sources, layout, measured, row);
  return { agrees: wrong.length === 0, checked, wrong };
}

type Row = (what: string, panel: number, boards: number, within?: number) => void;
type Wrong = { text: string; at?: { x: number; y: number } }[];

/** Marks on rails that are flashed onto a layer. */
function flashedOn(layout: PanelLayout, role: string): number {
  const marks = layout.fiducials.length + layout.badMarks.length;
  return role === "copper" ? marks + layout.balance.length : role === "mask" ? marks : 0;
}

/** Objects on rails by layer. */
function featuresOf(layout: PanelLayout, role: string, side: string | undefined): number | undefined {
  if (side === "inner") return 0;
  const marks = flashedOn(layout, role);
  const count = (f: (w: PanelLayout["waste"][number]) => number) =>
    side === "top" ? layout.waste.reduce((n, w) => n + f(w), 0) : 0;
  if (role === "copper" || role === "mask") return marks + count((w) => w.pads.length);
  if (role === "paste") return count((w) => w.openings.length);
  // letters on a rail are counted as they are
  if (role === "legend") return undefined;
  return 0;
}

function proveLayers(
  sources: readonly ProvenSource[],
  layout: PanelLayout,
  written: BoardSet,
  row: Row,
  wrong: Wrong,
): void {
  const grow = layout.separation === "tabs" ? layout.gapMm / 2 : 0;
  const cells = sources.map((s) => new Cell(s.design.outline, grow));
  const names = new Set(
    sources.flatMap((s) =>
      s.set.files.filter((f) => ROLES.includes(f.role) && f.layer && f.side).map(nameOf),
    ),
  );
  for (const name of names) {
    const panel = written.files.find((f) => f.layer && nameOf(f) === name);
    if (!panel?.layer) {
      wrong.push({ text: `The layer ${name} is not among the sheet's files.` });
      continue;
    }
    const image = panel.layer;
    const designs = sources.flatMap((s, board) => {
      const file = s.set.files.find((f) => f.layer && nameOf(f) === name);
      if (!file?.layer) return [];
      const shares = cells[board]!.sharesOf(file.layer);
      const places = layout.places.filter((p) => p.board === board);
      return [{ image: file.layer, shares, cell: cells[board]!, outline: s.design.outline, places }];
    });
    const stated = featuresOf(layout, panel.role, panel.side);
    const beside = stated ?? besideCount(image, designs);
    const differs: LayerDifference[] = layerDifferences(image, designs, beside);
    row(
      `${name}: copies as the board`,
      layout.places.length - new Set(differs.map((d) => d.copy)).size,
      layout.places.length,
    );
    for (const d of differs.slice(0, 3))
      wrong.push({
        text: d.copy === 0 ? `${name}: ${d.what}.` : `${name}, copy ${d.copy}: ${d.what}.`,
        at: { x: d.x, y: d.y },
      });
    if (stated !== undefined && designs.every((d) => d.shares.every((x) => x === "whole")))
      row(
        `${name}: flashes`,
        flashesOf(image) - (panel.side === "inner" ? 0 : flashedOn(layout, panel.role)),
        designs.reduce((n, d) => n + flashesOf(d.image) * d.places.length, 0),
      );
  }
}

const flashesOf = (image: LayerImage) => image.kind.reduce((n, k) => n + Number(k === KIND.flash), 0);

function besideCount(image: LayerImage, designs: Parameters<typeof layerDifferences>[1]): number {
  const [first] = layerDifferences(image, designs, -1).filter((d) => d.copy === 0);
  return Number(/^\d+/.exec(first?.what ?? "0")?.[0] ?? 0);
}

const key = (x: number, y: number, d: number) =>
  `${Math.round(x * 1e3)} ${Math.round(y * 1e3)} ${Math.round(d * 1e4)}`;

/** Holes and slots at their places, by plating. */
function proveHoles(
  sources: readonly ProvenSource[],
  layout: PanelLayout,
  written: BoardSet,
  row: Row,
  wrong: Wrong,
): void {
  const drills = written.files.filter((f) => f.role === "drill" && f.drill);
  const hits = drills.flatMap((f) => f.drill!.hits);
  const there = new Map<string, number>();
  for (const h of hits)
    there.set(key(h.x, h.y, h.diameterMm), (there.get(key(h.x, h.y, h.diameterMm)) ?? 0) + 1);
  const grow = layout.separation === "tabs" ? layout.gapMm / 2 : 0;
  const cells = sources.map((s) => new Cell(s.design.outline, grow));
  let expected = 0;
  let missing = 0;
  for (const p of layout.places)
    for (const h of once(sources[p.board]!.set)) {
      if (!cells[p.board]!.has(h.x, h.y)) continue;
      expected++;
      const [x, y] = posed(p, h.x, h.y);
      if (!hasNear(there, x, y, h.diameterMm)) {
        missing++;
        if (missing <= 2)
          wrong.push({ text: `A hole of ${h.diameterMm} mm of copy ${p.copy} is missing.`, at: { x, y } });
      }
    }
  const perforations = layout.tabs.reduce((n, t) => n + t.holes, 0);
  row("holes", hits.length, expected + layout.toolingHoles.length + perforations);
  row(
    "perforations",
    hits.filter(
      (h) => Math.abs(h.diameterMm - PERFORATION.diameterMm) < 1e-6 && h.tool?.use?.includes("break-off"),
    ).length,
    perforations,
  );
  row(
    "slots and routed paths",
    drills.reduce((n, f) => n + f.drill!.routs.length, 0),
    layout.places.reduce(
      (n, p) =>
        n +
        sources[p.board]!.set.files.flatMap((f) => (f.role === "drill" ? (f.drill?.routs ?? []) : [])).filter(
          (r) => r.points.some(([x, y]) => cells[p.board]!.has(x, y)),
        ).length,
      0,
    ),
  );
}

/** Round holes of a board, those that lie on each other once. */
function once(set: BoardSet) {
  const seen = new Set<string>();
  return set.files
    .flatMap((f) => (f.role === "drill" ? (f.drill?.hits ?? []) : []))
    .filter((h) => {
      const k = `${Math.round(h.x * 100)} ${Math.round(h.y * 100)} ${h.diameterMm}`;
      if (seen.has(k)) return false;
      seen.add(k);
      return true;
    });
}

function hasNear(there: ReadonlyMap<string, number>, x: number, y: number, d: number): boolean {
  for (const dx of [0, -1e-3, 1e-3])
    for (const dy of [0, -1e-3, 1e-3]) if (there.has(key(x + dx, y + dy, d))) return true;
  return false;
}

const MENDED: ReadonlySet<string> = new Set(["outline-gap", "outline-stray", "outline-self-crossing"]);

/** The outline read back: its size, its area, and what it falls into when it is cut. */
function provePieces(
  sources: readonly ProvenSource[],
  layout: PanelLayout,
  written: BoardSet,
  row: Row,
  wrong: Wrong,
): void {
  const file = written.files.find((f) => f.role === "profile" && f.layer);
  const outline = file?.layer && chainOutline(file.layer, file.path);
  if (!outline?.isClosed) {
    wrong.push({ text: "The sheet's outline does not close when it is read back." });
    return;
  }
  // what a reader of anybody's files mends has no place in ours
  for (const f of outline.findings)
    if (MENDED.has(f.tag)) wrong.push({ text: `The sheet's outline, read back: ${f.text}` });
  // outer edges run one way, what is milled out the other
  const rings = outline.loops.map((l) => (l.depth % 2 === 0 ? [...l.ring] : reversed(l.ring)));
  const material = [rings];
  const planned = sheetMaterial(
    sources.map((s) => s.design),
    layout,
  );
  const edges = layout.places.map((p) => posedRing(p, sources[p.board]!.design.outline));
  const inside = layout.places.map((p, i) => {
    const d = sources[p.board]!.design;
    return middleOf({
      ring: edges[i]!,
      box: posedBox(p, d.box),
      cutouts: d.cutouts.map((c) => posedRing(p, c)),
    });
  });
  const pieces = piecesAfterCutting(layout, material, edges, inside);
  const boards = pieces.filter((p) => p.copies.length > 0);
  // a corner of an outline may move by half a micrometre
  const edge = outline.loops.reduce((n, l) => n + l.perimeterMm, 0);
  row(
    "area of the sheet without what is milled, mm²",
    rounded(areaOf(rings)),
    rounded(areaOf(planned.flat())),
    0.1 + edge * 0.0005,
  );
  row("boards after cutting", boards.length, layout.places.length);
  row("boards that stay joined", boards.filter((p) => p.copies.length > 1).length, 0);
}

const rounded = (v: number) => Math.round(v * 10) / 10;
const areaOf = (rings: readonly (readonly number[])[]) => rings.reduce((n, r) => n + signedArea(r), 0);
/** What the measure of the sheet and those of the boards have in common. */
function proveMeasures(sources: readonly ProvenSource[], layout: PanelLayout, m: Measure, row: Row): void {
  const n = sources.map((_, i) => layout.places.filter((p) => p.board === i).length);
  const sum = (f: (m: Measure) => number) => sources.reduce((s, x, i) => s + n[i]! * f(x.measure), 0);
  const marks = layout.fiducials.length + layout.badMarks.length + layout.balance.length;
  const grow = layout.separation === "tabs" ? layout.gapMm / 2 : 0;
  const isTrimmed = (role: string, side: string) =>
    sources.some((s) => {
      const file = s.set.files.find((f) => f.role === role && layerName(f) === side && f.layer);
      return file?.layer && new Cell(s.design.outline, grow).sharesOf(file.layer).some((x) => x !== "whole");
    });
  for (const [side, panel] of Object.entries(m.copperAreaMm2)) {
    if (isTrimmed("copper", side)) continue;
    const added =
      side === "top" || side === "bottom"
        ? featureArea(layout) + (side === "top" ? areaOfAll(layout, (w) => w.pads) : 0)
        : 0;
    // marks are measured as chords of circles
    row(
      `copper area ${side}, mm²`,
      rounded2(panel - added),
      rounded2(sum((x) => x.copperAreaMm2[side] ?? 0)),
    );
  }
  for (const [side, panel] of Object.entries(m.paste))
    if (!isTrimmed("paste", side)) {
      const own = side === "top" ? layout.waste.flatMap((w) => w.openings).length : 0;
      const area = side === "top" ? areaOfAll(layout, (w) => w.openings) : 0;
      row(
        `paste openings ${side}`,
        panel.count - own,
        sum((x) => x.paste[side]?.count ?? 0),
      );
      row(
        `paste area ${side}, mm²`,
        rounded2(panel.areaMm2 - area),
        rounded2(sum((x) => x.paste[side]?.areaMm2 ?? 0)),
      );
    }
  if (m.nets && sources.every((s) => s.measure.nets))
    row(
      "nets",
      m.nets.count -
        layout.waste.flatMap((w) => w.pads).length -
        marks * Object.keys(m.copperAreaMm2).filter((k) => k === "top" || k === "bottom").length,
      sum((x) => x.nets!.count),
    );
  const least = Math.min(...sources.map((s) => s.measure.minNetSpaceMm ?? Number.POSITIVE_INFINITY));
  if (m.minNetSpaceMm !== undefined && Number.isFinite(least))
    // marks on the rails stand half a millimetre apart: wider gaps are theirs
    row(
      "least gap between nets, mm",
      Math.min(MARKS_APART_MM, rounded6(m.minNetSpaceMm)),
      Math.min(MARKS_APART_MM, rounded6(least)),
    );
}

const layerName = (f: BoardFile) => (f.side === "inner" ? `inner ${f.index ?? 1}` : (f.side ?? ""));
const MARKS_APART_MM = 0.5;
const rounded2 = (v: number) => Math.round(v * 100) / 100;
const rounded6 = (v: number) => Math.round(v * 1e6) / 1e6;

const areaOfAll = (
  layout: PanelLayout,
  f: (w: PanelLayout["waste"][number]) => readonly (readonly number[])[],
) => layout.waste.flatMap(f).reduce((n, b) => n + (b[2]! - b[0]!) * (b[3]! - b[1]!), 0);

function featureArea(layout: PanelLayout): number {
  const disc = (d: number) => (Math.PI * d * d) / 4;
  return (
    layout.fiducials.length * disc(1) + layout.badMarks.length * disc(2) + layout.balance.length * disc(1.5)
  );
}
