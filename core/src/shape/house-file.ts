import { valuesOf } from "../fab/fit-options.ts";
import type { Condition, House } from "../fab/house.ts";
import { ASSEMBLY_FIELDS, BENCH_FIELDS, FOIL_FIELDS, PRICE_FIELDS } from "../fab/house-fields.ts";
import { LIMITS } from "../fab/measures.ts";
import { EXTRA_OPTIONS, FAB_OPTIONS, isExtraOption, PLAIN } from "../fab/options.ts";
import { TOLERANCES } from "../fab/tolerances.ts";
import { HOUSE_SHAPES } from "./house.ts";

/** A profile as a file, `house/1`: everything of a house but its place in a shop. */
export type HouseProfile = Omit<House, "id">;

/** What a file with a profile holds. */
export interface HouseFile {
  /** Only where nothing is wrong. */
  readonly profile?: HouseProfile;
  /** Every part that is missing, of another kind, or contradicts another; in sentences. */
  readonly wrong: readonly string[];
  /** Keys nobody reads: they are not kept. */
  readonly unknown: readonly string[];
}

/** The file of a house, to be kept, sent, and read again. */
export function houseFile({ id: _, ...profile }: House): { readonly kobbin: "house/1" } & HouseProfile {
  return { kobbin: "house/1", ...profile };
}

const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === "object" && v !== null && !Array.isArray(v);

/**
 * Reads a profile from a parsed file, `house/1` or as it stands in `run/1`.
 *
 * Each part is judged by itself, so that one reading names all that is wrong; then the parts against each other. Nothing is
 * filled in: a profile that lacks something is no profile.
 */
export function readHouseFile(value: unknown): HouseFile {
  if (!isRecord(value)) return { wrong: ["The file holds no profile of a house."], unknown: [] };
  if (value.kobbin !== undefined && value.kobbin !== "house/1")
    return { wrong: [`The file is ${String(value.kobbin)}, not house/1.`], unknown: [] };
  const wrong = Object.entries(HOUSE_SHAPES).flatMap(([key, shape]) => {
    const said =
      value[key] === undefined && shape(undefined, key) ? `${key} is missing` : shape(value[key], key);
    return said ? [`${said}.`] : [];
  });
  const unknown = unknownKeys(value);
  if (wrong.length > 0) return { wrong, unknown };
  const profile = Object.fromEntries(
    Object.keys(HOUSE_SHAPES).flatMap((key) => (value[key] === undefined ? [] : [[key, value[key]]])),
  ) as unknown as HouseProfile;
  const against = contradictions(profile);
  return against.length > 0 ? { wrong: against, unknown } : { profile, wrong: [], unknown };
}

/** Keys that stand in no table, with the part they are in. */
function unknownKeys(value: Readonly<Record<string, unknown>>): string[] {
  const known: Readonly<Record<string, object>> = {
    limits: LIMITS,
    price: PRICE_FIELDS,
    assembly: ASSEMBLY_FIELDS,
    bench: BENCH_FIELDS,
    foils: { ...FOIL_FIELDS, largestMm: true },
    tolerances: TOLERANCES,
    options: Object.fromEntries([...FAB_OPTIONS, ...EXTRA_OPTIONS].map((k) => [k, true])),
  };
  const top = Object.keys(value).filter(
    (k) => !Object.hasOwn(HOUSE_SHAPES, k) && k !== "kobbin" && k !== "id",
  );
  const inside = Object.entries(known).flatMap(([part, keys]) =>
    isRecord(value[part])
      ? Object.keys(value[part]).flatMap((k) => (Object.hasOwn(keys, k) ? [] : [`${part}.${k}`]))
      : [],
  );
  return [...top, ...inside];
}

/** Parts of a profile that cannot both be true. */
export function contradictions(h: HouseProfile): string[] {
  const out: string[] = [];
  if (h.layers.length === 0 && !h.foils)
    out.push("layers is empty and there are no prices for foils: the house makes nothing.");
  for (const key of [...FAB_OPTIONS, ...EXTRA_OPTIONS]) {
    const twice = repeated((h.options[key] ?? []).map((o) => o.value));
    if (twice) out.push(`options.${key} has ${twice} twice.`);
  }
  for (const key of EXTRA_OPTIONS)
    if (h.options[key] && h.options[key][0]?.value !== PLAIN[key])
      out.push(`options.${key} does not begin with “${PLAIN[key]}”: what nobody chooses would be made.`);
  out.push(...conditionsOf(h));
  const days = repeated(h.price.lead.map((l) => String(l.days)));
  if (days) out.push(`price.lead has ${days} days twice.`);
  // boards of one copper layer are made and paid as two
  for (const n of new Set(h.layers.map((l) => (l <= 2 ? 2 : l))))
    for (const part of ["setup", "perDm2"] as const)
      if (h.price[part][String(n)] === undefined)
        out.push(`layers has ${n}, and price.${part} has no price for it.`);
  const { tiers } = h.price;
  if (tiers.length > 0 && tiers[0]!.fromDm2 !== 0)
    out.push(`price.tiers begins at ${tiers[0]!.fromDm2} dm², so less than that has no price.`);
  tiers.forEach((t, i) => {
    if (i > 0 && t.fromDm2 <= tiers[i - 1]!.fromDm2)
      out.push(`price.tiers goes from ${tiers[i - 1]!.fromDm2} to ${t.fromDm2} dm²: it must go up.`);
  });
  const { minBoardMm, maxBoardMm } = h.limits;
  if (minBoardMm && maxBoardMm && minBoardMm.some((v, i) => v > maxBoardMm[i]!))
    out.push(
      `limits has a smallest board of ${minBoardMm.join(" × ")} mm and a largest of ${maxBoardMm.join(" × ")}.`,
    );
  return out;
}

/** Conditions that name what the house does not have. */
function conditionsOf(h: HouseProfile): string[] {
  const has = (c: Condition): readonly string[] =>
    valuesOf({ ...h, id: "" }, c.key).concat(isExtraOption(c.key) && !h.options[c.key] ? [PLAIN[c.key]] : []);
  const of = (where: string, when: readonly Condition[] = []) =>
    when.flatMap((c) =>
      c.in
        .filter((v) => !has(c).includes(v))
        .map((v) => `${where} exists beside ${c.key} “${v}”, which the house does not have.`),
    );
  return [
    ...[...FAB_OPTIONS, ...EXTRA_OPTIONS].flatMap((key) =>
      (h.options[key] ?? []).flatMap((v) => of(`options.${key} “${v.value}”`, v.when)),
    ),
    ...h.price.lead.flatMap((l) => of(`price.lead of ${l.days} days`, l.when)),
  ];
}

const repeated = (list: readonly string[]): string | undefined => list.find((v, i) => list.indexOf(v) < i);
