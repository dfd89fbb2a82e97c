import { clipAreas, shrinkAreas } from "../../geometry/clip.ts";
import { posedBox, posedRing, turnOf, unposed } from "../../geometry/turn.ts";
import { IDENTITY, transformAperture } from "../../gerber/aperture.ts";
import { type Aperture, KIND, type LayerImage } from "../../gerber/image.ts";
import { ringsOf, shapesOf } from "../../gerber/shapes.ts";
import type { PanelPlace } from "../spec.ts";
import { type Cell, objectBox, type Share } from "./cells.ts";

/** Half of the widest band in which a copy may differ from its board, mm (domain.md 6.7). */
const BAND_MM = 0.0005;

/** A place where a sheet's layer is not n times the board's. */
export interface LayerDifference {
  readonly copy: number;
  readonly x: number;
  readonly y: number;
  readonly what: string;
}

/** One design's layer and where its copies are. */
export interface LayerOfDesign {
  readonly image: LayerImage;
  readonly shares: readonly Share[];
  readonly cell: Cell;
  readonly outline: readonly number[];
  readonly places: readonly PanelPlace[];
}

const nm = (v: number) => Math.round(v * 1e6);

/**
 * A sheet's layer, as it was read back, against the boards it is made of: each copy's objects are turned back and held
 * against the board's one by one; what does not match in number or order is compared as painted areas within the outline.
 *
 * @param features objects on rails the layer may hold besides
 * @returns at most a few places that differ; none where the sheet is right
 */
export function layerDifferences(
  panel: LayerImage,
  designs: readonly LayerOfDesign[],
  features: number,
): LayerDifference[] {
  const out: LayerDifference[] = [];
  const copies = designs.flatMap((design) =>
    design.places.map((place) => ({
      design,
      place,
      box: posedBox(place, cellBox(design.cell)),
      objects: [] as number[],
    })),
  );
  let beside = 0;
  for (let i = 0; i < panel.n; i++) {
    const b = objectBox(panel, i);
    const [x, y] = anchorOf(panel, i, b);
    const near = copies.filter(
      (k) =>
        x >= k.box[0] - 1e-6 &&
        x <= k.box[2] + 1e-6 &&
        y >= k.box[1] - 1e-6 &&
        y <= k.box[3] + 1e-6 &&
        nearCell(k.design.cell, ...unposed(k.place, x, y)),
    );
    // an area begins at a corner where boards may touch: it is of the one that holds all of it
    const c = near.length > 1 ? (near.find((k) => holds(k.box, b)) ?? near[0]) : near[0];
    if (c) c.objects.push(i);
    else {
      beside++;
      const hit = copies.find(
        (k) =>
          overlaps(k.box, b) && k.design.cell.has(...unposed(k.place, (b[0] + b[2]) / 2, (b[1] + b[3]) / 2)),
      );
      if (hit) out.push({ copy: hit.place.copy, x, y, what: "something of the rails lies on it" });
    }
  }
  if (beside !== features)
    out.push({ copy: 0, x: 0, y: 0, what: `${beside} objects lie beside the boards, ${features} should` });
  const stamps = new StampPairs(panel);
  for (const c of copies) {
    if (out.length >= 5) break;
    const wrong = copyDiffers(panel, c.objects, c.design, c.place, stamps);
    if (wrong) out.push({ copy: c.place.copy, ...wrong });
  }
  return out;
}

const overlaps = (a: readonly number[], b: readonly number[]) =>
  a[0]! < b[2]! && b[0]! < a[2]! && a[1]! < b[3]! && b[1]! < a[3]!;
const holds = (a: readonly number[], b: readonly number[]) =>
  b[0]! >= a[0]! - 1e-3 && b[1]! >= a[1]! - 1e-3 && b[2]! <= a[2]! + 1e-3 && b[3]! <= a[3]! + 1e-3;
const cellBox = (c: Cell) => {
  let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
  for (let i = 0; i < c.ring.length; i += 2) {
    x0 = Math.min(x0, c.ring[i]!);
    x1 = Math.max(x1, c.ring[i]!);
    y0 = Math.min(y0, c.ring[i + 1]!);
    y1 = Math.max(y1, c.ring[i + 1]!);
  }
  return [x0, y0, x1, y1] as const;
};

/** A point of an object that tells which copy it is of: what is written first of it. */
function anchorOf(image: LayerImage, i: number, b: readonly number[]): readonly [number, number] {
  const o = i * 6;
  if (image.kind[i] === KIND.region) {
    const p = image.geo[o]! * 2;
    return [image.points[p]!, image.points[p + 1]!];
  }
  return image.kind[i] === KIND.flash
    ? [(b[0]! + b[2]!) / 2, (b[1]! + b[3]!) / 2]
    : [image.geo[o]!, image.geo[o + 1]!];
}

/** In the cell, or on its edge to a micrometre. */
function nearCell(cell: Cell, x: number, y: number): boolean {
  const e = 1e-3;
  return (
    cell.has(x, y) ||
    cell.has(x + e, y + e) ||
    cell.has(x - e, y - e) ||
    cell.has(x + e, y - e) ||
    cell.has(x - e, y + e)
  );
}

/** Stamps of board and sheet held against each other, each pair once. */
class StampPairs {
  private readonly panel: LayerImage;
  private readonly known = new Map<string, boolean>();
  private readonly ids = new Map<Aperture, number>();

  constructor(panel: LayerImage) {
    this.panel = panel;
  }

  same(a: Aperture, panelAperture: number, turnDeg: number): boolean {
    const b = this.panel.apertures[panelAperture]!;
    let id = this.ids.get(a);
    if (id === undefined) {
      id = this.ids.size;
      this.ids.set(a, id);
    }
    const key = `${id} ${panelAperture} ${turnDeg}`;
    let found = this.known.get(key);
    if (found === undefined) {
      found = sameStamp(transformAperture(a, { ...IDENTITY, degrees: turnDeg }), b);
      this.known.set(key, found);
    }
    return found;
  }
}

function sameStamp(a: Aperture, b: Aperture): boolean {
  if (a.areas.length === 0 && b.areas.length === 0 && a.circleMm !== undefined && b.circleMm !== undefined)
    return Math.abs(a.circleMm - b.circleMm) < 1e-6;
  const rings = (s: Aperture) => shapesOf(flashOf(s)).flatMap((x) => ringsOf(x));
  return isSameArea(rings(a), rings(b));
}

/** A layer that holds one stamp. */
const flashOf = (a: Aperture): LayerImage => ({
  n: 1,
  kind: Uint8Array.of(KIND.flash),
  aperture: Int32Array.of(0),
  dark: Uint8Array.of(1),
  attributes: Int32Array.of(-1),
  geo: new Float64Array(6),
  points: new Float64Array(0),
  apertures: [a],
  attributeTable: [],
  fileAttributes: {},
  findings: [],
  isLayerFile: true,
});

function isSameArea(a: readonly (readonly number[])[], b: readonly (readonly number[])[]): boolean {
  if (a.length === 0 && b.length === 0) return true;
  return shrinkAreas(clipAreas("xor", a, b), BAND_MM).length === 0;
}

/** What names an object's place: of the board's as it lies, of the sheet's turned back. */
function placeKey(
  image: LayerImage,
  i: number,
  at: (x: number, y: number) => readonly [number, number],
): string {
  const g = image.geo;
  const o = i * 6;
  const kind = image.kind[i]!;
  const parts: number[] = [kind, image.dark[i]!];
  const put = (x: number, y: number) => {
    const [u, v] = at(x, y);
    parts.push(nm(u), nm(v));
  };
  if (kind === KIND.region) {
    let last = "";
    for (let k = g[o]!; k < g[o + 1]!; k++) {
      const [u, v] = at(image.points[k * 2]!, image.points[k * 2 + 1]!);
      const key = `${nm(u)} ${nm(v)}`;
      if (key === last) continue;
      last = key;
      parts.push(nm(u), nm(v));
    }
    // a ring may be closed by its first corner or not
    const n = parts.length;
    if (n > 6 && parts[2] === parts[n - 2] && parts[3] === parts[n - 1]) parts.length = n - 2;
  } else {
    put(g[o]!, g[o + 1]!);
    if (kind !== KIND.flash) put(g[o + 2]!, g[o + 3]!);
    if (kind === KIND.arcCw || kind === KIND.arcCcw) put(g[o + 4]!, g[o + 5]!);
  }
  return parts.join(" ");
}

function copyDiffers(
  panel: LayerImage,
  objects: readonly number[],
  d: LayerOfDesign,
  place: PanelPlace,
  stamps: StampPairs,
): Omit<LayerDifference, "copy"> | undefined {
  const rounded = ([x, y]: readonly [number, number]) => [nm(x) / 1e6, nm(y) / 1e6] as const;
  const back = (x: number, y: number) =>
    rounded(unposed({ ...place, xMm: nm(place.xMm) / 1e6, yMm: nm(place.yMm) / 1e6 }, x, y));
  const there = new Map<string, number[]>();
  for (const i of objects) {
    const key = placeKey(panel, i, back);
    const list = there.get(key);
    if (list) list.push(i);
    else there.set(key, [i]);
  }
  const left: number[] = [];
  let last = -1;
  let isInOrder = true;
  let hasClear = false;
  for (let i = 0; i < d.image.n; i++) {
    if (d.image.dark[i] === 0) hasClear = true;
    if (d.shares[i] === "none") continue;
    const list =
      d.shares[i] === "whole" ? there.get(placeKey(d.image, i, (x, y) => rounded([x, y]))) : undefined;
    const a = d.image.apertures[d.image.aperture[i]!];
    const k =
      list?.findIndex(
        (j) =>
          d.image.kind[i] === KIND.region ||
          (a !== undefined && stamps.same(a, panel.aperture[j]!, place.turnDeg)),
      ) ?? -1;
    if (k < 0) {
      left.push(i);
      continue;
    }
    const [j] = list!.splice(k, 1);
    if (j! < last) isInOrder = false;
    last = j!;
  }
  const over = [...there.values()].flat();
  if (left.length === 0 && over.length === 0 && (isInOrder || !hasClear)) return undefined;
  const whole = hasClear;
  const single = paintedOf(d.image, whole ? all(d.image.n) : left);
  const copied = paintedOf(panel, whole ? objects : over).map((r) => {
    const [c, s] = turnOf(-place.turnDeg);
    const [x, y] = unposed(place, 0, 0);
    return posedRing({ xMm: x, yMm: y, turnDeg: 0 }, turned(r, c, s));
  });
  const inside = (rings: readonly (readonly number[])[]) =>
    rings.length === 0 ? [] : clipAreas("intersection", rings, [d.outline]).flat();
  const apart = shrinkAreas(clipAreas("xor", inside(single), inside(copied)), BAND_MM);
  const [first] = apart;
  if (!first) return undefined;
  return { x: first[0]![0]!, y: first[0]![1]!, what: "it is painted otherwise than the board" };
}

const all = (n: number) => Array.from({ length: n }, (_, i) => i);
const turned = (r: readonly number[], c: number, s: number): number[] => {
  const out: number[] = [];
  for (let i = 0; i < r.length; i += 2) out.push(r[i]! * c - r[i + 1]! * s, r[i]! * s + r[i + 1]! * c);
  return out;
};

/** What some objects of a layer paint together, in their order. */
function paintedOf(image: LayerImage, objects: readonly number[]): readonly (readonly number[])[] {
  const sorted = [...objects].sort((a, b) => a - b);
  const pick = <T extends Uint8Array | Int32Array>(from: T, to: T): T => {
    sorted.forEach((i, k) => {
      to[k] = from[i]!;
    });
    return to;
  };
  const geo = new Float64Array(sorted.length * 6);
  for (const [k, i] of sorted.entries()) geo.set(image.geo.subarray(i * 6, i * 6 + 6), k * 6);
  const part: LayerImage = {
    ...image,
    n: sorted.length,
    kind: pick(image.kind, new Uint8Array(sorted.length)),
    aperture: pick(image.aperture, new Int32Array(sorted.length)),
    dark: pick(image.dark, new Uint8Array(sorted.length)),
    attributes: pick(image.attributes, new Int32Array(sorted.length)),
    geo,
  };
  return shapesOf(part).flatMap((s) => ringsOf(s));
}
