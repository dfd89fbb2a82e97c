import {
  ASSEMBLY_FIELDS,
  BENCH_FIELDS,
  FOIL_FIELDS,
  type House,
  type HouseField,
  type HouseLimits,
  LIMITS,
  PRICE_FIELDS,
  TOLERANCES,
} from "@kobbin/core";
import { typedNumber } from "../../../ui/text/format.ts";
import { LETTERS } from "./LimitsDrawn.tsx";

/** The parts of a profile as the dialog has them, in order. */
export const PROFILE_PARTS = [
  ["makes", "What it makes"],
  ["choices", "Choices"],
  ["charges", "What it charges"],
  ["way", "Way here"],
  ["form", "Its order form"],
  ["assembly", "Assembly"],
  ["bench", "Own work"],
  ["foils", "Foils"],
] as const;
export type ProfilePart = (typeof PROFILE_PARTS)[number][0];

/** A field of the form: where it stands in the profile, what it is called, whether it may be empty, and what it holds. */
export interface Row {
  readonly path: string;
  readonly label: string;
  readonly isOptional: boolean;
  readonly isAmount: boolean;
}
/** Fields that stand together, and the part of the dialog they are in. */
export interface Group {
  readonly part: ProfilePart;
  readonly title: string;
  readonly rows: readonly Row[];
}

/** A limit's name behind the letter it has in the drawing. */
const lettered = (key: keyof HouseLimits, label: string) =>
  LETTERS[key] ? `${LETTERS[key]}  ${label}` : label;

/** The limits, which stand beside their drawing. */
export const LIMIT_ROWS: Group = {
  part: "makes",
  title: "Limits, mm; the thickness to a hole is a ratio. What the house does not state stays empty",
  // the sides of a board are two numbers each
  rows: Object.entries(LIMITS).flatMap(([key, l]) => {
    const row = { isOptional: true, isAmount: false };
    return l.kind === "sides"
      ? [
          { ...row, path: `limits.${key}.0`, label: `${l.label}, one side` },
          { ...row, path: `limits.${key}.1`, label: `${l.label}, other side` },
        ]
      : [{ ...row, path: `limits.${key}`, label: lettered(key as keyof HouseLimits, l.label) }];
  }),
};
const TOLERANCE_ROWS: Group = {
  part: "makes",
  title: "Tolerances, ± mm; of the thickness a share of it, 0.1 for 10 %. What stays empty is taken as usual",
  rows: Object.entries(TOLERANCES).map(([key, label]) => ({
    path: `tolerances.${key}`,
    label,
    isOptional: true,
    isAmount: false,
  })),
};
const LAYERS: Readonly<Record<string, string>> = {
  1: "one layer",
  2: "two layers",
  4: "four layers",
  6: "six layers",
};

const TABLES = {
  price: PRICE_FIELDS,
  assembly: ASSEMBLY_FIELDS,
  bench: BENCH_FIELDS,
  foils: FOIL_FIELDS,
} as const;

/** The fields of one part of a profile that are one number; lists are typed in fields of their own, ways stay as they are. */
function rowsOf(part: keyof typeof TABLES, house: House, keys?: readonly string[]): Row[] {
  const table: Readonly<Record<string, HouseField>> = TABLES[part];
  return (keys ?? Object.keys(table)).flatMap((key): Row[] => {
    const { label, kind, isOptional = false } = table[key]!;
    const row = { isOptional, isAmount: kind === "amount" || kind === "by layers" };
    if (kind === "by layers")
      return Object.keys(house.price[key as "setup" | "perDm2"]).map((n) => ({
        ...row,
        path: `price.${key}.${n}`,
        label: `${label}, ${LAYERS[n] ?? `${n} layers`}`,
      }));
    return kind === "tiers" ||
      kind === "lead" ||
      kind === "takes" ||
      kind === "services" ||
      kind === "turns" ||
      kind === "zeros"
      ? []
      : [{ ...row, path: `${part}.${key}`, label }];
  });
}

const WAY = ["freightBase", "freightPerHalfKg", "transitDays", "delaySigmaDays", "step", "minPieces"];
/** The area a house cuts, two sides. */
const LARGEST: readonly Row[] = [0, 1].map((side) => ({
  path: `foils.largestMm.${side}`,
  label: `largest foil, ${side === 0 ? "one side" : "other side"}, mm`,
  isOptional: false,
  isAmount: false,
}));

/** All fields of a profile that the form shows. */
export function groupsOf(house: House): Group[] {
  const rest = Object.keys(PRICE_FIELDS).filter((k) => !WAY.includes(k));
  return [
    LIMIT_ROWS,
    TOLERANCE_ROWS,
    { part: "charges", title: "Price", rows: rowsOf("price", house, rest) },
    { part: "way", title: "Way and steps", rows: rowsOf("price", house, WAY) },
    ...(house.assembly
      ? [{ part: "assembly" as const, title: "Assembly", rows: rowsOf("assembly", house) }]
      : []),
    ...(house.bench ? [{ part: "bench" as const, title: "Own work", rows: rowsOf("bench", house) }] : []),
    ...(house.foils
      ? [{ part: "foils" as const, title: "Foils", rows: [...rowsOf("foils", house), ...LARGEST] }]
      : []),
  ];
}
export const read = (house: House, path: string): string | number | undefined =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown> | undefined)?.[k], house) as
    | string
    | number
    | undefined;

type Data = Record<string, unknown>;
/** The profile with what was typed; a field left empty is one the house does not state. */
export function write(
  house: House,
  rows: readonly Row[],
  typed: (path: string) => string,
): Omit<House, "id"> {
  const { id: _, ...copy } = structuredClone(house) as House & Data;
  for (const { path, isAmount } of rows) {
    const keys = path.split(".");
    const last = keys.pop()!;
    const clean = typedNumber(typed(path).trim());
    const value = isAmount ? clean : Number(clean);
    const at = keys.reduce<Data>((o, k) => {
      // what was not stated so far: the sides of a board, the tolerances
      o[k] ??= k === "tolerances" ? {} : [];
      return o[k] as Data;
    }, copy);
    if (clean !== "") at[last] = value;
    else if (Array.isArray(at)) at.length = 0;
    else delete at[last];
  }
  const limits = copy.limits as Data;
  for (const [key, l] of Object.entries(LIMITS))
    if (l.kind === "sides" && (limits[key] as unknown[] | undefined)?.length !== 2) delete limits[key];
  return copy;
}
