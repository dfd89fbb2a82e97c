import { type DataShape, fields, list, maybe, money, number, oneOf, text } from "./shape.ts";

const share = number(0, 1);
const MOST_CHANNELS = 200;
const ending: DataShape = (v, path) => {
  const wrong = money(v, path);
  return wrong ?? (Number(v) < 1 ? undefined : `${path} should be an ending below 1, as 0.90`);
};
const above0: DataShape = (v, path) =>
  number(0, 1e9)(v, path) ?? (v === 0 ? `${path} should be above 0` : undefined);

/** One way of selling. */
const channelShape = fields({
  name: text(200),
  feeShare: maybe(share),
  feeFixed: maybe(money),
  feeOn: maybe(oneOf("gross", "net")),
  discount: maybe(
    (v: unknown, path: string) => share(v, path) ?? (v === 1 ? `${path} should be below 1` : undefined),
  ),
  taxIncluded: maybe(oneOf(true, false)),
  margin: maybe(number(-100, 1)),
  list: maybe(money),
});

/** What is said of selling, beside what one costs. @param least channels there must be */
export const pricingFields = (least: number): Readonly<Record<string, DataShape>> => ({
  packing: maybe(money),
  warranty: maybe(money),
  shipping: maybe(money),
  taxRate: maybe(number(0, 10)),
  grid: maybe(list(ending, 100)),
  channels: list(channelShape, MOST_CHANNELS, least),
  // biome-ignore lint/suspicious/noThenProperty: a key of the published form, and nobody waits for a shape
  index: maybe(fields({ then: above0, now: above0, old: money })),
});
