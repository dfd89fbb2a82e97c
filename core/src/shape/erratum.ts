import { LONGEST_EVIDENCE, LONGEST_TITLE } from "./lesson.ts";
import {
  both,
  type DataShape,
  day,
  fields,
  flag,
  mapOf,
  maybe,
  number,
  oneOf,
  text,
  tuple,
} from "./shape.ts";

/** What it does where nothing is done about it: the board does not work, works worse, only looks wrong. */
export const ERRATUM_HARMS = ["stops", "worse", "looks"] as const;
/** How it is worked around on a board that has it. */
export const ERRATUM_WAYS = ["none", "wire", "cut", "part", "program", "other"] as const;
/** What was decided for another revision: mended in it, left in it, or nothing it has any more. */
export const ERRATUM_DECISIONS = ["fixed", "stays", "gone"] as const;

const coordinate = number(-10_000, 10_000);

/** Where on the board it is: a part, a pin, or a round place from the lower left corner; neither: the board as a whole. */
export const erratumSpotShape: DataShape = both(
  fields({
    board: maybe(text(200, 1)),
    ref: maybe(text(80, 1)),
    at: maybe(tuple(coordinate, coordinate)),
    side: oneOf("top", "bottom"),
    diameterMm: number(0.05, 200),
  }),
  (v, path) => {
    const s = v as { ref?: unknown; at?: unknown };
    return s.ref !== undefined && s.at !== undefined ? `${path} says its place twice` : undefined;
  },
);

const decision = fields({ is: oneOf(...ERRATUM_DECISIONS), because: text(500), on: day });
/** Id of a revision → what was decided for it. */
export const decisionsShape: DataShape = mapOf(decision, 200);

/** What a shop says of an erratum, field by field. */
export const ERRATUM_SHAPES = {
  title: text(LONGEST_TITLE, 1),
  effect: text(1000),
  harm: oneOf(...ERRATUM_HARMS),
  spot: erratumSpotShape,
  way: oneOf(...ERRATUM_WAYS),
  workaround: text(1000),
  minutes: number(0, 10_000),
  planned: text(120),
  evidence: text(LONGEST_EVIDENCE),
  foundOn: day,
} as const;

/** An erratum in a run's document. */
export const runErratumShape = (places: DataShape): DataShape =>
  fields({
    id: text(80, 1),
    ...ERRATUM_SHAPES,
    minutes: maybe(ERRATUM_SHAPES.minutes),
    foundIn: text(40),
    isHere: flag,
    decision: maybe(decision),
    before: maybe(places),
    corner: maybe(tuple(number(-1e6, 1e6), number(-1e6, 1e6))),
  });
