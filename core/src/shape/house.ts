import {
  BAND_KEYS,
  type Extra,
  type FreightService,
  type House,
  type OptionValue,
  type Promotion,
} from "../fab/house.ts";
import {
  ASSEMBLY_FIELDS,
  BENCH_FIELDS,
  FOIL_FIELDS,
  type HouseField,
  type HouseFieldKind,
  PRICE_FIELDS,
} from "../fab/house-fields.ts";
import { LIMITS } from "../fab/measures.ts";
import { EXTRA_OPTIONS, ORDER_OPTIONS } from "../fab/options.ts";
import { TOLERANCES } from "../fab/tolerances.ts";
import {
  both,
  currency,
  type DataShape,
  day,
  fields,
  list,
  mapOf,
  maybe,
  money,
  number,
  oneOf,
  text,
  tuple,
  whole,
} from "./shape.ts";

const mm = number(0, 1e5);
const factor = number(0, 1000);

const LIMIT_SHAPES = { mm, ratio: number(0, 1000), sides: tuple(mm, mm) } as const;
/** The limits of a profile, as the one table of limits has them; a house states those it does. */
const limitsShape = fields(
  Object.fromEntries(Object.entries(LIMITS).map(([key, { kind }]) => [key, maybe(LIMIT_SHAPES[kind])])),
);

/** What a price may have on top. */
const EXTRA = {
  uplift: maybe(number(-1, 100)),
  setup: maybe(money),
  perDm2: maybe(money),
  days: maybe(number(0, 1000)),
} as const satisfies Record<keyof Extra, DataShape>;
const conditions = list(fields({ key: oneOf(...ORDER_OPTIONS), in: list(text(60, 1), 60, 1) }), 20);
const OPTION_SHAPES = {
  value: text(60, 1),
  label: text(200),
  called: maybe(text(200)),
  when: maybe(conditions),
  limits: maybe(limitsShape),
  ...EXTRA,
} as const satisfies Record<keyof OptionValue, DataShape>;
const options = list(fields(OPTION_SHAPES), 60, 1);
const SERVICE_SHAPES = {
  value: text(60, 1),
  label: text(200),
  base: money,
  perHalfKg: money,
  transitDays: number(0, 1000),
  delaySigmaDays: number(0, 1000),
} as const satisfies Record<keyof FreightService, DataShape>;
const PROMOTION_SHAPES = {
  label: text(200),
  conditions: text(500),
  share: number(0, 1),
  until: maybe(day),
} as const satisfies Record<keyof Promotion, DataShape>;

const FIELD_SHAPES: Readonly<Record<HouseFieldKind, (f: HouseField) => DataShape>> = {
  amount: () => money,
  number: (f) => number(f.least ?? 0, f.most ?? 1e6),
  whole: (f) => whole(f.least ?? 0, f.most ?? 1e6),
  "by layers": () => mapOf(money, 40, /^\d{1,3}$/),
  tiers: () => list(fields({ fromDm2: number(0, 1e6), factor }), 60),
  lead: () => list(fields({ days: whole(0, 1000), factor, when: maybe(conditions) }), 60, 1),
  takes: () => oneOf("strips", "reels"),
  services: () => list(fields(SERVICE_SHAPES), 20),
  turns: () => mapOf(number(-360, 360), 500),
  zeros: () => mapOf(number(-1, 360), 1000),
};
/** What a table of fields describes. */
const described = (table: Readonly<Record<string, HouseField>>): DataShape =>
  fields(
    Object.fromEntries(
      Object.entries(table).map(([key, f]) => {
        const shape = FIELD_SHAPES[f.kind](f);
        return [key, f.isOptional ? maybe(shape) : shape];
      }),
    ),
  );

/** A house's profile, part by part: what it can make, what it charges. */
export const HOUSE_SHAPES = {
  name: text(200, 1),
  about: text(2000),
  currency,
  checkedOn: day,
  limits: limitsShape,
  layers: list(whole(1, 100), 60),
  options: fields({
    thickness: options,
    copper: options,
    finish: options,
    mask: options,
    legend: options,
    ...Object.fromEntries(EXTRA_OPTIONS.map((key) => [key, maybe(options)])),
  }),
  stacks: maybe(list(fields({ layers: list(whole(1, 100), 20, 1), limits: limitsShape }), 20)),
  bands: maybe(list(fields({ limits: list(oneOf(...BAND_KEYS), 20, 1), below: mm, ...EXTRA }), 60)),
  sheet: maybe(fields(Object.fromEntries(ORDER_OPTIONS.map((key) => [key, maybe(text(200))])))),
  remarks: maybe(fields({ label: text(200), most: whole(1, 100_000) })),
  usualOvers: maybe(number(0, 1)),
  promotions: maybe(list(fields(PROMOTION_SHAPES), 20)),
  price: described(PRICE_FIELDS),
  assembly: maybe(described(ASSEMBLY_FIELDS)),
  bench: maybe(described(BENCH_FIELDS)),
  foils: maybe(both(described(FOIL_FIELDS), fields({ largestMm: tuple(mm, mm) }))),
  quotedFor: maybe(list(whole(1, 1e6), 10)),
  tolerances: maybe(
    fields(Object.fromEntries(Object.keys(TOLERANCES).map((key) => [key, maybe(number(0, 10))]))),
  ),
} as const satisfies Record<keyof Omit<House, "id">, DataShape>;

/** A house's profile whole. */
export const houseShape: DataShape = fields(HOUSE_SHAPES);
