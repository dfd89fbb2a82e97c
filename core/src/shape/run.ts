import { PART_KINDS } from "../library/part.ts";
import { CHOICE_FIELDS, type ChoicePart } from "./choice-fields.ts";
import { equipmentShape } from "./equipment.ts";
import { runErratumShape } from "./erratum.ts";
import { fitRowShape } from "./fit-row.ts";
import { foilShape } from "./foil.ts";
import { houseShape } from "./house.ts";
import { MOST_LESSON_PINS, runLessonShape } from "./lesson.ts";
import { MOST } from "./limits.ts";
import { LINE_FIELDS } from "./line-fields.ts";
import { linkRowShape } from "./link.ts";
import { measureShape } from "./measure.ts";
import { meetRowShape } from "./meeting.ts";
import { PART_FIELDS } from "./part-fields.ts";
import { rightShape } from "./right.ts";
import {
  both,
  currency,
  type DataShape,
  day,
  fields,
  flag,
  list,
  mapOf,
  maybe,
  money,
  number,
  oneOf,
  text,
  whole,
} from "./shape.ts";
import { SHOP_FIELDS, type ShopField } from "./shop-fields.ts";

/** What the files have at a place. */
const placeShare = number(0, 1);
const placeShape = fields({
  layers: list(
    fields({
      role: oneOf("copper", "mask", "paste", "legend"),
      side: oneOf("top", "bottom", "inner"),
      name: text(80),
      share: placeShare,
    }),
    200,
  ),
  board: maybe(placeShare),
  drilled: placeShare,
  platedShare: placeShare,
  givenUp: list(text(80), 200),
});

const learnedShape = list(
  fields({ pin: text(80), x: number(-1e6, 1e6), y: number(-1e6, 1e6), reading: placeShape }),
  MOST_LESSON_PINS,
);

/** What of the shop's settings a document has; its name may be left out, as in documents of before there was one. */
const shopShapes = Object.fromEntries(
  (Object.entries(SHOP_FIELDS) as [string, ShopField][]).flatMap(([key, { document: d }]) =>
    d ? [[key, key === "name" || d.isLeftOut ? maybe(d.shape) : d.shape]] : [],
  ),
);

/** The decisions of one part of a document; each may be left out. */
function decisions(part: ChoicePart): DataShape {
  return fields(Object.fromEntries(Object.entries(CHOICE_FIELDS[part]).map(([k, f]) => [k, maybe(f.shape)])));
}

/** The decisions of the Fab stage. */
export const optionsShape: DataShape = decisions("options");

/** What a quotation was asked for. */
export const quoteBasisShape: DataShape = fields({
  boards: whole(1, 1_000_000),
  options: optionsShape,
  revision: text(40),
  handParts: maybe(oneOf("here", "house")),
  placed: maybe(text(200)),
  sheet: maybe(text(200)),
});

/** How the boards are soldered. */
export const assemblyShape: DataShape = decisions("assembly");

/** The further choices of a run. */
export const choicesShape: DataShape = decisions("choices");

/** What a variant has otherwise, by line. */
export const overridesShape: DataShape = mapOf(
  fields({
    dnp: maybe(flag),
    qty: maybe(number(0, 100_000)),
    valueText: maybe(text(300)),
    mpn: maybe(text(300)),
  }),
  20_000,
);

export const placementShape: DataShape = fields({
  ref: text(80),
  xMm: number(-1e6, 1e6),
  yMm: number(-1e6, 1e6),
  rotationDeg: number(-1e6, 1e6),
  side: oneOf("top", "bottom"),
});

const line = fields({
  id: text(80, 1),
  ...Object.fromEntries(Object.entries(LINE_FIELDS).map(([key, f]) => [key, f.shape])),
});

const offer = fields({
  id: text(80, 1),
  line: text(80),
  supplier: text(80),
  stock: whole(0, 1e12),
  moq: whole(0, 1e9),
  multiple: whole(1, 1e9),
  packaging: maybe(text()),
  currency,
  breaks: list(fields({ qty: whole(0, 1e9), price: money }), 200, 1),
  part: maybe(text(80)),
  leadDays: maybe(whole(0, 10_000)),
  restriction: maybe(text(1000)),
  fee: maybe(money),
  source: oneOf("feed", "typed", "pasted"),
  capturedOn: day,
  validUntil: maybe(day),
});

const supplier = fields({
  id: text(80, 1),
  name: text(200),
  currency,
  shipping: money,
  freeFrom: maybe(money),
  daysMin: whole(0, 10_000),
  daysMax: whole(0, 10_000),
  smallOrder: maybe(fields({ below: money, fee: money })),
  minimumOrder: maybe(money),
  handling: maybe(money),
  dutyRate: maybe(number(0, 10)),
  dutyOnFreight: maybe(flag),
  sourceClass: maybe(oneOf("authorised", "broker", "private", "unknown")),
  includesTax: maybe(flag),
});

/** A part as a supplier's list describes it. */
export const candidateShape: DataShape = fields({
  mpn: text(120, 1),
  maker: text(),
  description: text(1000),
  kind: oneOf(...PART_KINDS),
  package: text(),
  params: mapOf(text(), 100),
  print: text(80),
});

const part = fields({
  id: text(80, 1),
  ...Object.fromEntries(Object.entries(PART_FIELDS).map(([key, f]) => [key, f.shape])),
  found: maybe(flag),
});

const outcome = {
  method: oneOf("iron", "stencil", "house"),
  isMixed: maybe(flag),
  good: whole(0, 1e6),
  scrapped: whole(0, 1e6),
  minutes: number(0, 1e7),
  modelMinutes: number(0, 1e7),
  faults: maybe(
    fields({
      looked: whole(0, 1e6),
      kinds: mapOf(fields({ seen: whole(0, 1e7), expected: number(0, 1e7) }), 20),
      unsorted: whole(0, 1e7),
    }),
  ),
};
/** What came of a closed run. */
export const outcomeShape: DataShape = fields(outcome);

const house = both(houseShape, fields({ id: text(80, 1) }));

/** The document `run/1`. What may be left out in one of an older Kobbin may be left out here. */
export const runShape: DataShape = fields({
  kobbin: oneOf("run/1"),
  goodBoards: whole(1, 100_000),
  confidence: number(0.5, 0.9999),
  name: text(200),
  product: text(200),
  revision: text(80),
  today: day,
  workshop: fields({ currency, ...shopShapes }),
  boards: list(
    fields({
      id: maybe(text(80)),
      name: text(200),
      perProduct: whole(1, 1000),
      archive: maybe(text(1000)),
      measure: measureShape,
      places: maybe(mapOf(placeShape, 500)),
      learned: maybe(mapOf(learnedShape, MOST.lessons + MOST.errata)),
    }),
    MOST.boards,
    1,
  ),
  guests: maybe(
    list(
      fields({
        id: text(80, 1),
        name: text(200),
        product: text(200),
        revision: text(80),
        archive: maybe(text(1000)),
        measure: measureShape,
        parts: maybe(list(both(placementShape, fields({ package: text(300) })), 100_000)),
      }),
      5,
    ),
  ),
  lines: list(line, MOST.lines),
  placements: maybe(list(placementShape, MOST.placements)),
  suppliers: list(supplier, MOST.suppliers),
  offers: list(offer, MOST.offers),
  library: maybe(list(part, MOST.parts)),
  alternates: maybe(
    list(
      fields({
        original: text(400),
        part: text(80),
        state: oneOf("proposed", "approved", "refused"),
        because: text(1000),
        by: text(),
        at: day,
      }),
      MOST.alternates,
    ),
  ),
  fits: maybe(list(fitRowShape, MOST.fits)),
  links: maybe(list(linkRowShape, MOST.links)),
  meetings: maybe(list(meetRowShape, MOST.meetings)),
  foils: maybe(list(foilShape, MOST.foils)),
  rights: maybe(list(rightShape, MOST.rights)),
  equipment: maybe(list(equipmentShape, MOST.equipment)),
  lessons: maybe(list(runLessonShape, MOST.lessons)),
  errata: maybe(list(runErratumShape(learnedShape), MOST.errata)),
  variants: maybe(list(fields({ id: text(80), name: text(200), overrides: overridesShape }), MOST.variants)),
  sums: maybe(
    list(
      fields({
        id: text(80),
        kind: text(40),
        name: text(),
        given: mapOf(text(), 50),
        lines: mapOf(text(80), 50),
        wanted: text(),
        withinPct: number(0, 1000),
      }),
      MOST.sums,
    ),
  ),
  lots: maybe(
    list(
      fields({
        id: text(80),
        mpn: text(),
        qty: whole(),
        place: text(),
        receivedOn: day,
        unitCost: money,
        currency,
        condition: oneOf("new", "opened", "salvaged", "quarantine"),
        made: maybe(text(20, 1)),
        alsoIn: maybe(list(fields({ run: text(200), qty: whole() }), 1000)),
      }),
      MOST.lots,
    ),
  ),
  house: maybe(house),
  houses: maybe(list(house, MOST.houses)),
  quotes: maybe(
    list(
      fields({
        house: text(80),
        kind: oneOf("fab", "assembly"),
        total: money,
        currency,
        days: number(0, 1000),
        capturedOn: day,
        validUntil: maybe(day),
        basis: maybe(quoteBasisShape),
        question: maybe(text(500)),
        answer: maybe(text(500)),
      }),
      1000,
    ),
  ),
  past: maybe(list(fields({ name: text(200), closedOn: day, lesson: maybe(text(2000)), ...outcome }), 1000)),
  madeUp: maybe(list(text(80, 1), 5000)),
  first: maybe(
    fields({
      name: text(200),
      state: oneOf("open", "released", "closed"),
      good: whole(),
      scrapped: whole(),
    }),
  ),
  options: maybe(optionsShape),
  assembly: maybe(assemblyShape),
  choices: maybe(choicesShape),
});
