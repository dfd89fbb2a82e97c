import { currency, day, fields, list, maybe, money, nullable, number, oneOf, text, whole } from "./shape.ts";

/** A few thousand openings, four numbers each. */
const openings = list(number(-1e6, 1e6), 20_000, 4);
/** Openings by side, as a foil keeps them. */
export const foilOpeningsShape = fields({ top: maybe(openings), bottom: maybe(openings) });

/** What a shop says of a foil, field by field. */
export const FOIL_SHAPES = {
  name: text(120, 1),
  board: text(200, 1),
  foilMm: number(0.03, 0.5),
  form: oneOf("loose", "framed"),
  openings: foilOpeningsShape,
  without: list(text(60, 1), 2000),
  price: money,
  currency,
  madeOn: day,
  prints: whole(0, 1e7),
  place: text(120),
  state: oneOf("ready", "worn", "gone"),
  note: text(500),
} as const;

/** A foil in a document. */
export const foilShape = fields({ id: text(60, 1), ...FOIL_SHAPES, cleanedOn: maybe(nullable(day)) });
