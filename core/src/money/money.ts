import Big from "big.js";
import { AppError } from "../errors.ts";

/**
 * Money as a whole number of millionths of a currency unit.
 *
 * Unit prices have at most six decimals, so a price and any quantity times a price are exact integers;
 * a double holds them exactly below 2^53, that is below 9 thousand million units of the currency.
 */
export type Micros = number & { readonly __micros: unique symbol };

const LIMIT = 9_000_000_000;

/** Zero money. */
export const ZERO = 0 as Micros;

/**
 * Reads a decimal text (or a number out of JSON) exactly.
 *
 * @param text "0.0155", "12", 0.2; at most six decimals count, further ones are rounded half away from zero
 * @throws AppError NOT_A_NUMBER, OUT_OF_RANGE (beyond ±9·10^9)
 * @example toMicros("0.0155") // 15500
 */
export function toMicros(text: string | number): Micros {
  // as nearly every price is written: whole numbers, exact below the bound
  const plain = PLAIN.exec(typeof text === "number" ? String(text) : text);
  if (plain) {
    const micros = Number(plain[2]) * 1e6 + Number((plain[3] ?? "").padEnd(6, "0"));
    return (plain[1] === "-" && micros !== 0 ? -micros : micros) as Micros;
  }
  let value: Big;
  try {
    value = new Big(typeof text === "number" ? String(text) : text.trim());
  } catch {
    throw new AppError("NOT_A_NUMBER", `“${text}” is not an amount of money.`, "Write it like 12.50.");
  }
  if (value.abs().gt(LIMIT))
    throw new AppError(
      "OUT_OF_RANGE",
      `${text} is more money than Kobbin counts.`,
      "Check the decimal mark.",
    );
  return value.times(1e6).round(0, Big.roundHalfUp).toNumber() as Micros;
}

/** A price of at most nine digits before the mark and six after it: below {@link LIMIT}. */
const PLAIN = /^(-?)(\d{1,9})(?:\.(\d{1,6}))?$/;

/** The exact decimal text, without trailing zeros: 15500 → "0.0155". */
export function microsToText(micros: number): string {
  return new Big(micros).div(1e6).toFixed();
}

/** As a plain number for JSON and charts; exact to the double nearest to the decimal. */
export function microsToNumber(micros: number): number {
  // a quotient of whole numbers below 2^53 is rounded once, to the double nearest to it
  return Math.round(micros) / 1e6;
}

const PLACES = new Map<string, number>();
/** Places after the decimal mark of a currency (ISO 4217, as the language has it; 2 where it knows no such currency). */
export function placesOf(currency: string): number {
  let places = PLACES.get(currency);
  if (places === undefined) {
    if (!/^[A-Za-z]{3}$/.test(currency)) return 2;
    const format = new Intl.NumberFormat("en", { style: "currency", currency });
    places = format.resolvedOptions().maximumFractionDigits!;
    PLACES.set(currency, places);
  }
  return places;
}

/** Rounds to the currency's places, half away from zero: what documents print and houses charge. */
export function roundMoney(micros: number, currency: string): Micros {
  return new Big(Math.round(micros))
    .div(1e6)
    .round(placesOf(currency), Big.roundHalfUp)
    .times(1e6)
    .toNumber() as Micros;
}

/**
 * Converts a price by an exchange rate; the result is a unit price of six places again.
 *
 * @param micros price in the foreign currency
 * @param rate units of the shop's currency for one foreign unit, a decimal text
 * @example convertMicros(toMicros("142.50"), "0.9215") // 131313750, 131.31 on a document (EX 4.4)
 */
export function convertMicros(micros: number, rate: string): Micros {
  if (rate === "1") return micros as Micros;
  return new Big(micros).times(rate).round(0, Big.roundHalfUp).toNumber() as Micros;
}
