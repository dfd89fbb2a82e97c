import type { OpenPad } from "../board/copper/coats.ts";
import type { LayerSolids } from "../board/copper/copper.ts";
import type { Body } from "../board/copper/holes.ts";
import type { Nets } from "../board/copper/nets.ts";
import type { ListedPoint } from "../board/measure/connectivity.ts";

export type OuterSide = "top" | "bottom";

/** A place where a needle meets bare copper: one pad, or both faces of a plated hole. */
export interface Spot {
  readonly x: number;
  readonly y: number;
  readonly sides: readonly OuterSide[];
  /** Island of copper it lies on: of all layers, as {@link Nets.offsets} counts. */
  readonly island: number;
  readonly group: number;
  /** Its lesser side, mm. */
  readonly sizeMm: number;
  /** "U1.4" where it is known. */
  readonly pad?: string;
}

/** Spots of one place lie within this, mm. */
const SAME_MM = 0.01;
/** How far a listed point may lie from the pad it names, mm. */
const NAMED_MM = 0.05;

/**
 * Where a board can be touched: pads of the outer layers whose middle is bare of mask and not drilled away.
 *
 * @param openOf pads by layer; on a board without any mask all are bare
 */
export function spotsOf(board: {
  readonly copper: readonly LayerSolids[];
  readonly nets: Nets;
  readonly bodies: readonly Body[];
  readonly openOf: readonly (readonly OpenPad[])[];
  readonly hasMask: boolean;
  readonly listed: readonly ListedPoint[];
}): Spot[] {
  const { copper, nets, bodies, openOf, hasMask } = board;
  const nameAt = namesAt(board.listed);
  const byPlace = new Map<string, Spot>();
  copper.forEach((l, i) => {
    const side = l.name;
    if (side !== "top" && side !== "bottom") return;
    for (const p of openOf[i]!) {
      if (hasMask && p.opening < 0) continue;
      if (p.body >= 0 && !bodies[p.body]!.plated) continue;
      const group = nets.groups.find(nets.offsets[i]! + p.piece);
      const key = `${Math.round(p.x / SAME_MM)} ${Math.round(p.y / SAME_MM)} ${group}`;
      const known = byPlace.get(key);
      if (known) {
        if (!known.sides.includes(side)) byPlace.set(key, { ...known, sides: [...known.sides, side] });
        continue;
      }
      const b = l.solids.box;
      const o = p.piece * 4;
      const pad = p.ref && p.pin !== undefined ? `${p.ref}.${p.pin}` : nameAt(p.x, p.y, group);
      byPlace.set(key, {
        x: p.x,
        y: p.y,
        sides: [side],
        island: nets.offsets[i]! + l.islands.groups.find(p.piece),
        group,
        sizeMm: Math.min(b[o + 2]! - b[o]!, b[o + 3]! - b[o + 1]!),
        ...(pad ? { pad } : {}),
      });
    }
  });
  return [...byPlace.values()];
}

function namesAt(
  listed: readonly ListedPoint[],
): (x: number, y: number, group: number) => string | undefined {
  const cell = 0.1;
  const grid = new Map<string, ListedPoint[]>();
  for (const p of listed) {
    if (p.ref === "" || p.ref === "VIA" || p.pin === "") continue;
    const key = `${Math.round(p.x / cell)} ${Math.round(p.y / cell)}`;
    const list = grid.get(key);
    if (list) list.push(p);
    else grid.set(key, [p]);
  }
  return (x, y, group) => {
    for (const dx of [0, -1, 1])
      for (const dy of [0, -1, 1])
        for (const p of grid.get(`${Math.round(x / cell) + dx} ${Math.round(y / cell) + dy}`) ?? [])
          if (p.group === group && Math.hypot(p.x - x, p.y - y) <= NAMED_MM) return `${p.ref}.${p.pin}`;
    return undefined;
  };
}
