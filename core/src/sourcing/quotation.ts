import { numberKey } from "../bom/number.ts";
import { headingWrong, meansCurrency, otherCurrency, unitPrice } from "../money/price-cell.ts";
import { decimalMark, isOpenPrice, type MarkReading, plainPrice } from "../money/price-text.ts";
import { type Cells, type ColumnWords, findHeader } from "../table/columns.ts";

/** What a column of a supplier's quotation may hold. */
export type QuotationColumn = "mpn" | "qty" | "price" | "stock" | "moq" | "multiple" | "lead";

const WORDS: ColumnWords<QuotationColumn> = {
  mpn: [
    "part number",
    "mpn",
    "manufacturer part number",
    "number",
    "part no",
    "article",
    "item",
    "artikel",
    "teilenummer",
    "part",
  ],
  qty: [
    "quantity",
    "qty",
    "from",
    "break",
    "price break",
    "menge",
    "ab",
    "staffel",
    "pcs",
    "quote qty",
    "quoted quantity",
  ],
  price: ["unit price", "price each", "price", "each", "einzelpreis", "preis", "net price", "prix", "precio"],
  stock: ["stock", "available", "in stock", "on hand", "bestand", "verfügbar", "availability"],
  moq: ["minimum", "moq", "minimum order", "min order", "mindestmenge", "least order"],
  multiple: ["multiple", "step", "pack", "pack size", "spq", "vpe"],
  lead: ["lead time", "lead", "delivery", "days", "lieferzeit"],
};

/** Where a quotation's columns are. A column of prices may be headed by its quantity: "100", "100+", "from 100". */
export interface QuotationLayout {
  readonly at: Partial<Record<QuotationColumn, number>>;
  /** Column → the quantity its prices are for. */
  readonly priceAt: Readonly<Record<number, number>>;
  readonly firstRow: number;
}

/** An offer out of a quotation. */
export interface QuotedOffer {
  readonly mpn: string;
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
  readonly stock?: number;
  readonly moq?: number;
  readonly multiple?: number;
  readonly leadDays?: number;
  /** Row in the file, from 1. */
  readonly row: number;
}

/** What a quotation says. */
export interface Quotation {
  readonly offers: readonly QuotedOffer[];
  /** Rows that could not be taken, with the reason. */
  readonly problems: readonly { readonly row: number; readonly text: string }[];
  /** Headings of columns that nothing was read of. */
  readonly unread: readonly string[];
  /** A price that can be read two ways, where no other decides. */
  readonly doubt?: { readonly text: string; readonly decimal: string; readonly grouped: string };
}

const MONEY_HEAD = /^(currency|curr\.?|ccy|währung|devise|valuta|moneda)$/i;
/** A column that says for how many pieces a price is, and what says that it is for one. */
const PER_HEAD = /^(per|price (unit|per|basis)|pricing unit|preiseinheit|pe)$/i;
const ONE = /^(1\s*)?(each|ea|pcs?|pieces?|stk|stück|st|units?)\.?$|^1$/i;
const QUANTITY_HEAD =
  /^(?:from|ab|à partir de|>=?|qty|preis|price)?\s*(\d{1,3}(?:[.,'’]?\d{3})*|\d+)\s*(?:\+|pcs|pieces|st(?:k|ück)?\.?)?$/i;
const whole = (text: string): number | undefined => {
  const clean = text
    .replace(/[.,'’\s](?=\d{3}(?:\D|$))/g, "")
    .replace(/\s*(pcs|pieces|stk?\.?|st|days?|\+)\s*$/i, "");
  return /^\d{1,9}$/.test(clean) ? Number(clean) : undefined;
};

/** The columns of a quotation by their headings; undefined where no row names a part number and a price. */
export function recogniseQuotation(cells: Cells): QuotationLayout | undefined {
  const header = findHeader(cells, WORDS, 1);
  if (!header) return undefined;
  const at = { ...header.at };
  const priceAt: Record<number, number> = {};
  cells[header.row]!.forEach((text, i) => {
    const n = whole(QUANTITY_HEAD.exec(text.trim())?.[1] ?? "");
    if (!n) return;
    // a heading with a number is the quantity of its prices, whatever word stands beside it
    priceAt[i] = n;
    for (const key of Object.keys(at) as QuotationColumn[]) if (at[key] === i) delete at[key];
  });
  const hasPrice = at.price !== undefined || Object.keys(priceAt).length > 0;
  return at.mpn !== undefined && hasPrice ? { at, priceAt, firstRow: header.row + 1 } : undefined;
}

/**
 * Reads a supplier's quotation: one row a price step, or one row a part with a column for each quantity.
 *
 * Rows of one number become one offer. A mark between digits is read as the other prices are written; where none tells,
 * the price is handed back as a doubt and nothing is guessed. Bad rows are named, good ones stay.
 *
 * @param currency what the supplier sells in: a price in another, or for other than one piece, is named and not taken
 * @param reading what a person answered to the doubt
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one pass over the rows of a quotation
export function readQuotation(
  cells: Cells,
  layout: QuotationLayout,
  currency: string,
  reading?: MarkReading,
): Quotation {
  const { at, priceAt, firstRow } = layout;
  const heads = cells[firstRow - 1] ?? [];
  const stated = at.price === undefined ? undefined : headingWrong(heads[at.price] ?? "", currency);
  const moneyAt = heads.findIndex((h) => MONEY_HEAD.test(h.trim()));
  const perAt = heads.findIndex((h) => PER_HEAD.test(h.trim()));
  const used = new Set([...Object.values(at), ...Object.keys(priceAt).map(Number), moneyAt, perAt]);
  const unread = heads.map((h) => h.trim()).filter((h, i) => h !== "" && !used.has(i));
  if (stated !== undefined) return { offers: [], problems: [{ row: firstRow, text: stated }], unread };
  const problems: { row: number; text: string }[] = [];
  const steps: { row: number; mpn: string; qty: number; price: string }[] = [];
  const facts = new Map<string, Known>();
  for (let r = firstRow; r < cells.length; r++) {
    const cell = (key: QuotationColumn) => (at[key] === undefined ? "" : (cells[r]![at[key]!] ?? "").trim());
    if (cells[r]!.every((t) => t.trim() === "")) continue;
    const mpn = cell("mpn");
    if (mpn === "") {
      problems.push({ row: r + 1, text: "names no part number" });
      continue;
    }
    const text = (column: number) => (column < 0 ? "" : (cells[r]![column] ?? "").trim());
    const elsewhere = ofOther(mpn, text(moneyAt), text(perAt), currency);
    if (elsewhere !== undefined) {
      problems.push({ row: r + 1, text: elsewhere });
      continue;
    }
    const own: { qty: number; price: string }[] = [];
    const wrong: string[] = [];
    const priceOf = (text: string): string | undefined => {
      const read = unitPrice(text, currency);
      if (read.wrong !== undefined) wrong.push(read.wrong);
      return read.wrong === undefined ? read.price : undefined;
    };
    for (const [i, qty] of Object.entries(priceAt)) {
      const price = priceOf(cells[r]![Number(i)] ?? "");
      if (price) own.push({ qty, price });
    }
    const single = priceOf(cell("price"));
    for (const text of wrong) problems.push({ row: r + 1, text });
    if (single) {
      const qty = cell("qty") === "" ? 1 : whole(cell("qty"));
      if (qty === undefined || qty < 1) {
        problems.push({ row: r + 1, text: `“${cell("qty")}” is no quantity` });
        continue;
      }
      own.push({ qty, price: single });
    }
    if (own.length === 0) {
      if (wrong.length === 0) problems.push({ row: r + 1, text: `${mpn} has no price` });
      continue;
    }
    const key = numberKey(mpn);
    for (const o of own) {
      if (steps.some((s) => numberKey(s.mpn) === key && s.qty === o.qty && s.price !== o.price))
        problems.push({ row: r + 1, text: `${mpn} has two prices from ${o.qty}; the first is kept` });
      else steps.push({ row: r + 1, mpn, ...o });
    }
    const known = facts.get(key) ?? { mpn, row: r + 1 };
    facts.set(key, known);
    for (const said of takeFacts(known, cell)) problems.push({ row: r + 1, text: said });
  }
  const mark = decimalMark(steps.map((s) => s.price));
  const open = steps.find((s) => isOpenPrice(s.price));
  if (open && mark === undefined && reading === undefined)
    return {
      offers: [],
      problems,
      unread,
      doubt: {
        text: open.price,
        decimal: open.price.replace(",", "."),
        grouped: open.price.replace(/\D/g, ""),
      },
    };
  const offers = [...facts].map(([key, f]) => ({
    ...f,
    breaks: [
      ...new Map(
        steps
          .filter((s) => numberKey(s.mpn) === key)
          .map((s) => [s.qty, { qty: s.qty, price: plainPrice(s.price, mark, reading) }]),
      ).values(),
    ].sort((a, b) => a.qty - b.qty),
  }));
  return { offers: offers.filter((o) => o.breaks.length > 0), problems, unread };
}

/** What is known of a number beside its prices, as its rows are read. */
type Known = { -readonly [K in keyof Omit<QuotedOffer, "breaks">]: QuotedOffer[K] };

/** Columns beside the prices: what their numbers are kept as, and what a cell that holds none is told as. */
const FACTS = {
  stock: { as: "stock", none: "no number in stock" },
  moq: { as: "moq", none: "no least order" },
  multiple: { as: "multiple", none: "no size of a pack" },
  lead: { as: "leadDays", none: "no number of days" },
} as const;

/** Adds what a row says beside its prices to what is known of its number; what cannot be, in words. */
function takeFacts(known: Known, cell: (key: QuotationColumn) => string): string[] {
  const said: string[] = [];
  for (const [column, { as, none }] of Object.entries(FACTS) as [
    keyof typeof FACTS,
    (typeof FACTS)["stock"],
  ][]) {
    const text = cell(column);
    if (/^[-–—]*$/.test(text)) continue;
    const n = column === "lead" ? daysIn(text) : whole(text);
    if (n === undefined) said.push(`“${text}” of ${known.mpn} is ${none}, and not taken`);
    else if (known[as] === undefined) known[as] = n;
    else if (known[as] !== n)
      said.push(`${known.mpn} says ${text} where it said ${known[as]} above; the first is kept`);
  }
  return said;
}

/** Days in a text: "14", "14 days", "2 weeks". */
function daysIn(text: string): number | undefined {
  const weeks = /^(\d{1,3})\s*(?:weeks?|wks?|wochen?|semaines?)\.?$/i.exec(text)?.[1];
  return weeks === undefined ? whole(text) : 7 * Number(weeks);
}

/** Why the prices of a row are not of one piece each in the offer's currency, by columns of their own; nothing where they are. */
function ofOther(mpn: string, money: string, per: string, currency: string): string | undefined {
  if (money !== "" && !meansCurrency(money, currency))
    return `${mpn} is in ${otherCurrency(money, currency) ?? money}, the offer in ${currency}`;
  if (per !== "" && !ONE.test(per)) return `the price of ${mpn} is for ${per}, not for one`;
  return undefined;
}
