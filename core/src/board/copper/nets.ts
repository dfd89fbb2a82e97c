import { OverBudget } from "../../geometry/work.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import { solidCovers } from "../../gerber/solids.ts";
import type { LayerSolids } from "./copper.ts";
import { Groups } from "./groups.ts";
import { type Body, nearBody, passes } from "./holes.ts";

/** Copper of all layers joined through plated holes and slots. */
export interface Nets {
  /** Over all pieces of all layers: piece k of layer i is offsets[i] + k. */
  readonly groups: Groups;
  readonly offsets: readonly number[];
  readonly count: number;
  /** Group of each body that joins or meets copper; −1 where it meets none. */
  readonly ofBody: Int32Array;
}

/** Islands of all layers joined by plated holes and slots that overlap them (domain.md 2.8); the count leaves out nothing drawn. */
export function joinNets(copper: readonly LayerSolids[], bodies: readonly Body[]): Nets {
  const offsets: number[] = [];
  let total = 0;
  for (const l of copper) {
    offsets.push(total);
    total += l.solids.count;
  }
  const groups = new Groups(total);
  copper.forEach((l, i) => {
    for (let k = 0; k < l.solids.count; k++)
      groups.join(offsets[i]! + k, offsets[i]! + l.islands.groups.find(k));
  });
  const ofBody = new Int32Array(bodies.length).fill(-1);
  bodies.forEach((b, n) => {
    if (!b.plated) return;
    copper.forEach((l, i) => {
      if (!passes(b, i)) return;
      nearBody(l, b, -1e-6, (k) => {
        if (ofBody[n]! >= 0) groups.join(ofBody[n]!, offsets[i]! + k);
        ofBody[n] = offsets[i]! + k;
      });
    });
  });
  for (let n = 0; n < ofBody.length; n++) if (ofBody[n]! >= 0) ofBody[n] = groups.find(ofBody[n]!);
  return { groups, offsets, count: groups.count(), ofBody };
}

/** A pad: a flash, or a filled area that carries a pin. */
export interface Pad {
  readonly layer: number;
  readonly object: number;
  readonly piece: number;
  readonly x: number;
  readonly y: number;
  readonly fn: string | undefined;
  readonly ref: string | undefined;
  readonly pin: string | undefined;
  readonly net: string | undefined;
  /** Index of the body drilled through it, −1 for none. */
  readonly body: number;
}

/** Pads of one layer at most. */
const MOST_PADS = 300_000;

/** Pads of a copper layer in file order, each with the hole through it. */
export function padsOf(layer: LayerSolids, index: number, bodies: readonly Body[]): Pad[] {
  const { image, solids } = layer;
  const pieceOf = new Int32Array(image.n).fill(-1);
  for (let k = solids.count - 1; k >= 0; k--) pieceOf[solids.object[k]!] = k;
  const bodyOf = new Map<number, number>();
  bodies.forEach((b, n) => {
    if (!passes(b, index)) return;
    const [x, y] = middle(b);
    layer.find(x, y, 0, (k) => {
      const o = solids.object[k]!;
      if (image.kind[o] !== KIND.flash) return;
      const [px, py] = [image.geo[o * 6]!, image.geo[o * 6 + 1]!];
      // a pad is drilled where a hole sits in its middle; a large hole may sit off it, a small one there is a via in a pad
      const isOffCentre = 2 * b.r >= 0.5 && fnOf(image, o) !== "SMDPad" && solidCovers(solids, k, x, y);
      if (Math.hypot(px - x, py - y) <= 0.05 || isOffCentre) bodyOf.set(o, n);
    });
  });
  const pads: Pad[] = [];
  for (let i = 0; i < image.n; i++) {
    if (image.dark[i] === 0) continue;
    const a = image.attributeTable[image.attributes[i]!];
    const kind = image.kind[i]!;
    if (kind !== KIND.flash && !(kind === KIND.region && a?.pin !== undefined)) continue;
    const piece = pieceOf[i]!;
    if (piece < 0) continue;
    if (pads.length === MOST_PADS)
      throw new OverBudget(`it has more than ${MOST_PADS.toLocaleString("en-GB")} pads`);
    const [x, y] =
      kind === KIND.flash
        ? [image.geo[i * 6]!, image.geo[i * 6 + 1]!]
        : [
            (solids.box[piece * 4]! + solids.box[piece * 4 + 2]!) / 2,
            (solids.box[piece * 4 + 1]! + solids.box[piece * 4 + 3]!) / 2,
          ];
    pads.push({
      layer: index,
      object: i,
      piece,
      x,
      y,
      fn: fnOf(image, i),
      ref: a?.ref,
      pin: a?.pin,
      net: a?.net,
      body: bodyOf.get(i) ?? -1,
    });
  }
  return pads;
}

/** How much larger than what it frees an opening may be on each side together, mm, and how much smaller. */
const [OPENING_MORE_MM, OPENING_LESS_MM] = [0.7, 0.1];

/**
 * Pads that are drawn instead of flashed: a filled area or a stroke under an opening of its own size, in which no flashed
 * pad lies.
 */
export function drawnPads(
  layer: LayerSolids,
  index: number,
  mask: LayerSolids | undefined,
  flashed: readonly Pad[],
): Pad[] {
  if (!mask) return [];
  const { image, solids } = layer;
  const open = mask.solids;
  const isTaken = new Uint8Array(open.count);
  for (const p of flashed)
    mask.find(p.x, p.y, 0, (k) => {
      if (solidCovers(open, k, p.x, p.y)) isTaken[k] = 1;
      return undefined;
    });
  const out: Pad[] = [];
  const seen = new Set<number>();
  for (let k = 0; k < open.count; k++) {
    if (isTaken[k]) continue;
    const [x0, y0, x1, y1] = open.box.subarray(k * 4, k * 4 + 4) as unknown as [
      number,
      number,
      number,
      number,
    ];
    const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
    layer.find(x, y, 0, (piece) => {
      const o = solids.object[piece]!;
      const kind = image.kind[o]!;
      if (kind === KIND.flash || image.dark[o] === 0 || seen.has(o)) return undefined;
      const b = solids.box.subarray(piece * 4, piece * 4 + 4);
      const more = [x1 - x0 - (b[2]! - b[0]!), y1 - y0 - (b[3]! - b[1]!)];
      const isOwn =
        more.every((m) => m <= OPENING_MORE_MM && m >= -OPENING_LESS_MM) && solidCovers(solids, piece, x, y);
      if (!isOwn) return undefined;
      seen.add(o);
      const a = image.attributeTable[image.attributes[o]!];
      out.push({
        layer: index,
        object: o,
        piece,
        x,
        y,
        fn: fnOf(image, o),
        ref: a?.ref,
        pin: a?.pin,
        net: a?.net,
        body: -1,
      });
      return true;
    });
  }
  return out;
}

const fnOf = (image: LayerImage, object: number): string | undefined =>
  image.aperture[object]! >= 0 ? image.apertures[image.aperture[object]!]?.function?.[0] : undefined;

const middle = (b: Body): readonly [number, number] => {
  const [p, q] = [b.points[0]!, b.points.at(-1)!];
  return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
};

/** A net as extracted, for documents: numbered by falling count of pads, then by the lowest place. */
export interface Net {
  readonly net: number;
  readonly group: number;
  readonly name?: string;
  readonly names: readonly string[];
  readonly pads: readonly Pad[];
}

/**
 * Nets that hold pads, named by what their objects say (domain.md 2.8: majority), else by the netlist, ordered so that the
 * same board gives the same numbers.
 *
 * @param listed points of a netlist with the group they lie on
 */
export function listNets(
  nets: Nets,
  copper: readonly LayerSolids[],
  pads: readonly Pad[],
  listed: readonly { readonly group: number; readonly net: string }[] = [],
): Net[] {
  const byGroup = new Map<number, Pad[]>();
  for (const p of pads) {
    const g = nets.groups.find(nets.offsets[p.layer]! + p.piece);
    const list = byGroup.get(g);
    if (list) list.push(p);
    else byGroup.set(g, [p]);
  }
  const drawn = new Map<number, Map<string, number>>();
  copper.forEach((l, i) => {
    if (l.image.attributeTable.length < 2) return;
    for (let k = 0; k < l.solids.count; k++)
      countName(
        drawn,
        nets.groups.find(nets.offsets[i]! + k),
        l.image.attributeTable[l.image.attributes[l.solids.object[k]!]!]?.net,
      );
  });
  const told = new Map<number, Map<string, number>>();
  for (const p of listed) countName(told, p.group, p.net);
  const lowest = (list: readonly Pad[]) =>
    list.reduce((a, b) => (b.x < a.x || (b.x === a.x && b.y < a.y) ? b : a));
  return [...byGroup]
    .map(([group, list]) => ({ group, list, low: lowest(list) }))
    .sort((a, b) => b.list.length - a.list.length || a.low.x - b.low.x || a.low.y - b.low.y)
    .map(({ group, list }, i) => {
      const counts = [...(drawn.get(group) ?? told.get(group) ?? [])].sort(
        (a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1),
      );
      return {
        net: i + 1,
        group,
        ...(counts[0] ? { name: counts[0][0] } : {}),
        names: counts.map(([n]) => n),
        pads: list,
      };
    });
}

function countName(names: Map<number, Map<string, number>>, group: number, name: string | undefined): void {
  if (!name || name === "N/C") return;
  const counts = names.get(group) ?? new Map<string, number>();
  counts.set(name, (counts.get(name) ?? 0) + 1);
  names.set(group, counts);
}
