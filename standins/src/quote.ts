import type { House, HouseQuote, HouseRequest } from "@kobbin/contract";
import { chance } from "./catalogue.ts";

/** A real house's price is never quite that of its published list: up to so much less or more. */
const DRIFT = 0.06;
/** Days its answer holds. */
const VALID_DAYS = 14;

const cents = (v: number) => Math.round(v * 100) / 100;

/** The values of its lists that are asked for; the first of a list where none is. */
function chosenOf(house: Omit<House, "id">, o: HouseRequest["options"]) {
  const wished: Readonly<Partial<Record<string, unknown>>> = { ...o };
  return Object.entries(house.options).map(
    ([key, list]) => list.find((v) => v.value === wished[key]) ?? list[0]!,
  );
}

/** Days a house makes it for: its lead time and what the chosen values take longer. */
export const daysMade = (house: Omit<House, "id">, o: HouseRequest["options"]): number =>
  o.leadDays + chosenOf(house, o).reduce((n, v) => n + (v.days ?? 0), 0);

/** What a house charges for a number of one board, by its own list. */
function boardsPrice(
  house: Omit<House, "id">,
  b: HouseRequest["boards"][number],
  o: HouseRequest["options"],
): number {
  const p = house.price;
  const layers = String(b.layers <= 2 ? 2 : b.layers);
  const chosen = chosenOf(house, o);
  const dm2 = (b.widthMm * b.heightMm * b.pieces) / 1e4;
  const billed = Math.max(dm2, p.minDm2);
  const tier = [...p.tiers].reverse().find((t) => billed >= t.fromDm2)?.factor ?? 1;
  const uplift = chosen.reduce((s, v) => s + (v.uplift ?? 0), 0);
  const perDm2 = chosen.reduce((s, v) => s + Number(v.perDm2 ?? 0), 0);
  const setup = chosen.reduce((s, v) => s + Number(v.setup ?? 0), 0);
  const lead = p.lead.find((l) => l.days === o.leadDays) ?? p.lead[0]!;
  const test = o.test === "none" ? 0 : Number(p.testSetup) + b.pieces * Number(p.testPerPiece);
  return (
    (Number(p.setup[layers] ?? 0) +
      setup +
      test +
      billed * (Number(p.perDm2[layers] ?? 0) * (1 + uplift) + perDm2) * tier) *
    lead.factor
  );
}

/** What it asks back after a look at the files; nothing where all is plain. */
export function questionOf(house: Omit<House, "id">, b: HouseRequest["boards"][number]): string | undefined {
  const { minLegendTextMm: text, minMaskWebMm: web } = house.limits;
  if (text !== undefined && b.legendTextMm !== undefined && b.legendTextMm < text)
    return `Silkscreen letters of ${b.legendTextMm} mm are below the ${text} mm we print well. Shall we print them as they are, or will you send larger ones?`;
  if (web !== undefined && b.maskWebMm !== undefined && b.maskWebMm < web)
    return `Mask webs of ${b.maskWebMm} mm may come off. May we open the mask between those pads?`;
  return undefined;
}

/** A house's answer to a request: its price, slightly other than the list, its days, how long it holds, and what it asks back. */
export function quoteFor(
  key: string,
  house: Omit<House, "id">,
  request: HouseRequest,
  seed: string,
  day: string,
): HouseQuote {
  const drift =
    1 +
    DRIFT * (2 * chance(`${seed} ${key} ${day} ${JSON.stringify(request.boards.map((b) => b.pieces))}`) - 1);
  const p = house.price;
  const boards = request.boards.reduce((n, b) => n + boardsPrice(house, b, request.options), 0);
  const grams = request.boards.reduce(
    (n, b) =>
      n + (b.pieces * b.widthMm * b.heightMm * Number.parseFloat(request.options.thickness) * 1.9) / 1000,
    0,
  );
  const service = p.services?.find((s) => s.value === request.options.freight);
  const halfKgs = Math.ceil((grams / 1000 + 0.15) / 0.5);
  const freight =
    Number(service?.base ?? p.freightBase) + halfKgs * Number(service?.perHalfKg ?? p.freightPerHalfKg);
  const question = request.boards.map((b) => questionOf(house, b)).find((q) => q !== undefined);
  return {
    total: cents(boards * drift + freight + Number(p.importHandling)).toFixed(2),
    currency: house.currency,
    days: daysMade(house, request.options) + (service?.transitDays ?? p.transitDays) + (drift > 1.03 ? 1 : 0),
    validUntil: new Date(Date.parse(day) + VALID_DAYS * 86_400_000).toISOString().slice(0, 10),
    ...(question ? { question } : {}),
  };
}
