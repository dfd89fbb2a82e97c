import type { BoardFile } from "../../board/board-file.ts";
import type { Finding } from "../../findings.ts";
import { thinned } from "../../geometry/polygon.ts";
import { posed } from "../../geometry/turn.ts";
import { LayerWriter } from "../../gerber/layer-writer.ts";
import type { FileAttribute } from "../../gerber/write.ts";
import { writeJob } from "../../job/write.ts";
import { BAD_MARK_MM, BALANCE_MM, FIDUCIAL } from "../lay/furnish.ts";
import { sheetMaterial } from "../lay/material.ts";
import type { PanelFiles, PanelLayout, PanelName, PanelPlace, PanelSource, WriteMode } from "../spec.ts";
import { Cell, type Share } from "./cells.ts";
import { textStrokes, textWidth } from "./letters.ts";
import { drillFiles } from "./write-drills.ts";
import { netlistText, partTables } from "./write-parts.ts";

/** A text as UTF-8. */
export function utf8(text: string): Uint8Array {
  const coded = encodeURIComponent(text);
  const out: number[] = [];
  for (let i = 0; i < coded.length; i++)
    if (coded[i] === "%") {
      out.push(Number.parseInt(coded.slice(i + 1, i + 3), 16));
      i += 2;
    } else out.push(coded.charCodeAt(i));
  return Uint8Array.from(out);
}

const ORDER = ["copper", "mask", "paste", "legend"] as const;
type ImageRole = (typeof ORDER)[number];

interface LayerKey {
  readonly role: ImageRole;
  readonly side: "top" | "bottom" | "inner";
  readonly index: number;
}

const keyOf = (f: BoardFile): LayerKey | undefined =>
  f.layer && (ORDER as readonly string[]).includes(f.role) && f.side
    ? { role: f.role as ImageRole, side: f.side, index: f.index ?? 0 }
    : undefined;
const nameOfKey = (k: LayerKey) => `${k.role}-${k.side}${k.side === "inner" ? `-${k.index}` : ""}`;

/**
 * The files of a sheet: every image layer, drills by plating and span, the outline with what is milled, scores, places and
 * parts of every copy, netlist and job file (domain.md 6.6, 11).
 *
 * @param slug first part of every file's name
 */
export function writePanel(
  sources: readonly PanelSource[],
  layout: PanelLayout,
  name: PanelName,
  slug: string,
  mode: WriteMode = "copies",
): PanelFiles {
  const findings: Finding[] = [];
  const files: { path: string; text: string; function: string; polarity?: string }[] = [];
  const copper = Math.max(...sources.map((s) => s.design.layers));
  const common: readonly FileAttribute[] = [
    ["ProjectId", name.name, "0", name.revision],
    ["Part", "Array"],
    ["SameCoordinates", `${slug}-array`],
  ];
  const grow = layout.separation === "tabs" ? layout.gapMm / 2 : 0;
  const cells = sources.map((s) => new Cell(s.design.outline, grow));
  if (mode === "step-repeat") sayNoGrid(sources, layout, findings);
  for (const key of layerKeys(sources)) {
    const fn = functionOf(key, copper);
    const polarity = key.role === "mask" ? "Negative" : "Positive";
    const w = new LayerWriter([["FileFunction", ...fn], ["FilePolarity", polarity], ...common]);
    writeCopies(w, key, sources, cells, layout, mode, findings);
    addFeatures(w, key, layout, name);
    files.push({ path: `${slug}-${nameOfKey(key)}.gbr`, text: w.done(), function: fn.join(","), polarity });
  }
  files.push(...outlineFiles(sources, layout, common, slug));
  files.push(...drillFiles(sources, layout, slug, copper, cells));
  const netlist = netlistText(sources, layout, slug, copper);
  if (netlist) files.push({ path: `${slug}.ipc`, text: netlist, function: "Other,Netlist" });
  const job = writeJob({
    name: name.name,
    revision: name.revision,
    widthMm: layout.widthMm,
    heightMm: layout.heightMm,
    layers: copper,
    ...(sources[0]?.design.thicknessMm === undefined ? {} : { thicknessMm: sources[0].design.thicknessMm }),
    files: files
      .filter((f) => !f.function.startsWith("Other"))
      .map(({ path, function: f, polarity }) => ({ path, function: f, ...(polarity ? { polarity } : {}) })),
  });
  return {
    files: [
      ...files.map((f) => ({ path: f.path, bytes: utf8(f.text) })),
      { path: `${slug}.gbrjob`, bytes: utf8(job) },
    ],
    tables: partTables(sources, layout, slug),
    findings,
  };
}

function layerKeys(sources: readonly PanelSource[]): LayerKey[] {
  const all = new Map<string, LayerKey>();
  for (const s of sources)
    for (const f of s.set.files) {
      const k = keyOf(f);
      if (k && !all.has(nameOfKey(k))) all.set(nameOfKey(k), k);
    }
  const side = { top: 0, inner: 1, bottom: 2 };
  return [...all.values()].sort(
    (a, b) =>
      ORDER.indexOf(a.role) - ORDER.indexOf(b.role) || side[a.side] - side[b.side] || a.index - b.index,
  );
}

function functionOf(k: LayerKey, copper: number): string[] {
  const side = k.side === "top" ? "Top" : "Bot";
  if (k.role === "mask") return ["Soldermask", side];
  if (k.role === "paste") return ["Paste", side];
  if (k.role === "legend") return ["Legend", side];
  if (k.side === "inner") return ["Copper", `L${k.index + 1}`, "Inr"];
  return ["Copper", `L${k.side === "top" ? 1 : copper}`, side];
}

/** Every copy's objects, as far as they are the board's. */
function writeCopies(
  w: LayerWriter,
  key: LayerKey,
  sources: readonly PanelSource[],
  cells: readonly Cell[],
  layout: PanelLayout,
  mode: WriteMode,
  findings: Finding[],
): void {
  sources.forEach((s, board) => {
    const file = s.set.files.find((f) => {
      const k = keyOf(f);
      return k !== undefined && nameOfKey(k) === nameOfKey(key);
    });
    if (!file?.layer) return;
    const image = file.layer;
    const shares = cells[board]!.sharesOf(image);
    sayCut(shares, file.path, s.design.name, findings);
    const places = layout.places.filter((p) => p.board === board);
    const one = (p: PanelPlace) =>
      w.copy(image, p, (i, isDark) => {
        const share = shares[i]!;
        if (share === "whole") return false;
        if (share !== "none") for (const ring of share) w.area([posedFlat(p, ring)], isDark);
        return true;
      });
    const grid = mode === "step-repeat" ? gridOf(places) : undefined;
    if (grid) w.repeated(grid.nx, grid.ny, grid.stepX, grid.stepY, () => one(grid.first));
    else for (const p of places) one(p);
  });
}

/** Boards asked for as one, repeated, which lie in no plain grid: each copy of them is written out. */
function sayNoGrid(sources: readonly PanelSource[], layout: PanelLayout, findings: Finding[]): void {
  sources.forEach((s, board) => {
    const places = layout.places.filter((p) => p.board === board);
    if (places.length === 0 || gridOf(places)) return;
    const turns = new Set(places.map((p) => p.turnDeg)).size;
    findings.push({
      tag: "step-repeat-impossible",
      level: "warning",
      text: `${s.design.name} cannot be written once and repeated: ${turns > 1 ? `its ${places.length} copies lie in ${turns} turns, and a repeat turns nothing` : `its ${places.length} copies make no grid of even steps`}. Every copy was written out.`,
      do:
        turns > 1
          ? "Let it lie one way round, or take the copies as they are."
          : "Take the copies as they are.",
    });
  });
}

const posedFlat = (p: PanelPlace, ring: readonly number[]): number[] => {
  const out: number[] = [];
  for (let i = 0; i < ring.length; i += 2) out.push(...posed(p, ring[i]!, ring[i + 1]!));
  return out;
};

function sayCut(shares: readonly Share[], file: string, board: string, findings: Finding[]): void {
  const cut = shares.filter((s) => s !== "whole" && s !== "none").length;
  const out = shares.filter((s) => s === "none").length;
  if (cut + out === 0) return;
  findings.push({
    tag: "drawn-over-edge",
    level: "remark",
    file,
    text: `${board}: ${cut > 0 ? `${cut} object${cut === 1 ? "" : "s"} reach over the board's edge and end there` : ""}${cut > 0 && out > 0 ? "; " : ""}${out > 0 ? `${out} lie${out === 1 ? "s" : ""} beside the board and ${out === 1 ? "is" : "are"} left out` : ""}, so that no copy is drawn on its neighbour.`,
  });
}

/** Columns, rows and steps where places make a plain grid of one turn. */
export function gridOf(places: readonly PanelPlace[]):
  | {
      readonly nx: number;
      readonly ny: number;
      readonly stepX: number;
      readonly stepY: number;
      readonly first: PanelPlace;
    }
  | undefined {
  const [first] = places;
  if (!first || places.some((p) => p.turnDeg !== first.turnDeg)) return undefined;
  const values = (list: readonly number[]) =>
    [...new Set(list.map((v) => Math.round(v * 1e6)))].sort((a, b) => a - b);
  const [xs, ys] = [values(places.map((p) => p.xMm)), values(places.map((p) => p.yMm))];
  if (xs.length * ys.length !== places.length) return undefined;
  const step = (v: readonly number[]) => (v.length > 1 ? v[1]! - v[0]! : 0);
  const isEven = (v: readonly number[]) => v.every((q, i) => i === 0 || q - v[i - 1]! === step(v));
  if (!isEven(xs) || !isEven(ys)) return undefined;
  const at = new Set(places.map((p) => `${Math.round(p.xMm * 1e6)} ${Math.round(p.yMm * 1e6)}`));
  if (at.size !== places.length) return undefined;
  const corner = places.find((p) => Math.round(p.xMm * 1e6) === xs[0] && Math.round(p.yMm * 1e6) === ys[0])!;
  return { nx: xs.length, ny: ys.length, stepX: step(xs) / 1e6, stepY: step(ys) / 1e6, first: corner };
}

/** What stands on the rails, on the layers it belongs to. */
function addFeatures(w: LayerWriter, key: LayerKey, layout: PanelLayout, name: PanelName): void {
  if (key.side === "inner") return;
  if (key.role === "copper") {
    for (const f of layout.fiducials) w.disc(f.xMm, f.yMm, FIDUCIAL.copperMm, ["FiducialPad", "Panel"]);
    for (const b of layout.badMarks) w.disc(b.xMm, b.yMm, BAD_MARK_MM, ["Other", "BadBoardMark"]);
    for (const b of layout.balance) w.disc(b.xMm, b.yMm, BALANCE_MM, ["CopperBalancing"]);
  }
  if (key.role === "mask") {
    for (const f of layout.fiducials) w.disc(f.xMm, f.yMm, FIDUCIAL.maskMm);
    for (const b of layout.badMarks) w.disc(b.xMm, b.yMm, BAD_MARK_MM);
  }
  if (key.side === "top") addWaste(w, key.role, layout);
  if (key.role === "legend" && key.side === "top") addText(w, layout, name);
}

/** Mask is drawn back from a bare pad of the waste by this much, mm. */
const BARE_MM = 0.05;

function addWaste(w: LayerWriter, role: ImageRole, layout: PanelLayout): void {
  const box = ([x0, y0, x1, y1]: readonly number[], more = 0) =>
    w.area([
      [x0! - more, y0! - more, x1! + more, y0! - more, x1! + more, y1! + more, x0! - more, y1! + more],
    ]);
  for (const item of layout.waste) {
    if (role === "copper") for (const b of item.pads) box(b);
    if (role === "mask") for (const b of item.pads) box(b, BARE_MM);
    if (role === "paste") for (const b of item.openings) box(b);
    if (role === "legend")
      for (const l of item.labels)
        for (const [x1, y1, x2, y2] of textStrokes(l.text, l.mm)) {
          const at = (x: number, y: number): [number, number] =>
            l.isUpright ? [l.x - y, l.y + x] : [l.x + x, l.y + y];
          w.line(...at(x1, y1), ...at(x2, y2), 0.12);
        }
  }
}

const TEXT_MM = 2;

/** Name, revision and the way the sheet runs, on the first rail where they fit between what stands there. */
function addText(w: LayerWriter, layout: PanelLayout, name: PanelName): void {
  const words = `${name.name} ${name.revision} >`;
  const length = textWidth(words, TEXT_MM);
  const { rails, widthMm: W, heightMm: H } = layout;
  const marks = [
    ...layout.fiducials.map((f) => ({ x: f.xMm, y: f.yMm, r: FIDUCIAL.clearMm + 0.3 })),
    ...layout.toolingHoles.map((h) => ({ x: h.xMm, y: h.yMm, r: h.diameterMm / 2 + 0.5 })),
    ...layout.badMarks.map((b) => ({ x: b.xMm, y: b.yMm, r: BAD_MARK_MM / 2 + 0.5 })),
    ...layout.balance.map((b) => ({ x: b.xMm, y: b.yMm, r: BALANCE_MM / 2 + 0.3 })),
  ];
  const isClear = (x0: number, y0: number, x1: number, y1: number) =>
    layout.waste.every((i) => i.box[0] > x1 || i.box[2] < x0 || i.box[1] > y1 || i.box[3] < y0);
  const spots = [
    { lying: true, rail: rails.top, v: H - rails.top / 2 },
    { lying: true, rail: rails.bottom, v: rails.bottom / 2 },
    { lying: false, rail: rails.left, v: rails.left / 2 },
    { lying: false, rail: rails.right, v: W - rails.right / 2 },
  ];
  for (const s of spots) {
    if (s.rail < TEXT_MM + 1) continue;
    const L = s.lying ? W : H;
    for (let u = 3; u + length <= L - 3; u += 1) {
      const isFree = marks.every((m) => {
        const [p, q] = s.lying ? [m.x, m.y] : [m.y, m.x];
        return p + m.r < u || p - m.r > u + length || Math.abs(q - s.v) > m.r + TEXT_MM / 2;
      });
      const [a0, a1] = [s.v - TEXT_MM / 2, s.v + TEXT_MM / 2];
      if (!isFree || !(s.lying ? isClear(u, a0, u + length, a1) : isClear(a0, u, a1, u + length))) continue;
      for (const [x1, y1, x2, y2] of textStrokes(words, TEXT_MM)) {
        const at = (x: number, y: number) =>
          s.lying ? [u + x, s.v - TEXT_MM / 2 + y] : [s.v + TEXT_MM / 2 - y, u + x];
        const [a, b] = [at(x1, y1), at(x2, y2)];
        w.line(a[0]!, a[1]!, b[0]!, b[1]!, 0.2);
      }
      return;
    }
  }
}

function outlineFiles(
  sources: readonly PanelSource[],
  layout: PanelLayout,
  common: readonly FileAttribute[],
  slug: string,
) {
  const profile = new LayerWriter([
    ["FileFunction", "Profile", "NP"],
    ["FilePolarity", "Positive"],
    ...common,
  ]);
  const material = sheetMaterial(
    sources.map((s) => s.design),
    layout,
  );
  for (const area of material)
    for (const ring of area) profile.outline(thinned(ring, 0.0004), 0.05, ["Profile"]);
  const files = [{ path: `${slug}-profile.gbr`, text: profile.done(), function: "Profile,NP" }];
  if (layout.scores.length === 0) return files;
  const score = new LayerWriter([["FileFunction", "Vcut"], ["FilePolarity", "Positive"], ...common]);
  for (const s of layout.scores) score.line(s.x1, s.y1, s.x2, s.y2, 0.1);
  return [...files, { path: `${slug}-score.gbr`, text: score.done(), function: "Vcut" }];
}
