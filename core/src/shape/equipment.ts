import { day, fields, list, matching, maybe, number, oneOf, text, tuple } from "./shape.ts";

/** Kinds of machines and tools a shop may list. */
export const EQUIPMENT_KINDS = [
  "plate",
  "oven",
  "air",
  "iron",
  "eyes",
  "washer",
  "programmer",
  "supply",
  "meter",
  "printer",
  "scanner",
  "paste",
  "wire",
  "flux",
  "cleaner",
  "other",
] as const;

export const TIP_SHAPES = ["cone", "chisel", "bevel", "knife"] as const;

const mm = number(1, 5000);

/** What a machine can, as far as it is said; which of it a kind has stands in `EQUIPMENT`. */
export const equipmentFactsShape = fields({
  /** Room for boards, mm. */
  spaceMm: maybe(tuple(mm, mm)),
  heightMm: maybe(mm),
  mostC: maybe(number(20, 1000)),
  control: maybe(oneOf("profile", "thermostat", "eye")),
  tips: maybe(list(fields({ shape: oneOf(...TIP_SHAPES), mm: number(0.1, 20) }), 40)),
  cleans: maybe(oneOf("water", "solvent", "both")),
  magnifies: maybe(number(1, 200)),
  /** What it is called where machines are asked over the network. */
  asked: maybe(matching(/^[a-z0-9][a-z0-9-]{0,39}$/, "a name of small letters, digits and hyphens")),
  /** Of what goes off: its alloy, the day on its label, when it was opened, and for how many days it is good from then. */
  alloy: maybe(oneOf("lead", "silver", "bismuth")),
  keepsUntil: maybe(day),
  openedOn: maybe(day),
  openDays: maybe(number(1, 3650)),
  /** What it shows is to be held against a standard by this day. */
  trueUntil: maybe(day),
});

/** What a shop says of a machine, field by field. */
export const EQUIPMENT_SHAPES = {
  kind: oneOf(...EQUIPMENT_KINDS),
  name: text(120, 1),
  facts: equipmentFactsShape,
  can: text(300),
  cannot: text(300),
  hours: number(0, 1e6),
  state: oneOf("ready", "broken"),
} as const;

/** A machine in a document. */
export const equipmentShape = fields({
  id: text(60, 1),
  ...EQUIPMENT_SHAPES,
  lastsHours: maybe(number(1, 1e6)),
});
