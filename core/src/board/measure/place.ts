import { insideRings } from "../../geometry/polygon.ts";
import { pointSegment2 } from "../../geometry/segment.ts";
import { orGivenUp, Work } from "../../geometry/work.ts";
import type { Role, Side } from "../../role/role.ts";
import type { BoardFile, BoardSet } from "../board-file.ts";
import { isIn } from "../copper/coats.ts";
import { analyseLayer, cutoutRings, edgeRings, type LayerSolids } from "../copper/copper.ts";
import { chainOutline } from "../outline/outline.ts";
import { layerName } from "./measure-keys.ts";

/** What a layer has at a place. */
export interface LayerAtPlace {
  readonly role: "copper" | "mask" | "paste" | "legend";
  readonly side: Side;
  /** "copper top", "mask bottom". */
  readonly name: string;
  /** Share of the place its image covers: copper and ink that are there, mask and stencil that are open. */
  readonly share: number;
}

/** What the files make of a round place of the board. */
export interface PlaceReading {
  readonly layers: readonly LayerAtPlace[];
  /** Shares of the place that are board, and that are drilled, plated and not. */
  readonly board?: number;
  readonly drilled: number;
  readonly platedShare: number;
  /** Layers that took more steps than a board needs: nothing is known of them. */
  readonly givenUp: readonly string[];
}

/** Points across the place. */
const GRID = 25;
const MOST_STEPS = 400_000_000;

/** Reads every layer of a board at one round place. */
export type PlaceReader = (
  at: { readonly x: number; readonly y: number },
  diameterMm: number,
) => PlaceReading;

/**
 * Reads every layer at round places: how much of each is copper, open mask, paste, ink, hole and board. The layers are
 * analysed once, whatever the number of places.
 *
 * Shares of some 490 points of a square grid inside the circle: exact to about a hundredth, to four
 * where a straight edge lies along one of its lines.
 *
 * @returns what reads one place: its middle, mm as in the files, and how wide it is
 */
export function placeReader(set: BoardSet): PlaceReader {
  const layers: (Omit<LayerAtPlace, "share"> & { readonly solids: LayerSolids })[] = [];
  const givenUp: string[] = [];
  for (const f of set.files) {
    if (!f.layer || !isLayer(f.role) || !f.side) continue;
    const name = f.role === "copper" ? `copper ${layerName(f)}` : `${f.role} ${f.side}`;
    const solids = orGivenUp(
      () => analyseLayer(f.layer!, name, new Work(MOST_STEPS)),
      () => undefined,
    );
    if (solids) layers.push({ role: f.role, side: f.side, name, solids });
    else givenUp.push(name);
  }
  const outline = outlineOf(set.files);
  return (at, diameterMm) => {
    const points = grid(at, diameterMm);
    const share = (covers: (x: number, y: number) => boolean) =>
      Math.round((points.filter(([x, y]) => covers(x, y)).length / points.length) * 1000) / 1000;
    return {
      layers: layers.map(({ solids, ...l }) => ({ ...l, share: share((x, y) => isIn(solids, x, y)) })),
      ...(outline ? { board: share((x, y) => insideRings(outline, x, y)) } : {}),
      drilled: share((x, y) => set.files.some((f) => isDrilled(f, x, y, false))),
      platedShare: share((x, y) => set.files.some((f) => isDrilled(f, x, y, true))),
      givenUp,
    };
  };
}

/** As {@link placeReader}, of one place. */
export const readPlace = (
  set: BoardSet,
  at: { readonly x: number; readonly y: number },
  diameterMm: number,
): PlaceReading => placeReader(set)(at, diameterMm);

const isLayer = (role: Role): role is LayerAtPlace["role"] =>
  role === "copper" || role === "mask" || role === "paste" || role === "legend";

function grid({ x, y }: { readonly x: number; readonly y: number }, diameterMm: number): [number, number][] {
  const out: [number, number][] = [];
  for (let i = 0; i < GRID; i++)
    for (let k = 0; k < GRID; k++) {
      const [u, v] = [(2 * i + 1) / GRID - 1, (2 * k + 1) / GRID - 1];
      if (u * u + v * v < 1) out.push([x + (u * diameterMm) / 2, y + (v * diameterMm) / 2]);
    }
  return out;
}

function outlineOf(files: readonly BoardFile[]): readonly (readonly number[])[] | undefined {
  const profile = files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer && chainOutline(profile.layer, profile.path);
  return outline?.isClosed ? [...edgeRings(outline), ...cutoutRings(outline)] : undefined;
}

function isDrilled(f: BoardFile, x: number, y: number, isPlated: boolean): boolean {
  if (f.role !== "drill" || !f.drill) return false;
  const counts = (plated: boolean | undefined) =>
    ((f.plated === "mixed" || f.plated === undefined ? plated : f.plated) ?? true) === isPlated;
  return (
    f.drill.hits.some((h) => counts(h.plated) && Math.hypot(h.x - x, h.y - y) <= h.diameterMm / 2) ||
    f.drill.routs.some(
      (r) =>
        counts(r.plated) &&
        r.points.some(
          ([bx, by], i) =>
            i > 0 &&
            pointSegment2(x, y, r.points[i - 1]![0], r.points[i - 1]![1], bx, by) <= (r.widthMm / 2) ** 2,
        ),
    )
  );
}
