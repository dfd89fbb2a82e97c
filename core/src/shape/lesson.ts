import { MEASURES } from "../fab/measures.ts";
import { type DataShape, day, fields, list, matching, maybe, number, oneOf, text, tuple } from "./shape.ts";

/** What is done where a lesson does not hold: the order is stopped, or somebody has to look. */
export const LESSON_LEVELS = ["error", "warning"] as const;
/** How sure it is that this was the cause. */
export const LESSON_SURE = ["certain", "likely", "suspected"] as const;
/** What may be wanted of a row of contacts at the edge. */
export const CONTACT_WANTS = ["mask", "bars", "setback"] as const;
/** Letters of parts of which it can be seen whether they tell their direction. */
export const ONE_WAY_LETTERS = ["D", "LED", "U", "IC", "Q", "BT", "C"] as const;
/** Pins of a land pattern that is remembered, and pins that are looked at. */
export const MOST_LESSON_PINS = 200;

const spot = tuple(number(-10_000, 10_000), number(-10_000, 10_000));
const pin = text(80, 1);
const named = { id: text(80, 1), name: text(200, 1) };

const KINDS: Readonly<Record<string, DataShape>> = {
  measure: fields({
    kind: oneOf("measure"),
    key: oneOf(...MEASURES.map((m) => m.key)),
    limit: number(0, 1000),
  }),
  slot: fields({ kind: oneOf("slot"), at: spot, leastMm: number(0.01, 1000) }),
  place: fields({
    kind: oneOf("place"),
    what: oneOf("solder", "contact", "copper", "window", "drawing", "cutout"),
    side: oneOf("top", "bottom"),
    diameterMm: number(0.05, 200),
    at: maybe(spot),
    pins: maybe(list(pin, MOST_LESSON_PINS, 1)),
  }),
  marked: fields({ kind: oneOf("marked"), letters: oneOf(...ONE_WAY_LETTERS) }),
  pattern: fields({
    kind: oneOf("pattern"),
    letters: matching(/^[A-Z]{1,8}$/, "the letters of a reference"),
    pins: list(pin, MOST_LESSON_PINS, 2),
    at: list(spot, MOST_LESSON_PINS, 2),
  }),
  contacts: fields({
    kind: oneOf("contacts"),
    what: oneOf(...CONTACT_WANTS),
    leastMm: maybe(number(0, 100)),
  }),
  part: fields({
    kind: oneOf("part"),
    mpn: text(120, 1),
    made: maybe(fields({ from: maybe(day), to: maybe(day) })),
  }),
  lot: fields({ kind: oneOf("lot"), ...named }),
  house: fields({ kind: oneOf("house"), ...named }),
  machine: fields({ kind: oneOf("machine"), ...named, person: maybe(text(200, 1)) }),
  program: fields({ kind: oneOf("program"), name: text(120, 1), version: text(80) }),
  asked: fields({ kind: oneOf("asked") }),
};

/** Every kind of check. */
export const LESSON_KINDS = Object.keys(KINDS);

/** What a lesson looks at, whichever kind it is; what contradicts itself is said. */
export const lessonCheckShape: DataShape = (v, path) => {
  const { kind } = (typeof v === "object" && v !== null ? v : {}) as { kind?: unknown };
  if (typeof kind !== "string" || !Object.hasOwn(KINDS, kind))
    return `${path}.kind is one of ${LESSON_KINDS.join(", ")}`;
  return KINDS[kind]!(v, path) ?? contradiction(v as Readonly<Record<string, unknown>>, path);
};

function contradiction(c: Readonly<Record<string, unknown>>, path: string): string | undefined {
  if (c.kind === "place" && (c.at === undefined) === (c.pins === undefined))
    return `${path} says its place ${c.at === undefined ? "not at all" : "twice"}`;
  if (c.kind === "part" && c.made !== undefined) {
    const { from, to } = c.made as { readonly from?: string; readonly to?: string };
    if (from === undefined && to === undefined) return `${path}.made says neither a first nor a last day`;
    if (from !== undefined && to !== undefined && from > to) return `${path}.made ends before it begins`;
  }
  if (c.kind === "pattern") {
    const pins = c.pins as readonly string[];
    if (pins.length !== (c.at as unknown[]).length)
      return `${path} has another number of pins than of places`;
    if (new Set(pins).size < pins.length) return `${path} has one of its pins twice`;
  }
  if (c.kind === "contacts" && (c.what === "setback") !== (c.leastMm !== undefined))
    return `${path} says ${c.what === "setback" ? "no" : "a"} length`;
  return undefined;
}

/** Products that are let off, each with the reason. */
export const relaxedShape: DataShape = list(fields({ product: text(80, 1), because: text(500, 1) }), 500);

/** Letters a lesson's or an erratum's sentence may have, and those of what was seen: all that somebody wrote of a fault. */
export const LONGEST_TITLE = 200;
export const LONGEST_EVIDENCE = 3000;

/** What a shop says of a lesson, field by field. */
export const LESSON_SHAPES = {
  title: text(LONGEST_TITLE, 1),
  check: lessonCheckShape,
  level: oneOf(...LESSON_LEVELS),
  sure: oneOf(...LESSON_SURE),
  came: text(300),
  evidence: text(LONGEST_EVIDENCE),
  since: day,
} as const;

/** A lesson in a run's document. */
export const runLessonShape: DataShape = fields({
  id: text(80, 1),
  ...LESSON_SHAPES,
  relaxedBecause: maybe(text(500, 1)),
});
