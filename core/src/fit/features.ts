import type { Measure } from "../board/measure-document.ts";

/** A hole of a board that something may go through. */
export interface HoleFeature {
  readonly kind: "hole";
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly plated: boolean;
}
/** A slot of a board that something may go into. */
export interface SlotFeature {
  readonly kind: "slot";
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly plated: boolean;
}

/** Smaller holes are not for screws and posts, mm. */
const LEAST_HOLE_MM = 1.5;

/** Lower left corner of a board: what is picked is remembered from there, so that another origin is no change. */
export const cornerOf = (m: Measure): readonly [number, number] => [
  m.extentMm?.[0] ?? 0,
  m.extentMm?.[1] ?? 0,
];

type DrillRow = NonNullable<Measure["drillTable"]>[number];

/** Holes of the tools that may be meant, at the places the measure keeps: the first twenty of each. */
const holesWhere = (m: Measure, isMeant: (r: DrillRow) => boolean): PinFeature[] =>
  (m.drillTable ?? [])
    .filter((r) => r.slots === 0 && isMeant(r))
    .flatMap((r) =>
      r.at.map(
        ({ x, y }): PinFeature => ({
          kind: "hole",
          x,
          y,
          diameterMm: r.diameterMm,
          plated: r.plated,
          count: r.holes,
        }),
      ),
    );

/** Holes a post may go through. */
export const holesOf = (m: Measure): HoleFeature[] => holesWhere(m, (r) => r.diameterMm >= LEAST_HOLE_MM);

/** Holes of one tool a pin may go into, at the first of them whose places are kept. */
export interface PinFeature extends HoleFeature {
  readonly count: number;
}

/** Holes for pins, mm: smaller ones are vias, larger ones are for screws. */
const PIN_HOLES_MM = [0.5, 2.5] as const;

/** Plated holes a pin may go into; each of its places stands for all holes of its tool. */
export const pinHolesOf = (m: Measure): PinFeature[] =>
  holesWhere(m, (r) => r.plated && r.diameterMm >= PIN_HOLES_MM[0] && r.diameterMm <= PIN_HOLES_MM[1]);

/** Slots a tab may go into. */
export const slotsOf = (m: Measure): SlotFeature[] =>
  m.slots.map((s) => ({
    kind: "slot",
    x: (s.from[0] + s.to[0]) / 2,
    y: (s.from[1] + s.to[1]) / 2,
    widthMm: s.widthMm,
    lengthMm: s.lengthMm,
    plated: s.plated,
  }));

/** How far a feature may lie from where it was picked and still be it, mm. */
const SAME_MM = 3;

/** The feature nearest to a place remembered from the board's corner, if one is near enough. */
export function featureAt<T extends { readonly x: number; readonly y: number }>(
  m: Measure,
  list: readonly T[],
  [dx, dy]: readonly [number, number],
): T | undefined {
  const [x, y] = [cornerOf(m)[0] + dx, cornerOf(m)[1] + dy];
  const way = (f: T) => Math.hypot(f.x - x, f.y - y);
  const best = list.reduce<T | undefined>((b, f) => (b && way(b) <= way(f) ? b : f), undefined);
  return best && way(best) <= SAME_MM ? best : undefined;
}
