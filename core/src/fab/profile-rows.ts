import { isDay } from "../day.ts";
import type {
  Condition,
  FreightService,
  House,
  OptionValue,
  PriceBand,
  Promotion,
  StackLimits,
} from "./house.ts";
import { BAND_KEYS, type BandKey } from "./house.ts";
import { LIMITS } from "./measures.ts";
import { conditionsText, limitsText, readConditions, readLimits } from "./profile-text.ts";

/** What stands in a cell of a profile's lists. */
type CellKind =
  | "text"
  | "amount"
  | "number"
  | "per cent"
  | "day"
  | "conditions"
  | "limits"
  | "layers"
  | "measures";

/** A column of one of a profile's lists: where it stands in an entry, what it is called, what may be typed. */
export interface ProfileColumn {
  readonly key: string;
  readonly label: string;
  readonly kind: CellKind;
  readonly isOptional?: true;
}
const column = (key: string, label: string, kind: CellKind): ProfileColumn => ({ key, label, kind });
const perhaps = (key: string, label: string, kind: CellKind): ProfileColumn => ({
  key,
  label,
  kind,
  isOptional: true,
});
const EXTRA = [
  perhaps("uplift", "area price + %", "per cent"),
  perhaps("setup", "set-up", "amount"),
  perhaps("perDm2", "a dm²", "amount"),
  perhaps("days", "days +", "number"),
];
type Listed = {
  readonly values: OptionValue;
  readonly services: FreightService;
  readonly bands: PriceBand;
  readonly stacks: StackLimits;
  readonly promotions: Promotion;
};
/** A list of a profile. */
export type ProfileList = keyof Listed;
type Key<L extends ProfileList> = Exclude<keyof Listed[L], "value">;

/** Every field of an entry, by list: one that is new and stands nowhere here does not compile. */
const LISTED = {
  values: {
    label: column("label", "what it is", "text"),
    called: perhaps("called", "its word", "text"),
    uplift: EXTRA[0]!,
    setup: EXTRA[1]!,
    perDm2: EXTRA[2]!,
    days: EXTRA[3]!,
    when: perhaps("when", "only beside", "conditions"),
    limits: perhaps("limits", "narrows to", "limits"),
  },
  services: {
    label: column("label", "what it is", "text"),
    base: column("base", "base", "amount"),
    perHalfKg: column("perHalfKg", "half a kilogram", "amount"),
    transitDays: column("transitDays", "days on the way", "number"),
    delaySigmaDays: column("delaySigmaDays", "usual delay, days", "number"),
  },
  bands: {
    limits: column("limits", "smallest of", "measures"),
    below: column("below", "below, mm", "number"),
    uplift: EXTRA[0]!,
    setup: EXTRA[1]!,
    perDm2: EXTRA[2]!,
    days: EXTRA[3]!,
  },
  stacks: {
    layers: column("layers", "copper layers", "layers"),
    limits: column("limits", "its limits", "limits"),
  },
  promotions: {
    label: column("label", "what it is", "text"),
    conditions: column("conditions", "for whom and what", "text"),
    share: column("share", "% taken off", "per cent"),
    until: perhaps("until", "last day", "day"),
  },
} as const satisfies { readonly [L in ProfileList]: Readonly<Record<Key<L>, ProfileColumn>> };

/** The columns of a list in the order they are shown. */
export const profileColumns = (list: ProfileList): readonly ProfileColumn[] => Object.values(LISTED[list]);

/** Every list of a profile with its entries; values of each decision by themselves. */
export const profileLists = (h: Omit<House, "id">): (readonly [ProfileList, readonly object[]])[] => [
  ...Object.values(h.options).map((list) => ["values", list] as const),
  ["services", h.price.services ?? []],
  ["bands", h.bands ?? []],
  ["stacks", h.stacks ?? []],
  ["promotions", h.promotions ?? []],
];

/** Measures a step of extra price may hang on, as they are typed. */
const MEASURE_WORDS = BAND_KEYS.map((key) => [key, LIMITS[key].label.replace(/^smallest /, "")] as const);
const clean = (v: number): number => Number(v.toPrecision(12));

const SHOWN: Readonly<Record<CellKind, (v: unknown, house: Pick<House, "options" | "price">) => string>> = {
  text: String,
  amount: String,
  number: String,
  day: String,
  "per cent": (v) => String(clean(Number(v) * 100)),
  conditions: (v, house) => conditionsText(house, v as readonly Condition[]),
  limits: (v) => limitsText(v as OptionValue["limits"]),
  layers: (v) => (v as readonly number[]).join(", "),
  measures: (v) => (v as readonly BandKey[]).map((k) => MEASURE_WORDS.find(([m]) => m === k)![1]).join(", "),
};

/** An entry of a list as it is typed, cell by cell. */
export const profileCells = (
  list: ProfileList,
  entry: object,
  house: Pick<House, "options" | "price">,
): string[] =>
  profileColumns(list).map(({ key, kind }) => {
    const v = (entry as Readonly<Record<string, unknown>>)[key];
    return v === undefined ? "" : SHOWN[kind](v, house);
  });

type Read = { readonly value: unknown } | { readonly wrong: string };
const numeric = (text: string): number | undefined =>
  /^[+−-]?\d{1,9}([.,]\d{1,6})?$/.test(text)
    ? Number(text.replace(",", ".").replace("−", "-").replace("+", ""))
    : undefined;
const READ: Readonly<Record<CellKind, (text: string, house: Pick<House, "options" | "price">) => Read>> = {
  text: (text) => ({ value: text }),
  amount: (text) =>
    /^\d{1,9}([.,]\d{1,6})?$/.test(text)
      ? { value: text.replace(",", ".") }
      : { wrong: `“${text}” is no amount, such as 12.50.` },
  number: (text) => {
    const v = numeric(text);
    return v === undefined || v < 0 ? { wrong: `“${text}” is no number from 0 on.` } : { value: v };
  },
  "per cent": (text) => {
    const v = numeric(text.replace(/\s*%$/, ""));
    return v === undefined || v < -100
      ? { wrong: `“${text}” is no per cent, such as 25.` }
      : { value: clean(v / 100) };
  },
  day: (text) => (isDay(text) ? { value: text } : { wrong: `“${text}” is no day, such as 2026-12-31.` }),
  conditions: (text, house) => {
    const r = readConditions(house, text);
    return "wrong" in r ? r : { value: r.when };
  },
  limits: (text) => {
    const r = readLimits(text);
    return "wrong" in r ? r : { value: r.limits };
  },
  layers: (text) => {
    const list = text.split(/[,;\s]+/).filter(Boolean);
    const bad = list.find((s) => !/^\d{1,2}$/.test(s) || Number(s) < 1);
    return bad === undefined && list.length > 0
      ? { value: [...new Set(list.map(Number))] }
      : { wrong: `“${bad ?? text}” is no number of layers, such as 4.` };
  },
  measures: (text) => {
    const list = text
      .split(/[,;]/)
      .map((s) => s.trim().toLowerCase())
      .filter(Boolean);
    const keys = list.map((s) => MEASURE_WORDS.find(([k, w]) => [k.toLowerCase(), w].includes(s))?.[0]);
    const bad = keys.indexOf(undefined);
    return bad < 0 && keys.length > 0
      ? { value: keys }
      : { wrong: `“${list[bad] ?? text}” is none of ${MEASURE_WORDS.map(([, w]) => w).join(", ")}.` };
  },
};

/**
 * Reads an entry of a list back.
 *
 * @param before the entry as it stood: what the columns do not show of it stays
 */
export function profileEntry(
  list: ProfileList,
  cells: readonly string[],
  before: object | undefined,
  house: Pick<House, "options" | "price">,
):
  | { readonly entry: Readonly<Record<string, unknown>> }
  | { readonly wrong: string; readonly column: number } {
  const entry: Record<string, unknown> = { ...before };
  for (const [i, c] of profileColumns(list).entries()) {
    const text = (cells[i] ?? "").trim();
    if (text === "") {
      if (!c.isOptional) return { wrong: `${c.label} is missing.`, column: i };
      delete entry[c.key];
      continue;
    }
    // what nobody touched stays as it is, however many places it has; conditions may have lost what they name
    const was = entry[c.key];
    if (was !== undefined && c.kind !== "conditions" && text === SHOWN[c.kind](was, house)) continue;
    const read = READ[c.kind](text, house);
    if ("wrong" in read) return { wrong: read.wrong, column: i };
    entry[c.key] = read.value;
  }
  return { entry };
}
