/** Signs of money and the currencies each may mean. */
const SIGNS: Readonly<Record<string, readonly string[]>> = {
  "€": ["EUR"],
  "£": ["GBP"],
  "₩": ["KRW"],
  "₹": ["INR"],
  "¥": ["JPY", "CNY"],
  $: ["USD", "CAD", "AUD", "NZD", "SGD", "HKD", "TWD", "MXN"],
};
const CODES: ReadonlySet<string> = new Set(Intl.supportedValuesOf("currency"));
const SIGN = /[€£₩₹¥$]/;
/** Three capital letters by themselves, beside digits too: "0.12EUR". */
const CODE = /(?<![A-Za-z])[A-Z]{3}(?![A-Za-z])/g;

/** The currency a text states that is not the one it should be; nothing where it states none, or that one. */
export function otherCurrency(text: string, currency: string): string | undefined {
  const code = text.match(CODE)?.find((c) => CODES.has(c));
  if (code !== undefined) return code === currency ? undefined : code;
  const sign = SIGN.exec(text)?.[0];
  const means = sign === undefined ? [] : SIGNS[sign]!;
  if (sign === undefined || means.includes(currency)) return undefined;
  return means.length === 1 ? means[0] : sign;
}

/** Whether a word or sign alone stands for a currency: "EUR", "€", "Euro". */
export const meansCurrency = (text: string, currency: string): boolean => {
  const t = text.trim();
  if (t.toUpperCase() === currency || SIGNS[t]?.includes(currency)) return true;
  return new Intl.DisplayNames("en", { type: "currency" }).of(currency)?.toLowerCase() === t.toLowerCase();
};

/** An amount without its currency and the spaces of its thousands; nothing where the cell is anything else than one amount. */
export function amountIn(cell: string): string | undefined {
  const bare = cell
    .replace(CODE, (c) => (CODES.has(c) ? "" : c))
    .replace(SIGN, "")
    .trim();
  const whole = /^\d{1,3}([ \u00a0\u202f]\d{3})+([.,]\d+)?$/.test(bare)
    ? bare.replace(/[ \u00a0\u202f]/g, "")
    : bare;
  return /^\d[\d.,'’]*$/.test(whole) ? whole : undefined;
}

/** A cell of prices each: the digits as they stand, nothing where it holds none, or why it is no price each. */
export type PriceCell = { readonly price?: string; readonly wrong?: undefined } | { readonly wrong: string };

/** A dash for no price. */
const NONE = /^([-–—]+|n\/?a\.?)?$/i;
const EACH =
  /\s*(?:(?:\/|\b(?:per|je|pro|a)\b|à)\s*(?:1\s*)?)?(?<![A-Za-z])(?:each|ea|pcs?|pieces?|stk|stück|st|units?)\.?$/i;
const NET = /^(?:net|netto|@)\s+|\s+(?:net|netto)$/gi;

/**
 * What a cell says of the price of one piece. Whatever else than one amount in that currency stands in it is handed back as
 * wrong: a price for a hundred, in another currency, below nought or of nought, with a mark or a second number beside it.
 *
 * @param currency what the prices should be in (ISO 4217)
 * @example unitPrice("0,12 €/pc", "EUR") // { price: "0,12" }
 * @example unitPrice("12.00 / 100", "EUR") // { wrong: "“12.00 / 100” is no plain price each" }
 */
export function unitPrice(cell: string, currency: string): PriceCell {
  const text = cell.trim();
  if (NONE.test(text)) return {};
  const other = otherCurrency(text, currency);
  if (other !== undefined) return { wrong: `“${short(text)}” is in ${other}, the offer in ${currency}` };
  const bare = text
    .replace(CODE, (c) => (CODES.has(c) ? " " : c))
    .replace(SIGN, " ")
    .trim()
    .replace(EACH, "")
    .replace(NET, "")
    .trim();
  const amount = amountIn(/^[.,]\d/.test(bare) ? `0${bare}` : bare);
  if (amount === undefined) return { wrong: `“${short(text)}” is no plain price each` };
  return /[1-9]/.test(amount) ? { price: amount } : { wrong: `“${short(text)}” is a price of nothing` };
}

/** Why a heading's prices are not of one piece each in that currency; nothing where they are, or it does not say. */
export function headingWrong(heading: string, currency: string): string | undefined {
  const other = otherCurrency(heading, currency);
  if (other !== undefined) return `“${short(heading.trim())}” is in ${other}, the offer in ${currency}`;
  const per = /(?:\/|\b(?:per|je|pro)\b)\s*(\d[\d.,'’ ]*|hundred|thousand|m\b|c\b|%)/i.exec(heading);
  return per && per[1]!.trim() !== "1" ? `“${short(heading.trim())}” is no price each` : undefined;
}

const short = (text: string): string => (text.length > 30 ? `${text.slice(0, 29)}…` : text);
