import { LIMITS } from "../fab/measures.ts";
import {
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
const option = fields({
  value: text(60, 1),
  label: text(200),
  uplift: maybe(number(-1, 100)),
  setup: maybe(money),
  perDm2: maybe(money),
  days: maybe(number(0, 1000)),
});
const options = list(option, 60, 1);
const byLayers = mapOf(money, 40, /^\d{1,3}$/);

const LIMIT_SHAPES = { mm, ratio: number(0, 1000), sides: tuple(mm, mm) } as const;
/** The limits of a profile, as the one table of limits has them. */
const limitsShape = fields(
  Object.fromEntries(
    Object.entries(LIMITS).map(([key, { kind, isOptional }]) => [
      key,
      isOptional ? maybe(LIMIT_SHAPES[kind]) : LIMIT_SHAPES[kind],
    ]),
  ),
);

/** A house's profile: what it can make, what it charges. */
export const houseShape: DataShape = fields({
  name: text(200, 1),
  about: text(2000),
  currency,
  checkedOn: day,
  limits: limitsShape,
  layers: list(whole(1, 100), 60, 1),
  options: fields({ thickness: options, copper: options, finish: options, mask: options, legend: options }),
  price: fields({
    setup: byLayers,
    perDm2: byLayers,
    minDm2: number(0, 1e6),
    tiers: list(fields({ fromDm2: number(0, 1e6), factor }), 60),
    testSetup: money,
    testPerPiece: money,
    freeHolesPerDm2: number(0, 1e6),
    per1000Holes: money,
    lead: list(fields({ days: whole(0, 1000), factor }), 60, 1),
    freightBase: money,
    freightPerHalfKg: money,
    transitDays: number(0, 1000),
    delaySigmaDays: number(0, 1000),
    step: whole(1, 1e6),
    minPieces: whole(0, 1e6),
    importHandling: money,
  }),
  assembly: maybe(
    fields({
      setupPerSide: money,
      stencilPerSide: money,
      perUniquePart: money,
      perSpecialPart: maybe(money),
      perJoint: money,
      perHandJoint: money,
      minCharge: money,
      days: number(0, 1000),
      takes: maybe(oneOf("strips", "reels")),
      leaderMm: maybe(number(0, 2000)),
    }),
  ),
});
