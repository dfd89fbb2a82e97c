import type { DiffPlace, MorePlaces } from "../diff-document.ts";
import type { Box } from "../outline/outline-loops.ts";

/** What became of what was there. */
export type DiffKind = DiffPlace["kind"];

/** A place before those near each other are one. */
export interface RawPlace {
  readonly box: Box;
  readonly kind: DiffKind;
  /** Of a hole or an opening: what it was and is across, or how far it moved. */
  readonly wasMm?: number;
  readonly nowMm?: number;
  readonly byMm?: number;
}

/** Places kept of each layer, the largest; and how near two of them are one to a person, mm. */
const MOST_DIFFERENCES = 20;
const ONE_PLACE_MM = 0.5;
/** Boxes that are looked at: of more differences than these nobody asks for the places. */
const MOST_BOXES = 2000;

const micrometres = (v: number) => Math.round(v * 1000) / 1000;
const sideOf = (b: Box) => Math.max(b[2] - b[0], b[3] - b[1]);

/** Places of a layer that are kept, and how many there are beside them. */
export interface Together {
  readonly places: readonly DiffPlace[];
  readonly more?: MorePlaces;
}

/** Boxes near each other as one place, the largest first; of different kinds together they are changed. */
export function together(raw: readonly RawPlace[]): Together {
  const joined: { box: [number, number, number, number]; kind: DiffKind; of: RawPlace[] }[] = [];
  for (const r of [...raw].sort((p, q) => sideOf(q.box) - sideOf(p.box)).slice(0, MOST_BOXES)) {
    const b = r.box;
    const own = joined.find(
      ({ box: o }) =>
        b[0] <= o[2] + ONE_PLACE_MM &&
        b[2] >= o[0] - ONE_PLACE_MM &&
        b[1] <= o[3] + ONE_PLACE_MM &&
        b[3] >= o[1] - ONE_PLACE_MM,
    );
    if (!own) {
      joined.push({ box: [...b], kind: r.kind, of: [r] });
      continue;
    }
    own.box = [
      Math.min(own.box[0], b[0]),
      Math.min(own.box[1], b[1]),
      Math.max(own.box[2], b[2]),
      Math.max(own.box[3], b[3]),
    ];
    if (own.kind !== r.kind) own.kind = "changed";
    own.of.push(r);
  }
  const places = joined
    .sort((p, q) => sideOf(q.box) - sideOf(p.box))
    .slice(0, MOST_DIFFERENCES)
    .map(({ box: [x0, y0, x1, y1], kind, of }) => ({
      x: micrometres((x0 + x1) / 2),
      y: micrometres((y0 + y1) / 2),
      widthMm: micrometres(x1 - x0),
      heightMm: micrometres(y1 - y0),
      kind,
      ...(of.length === 1 ? figuresOf(of[0]!) : {}),
    }));
  if (joined.length <= MOST_DIFFERENCES) return { places };
  const count = joined.length - MOST_DIFFERENCES;
  return { places, more: { count, ...(raw.length > MOST_BOXES ? { isAtLeast: true } : {}) } };
}

const figuresOf = ({ wasMm, nowMm, byMm }: RawPlace) => ({
  ...(wasMm === undefined ? {} : { wasMm: micrometres(wasMm) }),
  ...(nowMm === undefined ? {} : { nowMm: micrometres(nowMm) }),
  ...(byMm === undefined ? {} : { byMm: micrometres(byMm) }),
});
