import { ATTRITION, type OwnLosses } from "../assembly/attrition.ts";
import { ASSUMED, type ClassRules, type RuleKind } from "../library/rules.ts";
import {
  both,
  type DataShape,
  fields,
  flag,
  mapOf,
  money,
  number,
  oneOf,
  text,
  tuple,
  whole,
} from "./shape.ts";

const share = number(0, 0.5);
const loss = tuple(share, whole(0, 10_000));
/** Kind of package → share and least number lost. */
export const lossesShape: DataShape = both(
  mapOf(fields({ hand: loss, machine: loss }), 40),
  (v, path) =>
    Object.keys(v as object)
      .filter((k) => !Object.hasOwn(ATTRITION, k))
      .map((k) => `${path} knows no kind of package “${k.slice(0, 40)}”`)[0],
);

/** Class → what is taken where a line without a number does not say: attribute → text. */
export const rulesShape: DataShape = both(mapOf(mapOf(text(60), 20), 10), (v, path) => {
  for (const [kind, own] of Object.entries(v as object)) {
    const known = ASSUMED[kind as RuleKind] as readonly { key: string }[] | undefined;
    if (!known) return `${path} knows no class “${kind.slice(0, 40)}”`;
    const odd = Object.keys(own as object).find((k) => !known.some((f) => f.key === k));
    if (odd) return `${path}.${kind} assumes nothing of “${odd.slice(0, 40)}”`;
  }
  return undefined;
});

/** Currency → units of the shop's own for one of it. */
export const ratesShape: DataShape = mapOf(
  (v, path) =>
    (typeof v === "string" || typeof v === "number") &&
    /^\d{1,6}(\.\d{1,8})?$/.test(String(v)) &&
    Number(v) > 0
      ? undefined
      : `${path} should be a rate like 0.9215`,
  200,
  /^[A-Z]{3}$/,
);

/** What a shop says of itself, in its settings. */
export interface ShopSettings {
  readonly name: string;
  readonly hourlyRate: string;
  /** Share of recoverable tax on purchases, 0.2 for 20 %. */
  readonly taxRate: number;
  readonly hoursPerDay: number;
  /** Units of the shop's currency for one of the other. */
  readonly rates: Readonly<Record<string, string>>;
  readonly decimalMark: "." | ",";
  readonly dateOrder: "dmy" | "mdy" | "ymd";
  readonly showsMil: boolean;
  /** Losses by kind of package that are set otherwise than usual. */
  readonly attrition: OwnLosses;
  /** What is taken where a line without a number does not say; a class that is there was confirmed. */
  readonly rules: ClassRules;
  /** How what is built is numbered; the usual way while it is empty. */
  readonly serialRule: string;
  /** Where parcels go and who is asked, in lines; empty where nobody has said. */
  readonly address: string;
}

/** A setting of the shop, whole: how it is kept, what it is called, and whether figures of a run hang on it. */
export interface ShopField {
  readonly column: string;
  /** As it is kept and restored. */
  readonly stored: DataShape;
  /** In the history: "own hours a day 5 → 6". */
  readonly words: string;
  /** How the database's answer is read: a number that comes as text, an amount without needless zeros. */
  readonly reads?: "number" | "amount";
  /** What a document has of it; `set` where it is left out while nothing is set. Without it no figure hangs on it. */
  readonly document?: { readonly shape: DataShape; readonly isLeftOut?: true };
}

/**
 * Every setting of the shop, once. Statements, patches, backups, the history and what a run's document has of the shop derive
 * from it; the type and the request's schema do not compile while they differ from it.
 */
export const SHOP_FIELDS = {
  name: { column: "name", stored: text(120, 1), words: "name", document: { shape: text(200) } },
  hourlyRate: {
    column: "hourly_rate",
    stored: number(0, 1e9),
    words: "worth of an hour",
    reads: "amount",
    document: { shape: money },
  },
  taxRate: {
    column: "tax_rate",
    stored: number(0, 1),
    words: "recoverable tax",
    reads: "number",
    document: { shape: number(0, 1) },
  },
  hoursPerDay: {
    column: "hours_per_day",
    stored: number(0.01, 24),
    words: "own hours a day",
    reads: "number",
    document: { shape: number(0.01, 24) },
  },
  rates: { column: "rates", stored: ratesShape, words: "rates", document: { shape: ratesShape } },
  decimalMark: { column: "decimal_mark", stored: oneOf(".", ","), words: "decimal mark" },
  dateOrder: { column: "date_order", stored: oneOf("dmy", "mdy", "ymd"), words: "order of dates" },
  showsMil: { column: "shows_mil", stored: flag, words: "mil beside mm" },
  attrition: {
    column: "attrition",
    stored: lossesShape,
    words: "losses",
    document: { shape: lossesShape, isLeftOut: true },
  },
  rules: {
    column: "rules",
    stored: rulesShape,
    words: "what lines without a number take",
    document: { shape: rulesShape, isLeftOut: true },
  },
  serialRule: {
    column: "serial_rule",
    stored: text(60),
    words: "serial numbers",
    document: { shape: text(60), isLeftOut: true },
  },
  address: {
    column: "address",
    stored: text(500),
    words: "address",
    document: { shape: text(500), isLeftOut: true },
  },
} as const satisfies Readonly<Record<string, ShopField>>;

export type ShopFieldKey = keyof typeof SHOP_FIELDS;

// a setting without its line in the table does not compile, nor a line without its setting
({}) as Record<keyof ShopSettings, 0> satisfies Record<ShopFieldKey, 0>;
({}) as Record<ShopFieldKey, 0> satisfies Record<keyof ShopSettings, 0>;
