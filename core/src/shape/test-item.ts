import { fields, list, matching, maybe, number, oneOf, text, whole } from "./shape.ts";

/** How far a board is when something is tried on it, in the order in which it comes to that. */
export const TEST_STATES = ["bare", "powered", "programmed", "housed"] as const;
/** What a reading may be in. */
export const TEST_UNITS = [
  "V",
  "mV",
  "A",
  "mA",
  "µA",
  "Ω",
  "kΩ",
  "MΩ",
  "W",
  "mW",
  "Hz",
  "kHz",
  "MHz",
  "s",
  "ms",
  "µF",
  "nF",
  "µH",
  "°C",
  "%",
  "lx",
  "klx",
  "pieces",
] as const;

const decimal = matching(/^-?\d{1,12}(\.\d{1,9})?$/, "a decimal number");
/** Decimal text of a reading. */
export const READING = /^-?\d{1,15}(\.\d{1,20})?$/;
export const readingShape = matching(READING, "a reading");

const names = list(text(80), 200);
/** What makes an item one that is tried besides the bench. */
export const besidesShape = fields({
  days: maybe(whole(1, 3650)),
  where: maybe(text(120, 1)),
  boards: maybe(whole(1, 1000)),
});
const above = matching(/^(?!0+(\.0+)?$)\d{1,6}(\.\d{1,6})?$/, "a number above nothing");
/** What an output is tried with, and what is in its path. */
export const loadShape = fields({
  volts: above,
  kind: oneOf("direct", "alternating"),
  amps: above,
  share: maybe(number(0.05, 1)),
  ratings: list(fields({ what: text(60, 1), amps: above }), 20),
  isolation: maybe(fields({ what: text(60, 1), kilovolts: above })),
});
/** What is applied while it is read, and of what line it is a point. */
export const pointShape = fields({
  of: text(60, 1),
  applied: decimal,
  unit: oneOf(...TEST_UNITS),
  worst: maybe(above),
  most: maybe(decimal),
  days: maybe(whole(1, 3650)),
  form: maybe(oneOf("pieces")),
});
/** One item of a test plan. */
export const testItemShape = fields({
  id: text(60, 1),
  name: text(120, 1),
  state: oneOf(...TEST_STATES),
  drives: names,
  reads: names,
  through: names,
  expect: text(200),
  minutes: number(0, 600),
  unit: maybe(oneOf(...TEST_UNITS)),
  min: maybe(decimal),
  max: maybe(decimal),
  guard: maybe(decimal),
  absent: maybe(names),
  because: maybe(text(400)),
  besides: maybe(besidesShape),
  load: maybe(loadShape),
  point: maybe(pointShape),
});
