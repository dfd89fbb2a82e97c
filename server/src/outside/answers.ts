import type {
  FeedAnswer,
  FeedFound,
  FeedOffer,
  FeedPart,
  FeedSupplier,
  HouseOrderAnswer,
  HouseQuote,
  MeterAnswer,
} from "@kobbin/contract";
import { type House, SAID_BY_HOUSE, shapes } from "@kobbin/core";
import { OutsideError } from "./partners.ts";
import { plainWords } from "./words.ts";

// What may be in an answer of somebody outside. Each is read by a shape with bounds, and only what has a name here is
// taken: what else it holds is passed over, and nothing of it stands in the place of what is ours.

const { fields, list, maybe, text, whole, day, currency } = shapes;
const known = (of: Parameters<typeof fields>[0]) => fields(of, () => undefined);

/** An amount as the tables hold it: nine places before the mark, six behind. */
const AMOUNT = /^\d{1,9}(\.\d{1,6})?$/;
const amount: shapes.Value = (v, path) =>
  (typeof v === "string" || typeof v === "number") && AMOUNT.test(String(v))
    ? undefined
    : `${path} should be an amount like 12.50`;
const pieces = whole(1, 1e9);

const OFFER = known({
  mpn: text(120, 1),
  stock: whole(0, 1e9),
  moq: pieces,
  multiple: pieces,
  packaging: maybe(text(100)),
  fee: maybe(amount),
  currency,
  breaks: list(known({ qty: pieces, price: amount }), 50, 1),
});
/** Offers of one number a supplier may have: cut, reeled, from two stores. */
const MOST_OFFERS = 20;
/** A question names two hundred numbers at most. */
const FEED = known({ offers: list(OFFER, 200 * MOST_OFFERS), notListed: list(text(120), 500) });
const PART = known({
  mpn: text(120, 1),
  maker: text(),
  description: text(1000),
  kind: text(80),
  package: text(),
  params: shapes.mapOf(text(), 100),
});
const FOUND = known({ found: list(known({ id: text(300), parts: list(known({}), 500) }), 50) });
const SOLD = known({ offers: list(OFFER, MOST_OFFERS) });
const QUOTE = known({
  total: amount,
  currency,
  days: whole(0, 1000),
  validUntil: day,
  question: maybe(text(500)),
});
const ORDER = known({
  number: text(60, 1),
  expectedOn: maybe(day),
  said: list(
    known({ key: text(80, 1), state: shapes.oneOf(...SAID_BY_HOUSE), on: day, words: text(2000) }),
    200,
  ),
});

const KEY = /^[a-z0-9][a-z0-9-]{0,39}$/;
const key = shapes.matching(KEY, "a key of letters and digits");
const SUPPLIERS = list(
  known({
    key,
    name: text(120, 1),
    currency,
    shipping: amount,
    freeFrom: maybe(amount),
    daysMin: whole(0, 1000),
    daysMax: whole(0, 1000),
  }),
  50,
);
const HOUSES = list(shapes.both(known({ feedKey: maybe(key) }), shapes.houseShape), 50);

/** @throws OutsideError naming what is wrong with it */
function checked<T>(shape: shapes.Value, value: unknown, what: string): T {
  const wrong = shape(value, "");
  if (wrong) throw new OutsideError(`${what}: ${plainWords(wrong, 120)}.`);
  return value as T;
}

/** Steps by quantity, each once. @throws OutsideError where one quantity has two prices */
function stepsOf(offer: FeedOffer): FeedOffer["breaks"] {
  const steps = new Map<number, string>();
  for (const { qty, price } of offer.breaks) {
    const said = steps.get(qty);
    if (said !== undefined && Number(said) !== Number(price))
      throw new OutsideError(
        `Its answer cannot be used: ${plainWords(offer.mpn, 40)} has two prices at ${qty}.`,
      );
    steps.set(qty, String(price));
  }
  return [...steps].map(([qty, price]) => ({ qty, price })).sort((a, b) => a.qty - b.qty);
}

const offerOf = (o: FeedOffer): FeedOffer => ({
  mpn: o.mpn,
  stock: o.stock,
  moq: o.moq,
  multiple: o.multiple,
  packaging: o.packaging ?? "",
  // a fee of nothing is none
  ...(o.fee !== undefined && Number(o.fee) > 0 ? { fee: String(o.fee) } : {}),
  currency: o.currency,
  breaks: stepsOf(o),
});

/** Each offer once, whatever copies came of it; of one number so many at most. */
function offersOf(list: readonly FeedOffer[]): FeedOffer[] {
  const byText = new Map<string, FeedOffer>();
  const perNumber = new Map<string, number>();
  for (const o of list.map(offerOf)) {
    const key = JSON.stringify(o);
    if (byText.has(key)) continue;
    const n = (perNumber.get(o.mpn) ?? 0) + 1;
    if (n > MOST_OFFERS)
      throw new OutsideError(
        `Its answer cannot be used: it offers ${plainWords(o.mpn, 40)} in more than ${MOST_OFFERS} ways.`,
      );
    perNumber.set(o.mpn, n);
    byText.set(key, o);
  }
  return [...byText.values()];
}

/** What a supplier offers. @throws OutsideError where it is no such answer, or one that cannot be kept */
export function readFeed(value: unknown): FeedAnswer {
  const said = checked<FeedAnswer>(FEED, value, "Its answer cannot be used");
  return { offers: offersOf(said.offers), notListed: [...new Set(said.notListed)] };
}

/**
 * What a supplier has for questions without a number. A part that is not described in a form that can be compared is passed
 * over, which is what its asker would do with it. @throws OutsideError as {@link readFeed}
 */
export function readFound(value: unknown): FeedFound {
  const { found } = checked<FeedFound>(FOUND, value, "Its answer cannot be used");
  const partOf = ({ mpn, maker, description, kind, package: body, params }: FeedPart): FeedPart => ({
    mpn,
    maker,
    description,
    kind,
    package: body,
    params,
  });
  return {
    found: found.map(({ id, parts }) => ({
      id,
      parts: parts
        .filter(({ part }) => PART(part, "") === undefined)
        .map((sold) => ({
          part: partOf(sold.part),
          offers: offersOf(checked<typeof sold>(SOLD, sold, "Its answer cannot be used").offers),
        })),
    })),
  };
}

/** Suppliers as their service introduces them. @throws OutsideError as {@link readFeed} */
export const readSuppliers = (value: unknown): FeedSupplier[] =>
  checked<FeedSupplier[]>(SUPPLIERS, value, "The list of suppliers cannot be used").map((s) => ({
    key: s.key,
    name: s.name,
    currency: s.currency,
    shipping: String(s.shipping),
    ...(s.freeFrom === undefined ? {} : { freeFrom: String(s.freeFrom) }),
    daysMin: s.daysMin,
    daysMax: s.daysMax,
  }));

/** Houses with their profiles as their service introduces them. @throws OutsideError as {@link readFeed} */
export const readHouses = (value: unknown): (Omit<House, "id"> & { feedKey?: string })[] =>
  checked<Record<string, unknown>[]>(HOUSES, value, "The list of houses cannot be used").map(
    (h) =>
      Object.fromEntries(
        ["feedKey", ...Object.keys(shapes.HOUSE_SHAPES)].flatMap((k) =>
          Object.hasOwn(h, k) ? [[k, h[k]]] : [],
        ),
      ) as never,
  );

/** What a house asks for boards. @throws OutsideError where it is no quotation */
export function readQuote(value: unknown): HouseQuote {
  const said = checked<HouseQuote>(QUOTE, value, "Its answer is no quotation");
  return {
    total: String(said.total),
    currency: said.currency,
    days: said.days,
    validUntil: said.validUntil,
    ...(said.question ? { question: said.question } : {}),
  };
}

/** What a house says of an order. @throws OutsideError where it cannot be read */
export function readOrder(value: unknown): HouseOrderAnswer {
  const { number, expectedOn, said } = checked<HouseOrderAnswer>(
    ORDER,
    value,
    "What it says of the order cannot be read",
  );
  const byKey = new Map<string, HouseOrderAnswer["said"][number]>();
  for (const { key, state, on, words } of said) {
    const before = byKey.get(key);
    if (before && (before.state !== state || before.on !== on || before.words !== words))
      throw new OutsideError(
        `What it says of the order cannot be read: “${plainWords(key, 40)}” stands for two things.`,
      );
    byKey.set(key, { key, state, on, words });
  }
  return { number, ...(expectedOn ? { expectedOn } : {}), said: [...byKey.values()] };
}

const METER = known({ shows: text(40, 1), unit: text(12) });
/** What a meter shows; whether it is a number is for who reads it. @throws OutsideError where it is no display */
export function readMeter(value: unknown): MeterAnswer {
  const { shows, unit } = checked<MeterAnswer>(METER, value, "What it shows cannot be read");
  return { shows: plainWords(shows, 40), unit: plainWords(unit, 12) };
}
