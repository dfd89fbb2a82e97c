import { type FinishKind, finishKind } from "./finish.ts";
import type { FreightService, House, OptionValue } from "./house.ts";
import {
  EXTRA_OPTIONS,
  type ExtraOptionKey,
  FAB_OPTIONS,
  type FabOptionKey,
  type FabOptions,
  isExtraOption,
  isFabOption,
  type OptionKey,
  ORDER_OPTIONS,
  ORDINARY_WAY,
  PLAIN,
} from "./options.ts";

/** The house's value for a decision, or its first one where it does not have the one wished. */
export function optionOf(house: House, key: FabOptionKey, value: string): OptionValue {
  const list = house.options[key];
  return list.find((o) => o.value === value) ?? list[0]!;
}

/** The house's value for a decision only some houses offer; nothing where it has no such list. */
export function extraOf(
  house: House,
  key: ExtraOptionKey,
  value: string | undefined,
): OptionValue | undefined {
  const list = house.options[key] ?? [];
  return list.find((o) => o.value === value) ?? list[0];
}

/** Every value that is chosen, those of the lists only some houses have among them. */
export function chosenValues(house: House, options: FabOptions): OptionValue[] {
  return [
    ...FAB_OPTIONS.map((key) => optionOf(house, key, options[key])),
    ...EXTRA_OPTIONS.flatMap((key) => extraOf(house, key, options[key]) ?? []),
  ];
}

/** How the parcel comes: the service chosen, or the ordinary way of the price model. */
export function wayOf(house: House, freight: string | undefined): FreightService {
  const p = house.price;
  return (
    p.services?.find((s) => s.value === freight) ?? {
      value: ORDINARY_WAY,
      label: "ordinary",
      base: p.freightBase,
      perHalfKg: p.freightPerHalfKg,
      transitDays: p.transitDays,
      delaySigmaDays: p.delaySigmaDays,
    }
  );
}

/** A wish that a house cannot fulfil, and what it has in its place. */
export interface Given {
  readonly key: OptionKey;
  readonly wished: string;
  readonly got: string;
}

/** Takes the value a list has, else the one that means most nearly the same. */
function nearestOption(house: House, key: FabOptionKey, wish: string | undefined): string {
  const list = house.options[key];
  if (wish === undefined || list.some((o) => o.value === wish)) return wish ?? list[0]!.value;
  const mm = Number.parseFloat(wish);
  if ((key === "thickness" || key === "copper") && Number.isFinite(mm)) {
    const off = (o: OptionValue) => Math.abs(Number.parseFloat(o.value) - mm);
    return [...list].sort((a, b) => off(a) - off(b))[0]!.value;
  }
  if (key === "finish") {
    const asked = finishKind({ value: wish });
    const like = USES_OF_FINISH.find((use) => use(asked));
    const kinds = list.map((o) => [o, finishKind(o)] as const);
    const same = kinds.find(([, k]) => like?.(k));
    // a leaded finish is never taken for another
    return (same ?? kinds.find(([, k]) => !k.isLeaded) ?? kinds[0]!)[0].value;
  }
  return list[0]!.value;
}
/** The bevel wished, or the one whose angle is nearest; an edge that was to be bevelled stays so where the house can. */
function nearestBevel(house: House, wish: string | undefined): OptionValue | undefined {
  const list = house.options.bevel ?? [];
  const angle = (v: string | undefined) => Number.parseFloat(v ?? "");
  const same = list.find((o) => o.value === wish);
  if (same || !Number.isFinite(angle(wish))) return same ?? list[0];
  const off = (o: OptionValue) => Math.abs(angle(o.value) - angle(wish));
  return list.filter((o) => Number.isFinite(angle(o.value))).sort((a, b) => off(a) - off(b))[0] ?? list[0];
}
/** Finishes that serve the same use, the narrower kind first. */
const USES_OF_FINISH: readonly ((k: FinishKind) => boolean)[] = [
  (k) => k.isGold,
  (k) => k.isFlat,
  (k) => k.isLevelled && !k.isLeaded,
  (k) => k.isLeaded,
];

/**
 * Brings options to what a house has, by meaning: of what it lacks, the nearest thickness, copper, bevel and lead time, a finish of
 * the same kind, else its first value.
 */
export function fitOptions(house: House, wish: Partial<FabOptions>): FabOptions {
  const pick = (key: FabOptionKey) => nearestOption(house, key, wish[key]);
  const leads = house.price.lead.map((l) => l.days);
  const off = (d: number) => Math.abs(d - wish.leadDays!);
  const leadDays = wish.leadDays === undefined ? leads[0]! : [...leads].sort((a, b) => off(a) - off(b))[0]!;
  const extras = EXTRA_OPTIONS.flatMap((key) => {
    const value = key === "bevel" ? nearestBevel(house, wish.bevel) : extraOf(house, key, wish[key]);
    return value ? [[key, value.value] as const] : [];
  });
  const way = house.price.services?.find((s) => s.value === wish.freight);
  return {
    thickness: pick("thickness"),
    copper: pick("copper"),
    finish: pick("finish"),
    mask: pick("mask"),
    legend: pick("legend"),
    ...Object.fromEntries(extras),
    leadDays,
    ...(way ? { freight: way.value } : {}),
    ...(wish.pieces ? { pieces: wish.pieces } : {}),
  };
}

/** What an option is at a house that has no list for it. */
export const plainOf = (key: OptionKey): string | undefined =>
  key === "freight" ? ORDINARY_WAY : (PLAIN as Readonly<Partial<Record<string, string>>>)[key];

/** What a house calls a value; the value itself where none of them has it. @param houses the first that knows it counts */
export function nameOfValue(houses: readonly House[], key: OptionKey, value: string | number): string {
  if (key === "leadDays") return `${value} days`;
  if (value === ORDINARY_WAY) return "ordinary";
  const lists = houses.flatMap((h): readonly { readonly value: string; readonly label: string }[] =>
    key === "freight" ? (h.price.services ?? []) : (h.options[key] ?? []),
  );
  return lists.find((o) => o.value === value)?.label ?? String(value);
}

/**
 * What of the wishes a house does not have, with what it has in their place.
 * @param labels gives a value its name: of all houses, since the wished one is another's
 */
export function givenUp(
  house: House,
  wish: Partial<FabOptions>,
  labels: readonly House[] = [house],
): Given[] {
  const fit = fitOptions(house, wish);
  const houses = [house, ...labels];
  return ORDER_OPTIONS.flatMap((key) => {
    const wished = wish[key];
    // a house without a list does the plain thing
    const got = fit[key] ?? plainOf(key)!;
    return wished === undefined || wished === got
      ? []
      : [{ key, wished: nameOfValue(houses, key, wished), got: nameOfValue(houses, key, got) }];
  });
}

/** What a house lets choose for a decision. */
export function valuesOf(house: House, key: OptionKey): string[] {
  if (key === "leadDays") return house.price.lead.map((l) => String(l.days));
  if (key === "freight") return [ORDINARY_WAY, ...(house.price.services ?? []).map((s) => s.value)];
  return (isFabOption(key) || isExtraOption(key) ? (house.options[key] ?? []) : []).map((v) => v.value);
}

/** The options with one of them changed; the ordinary way is one that is not said. */
export function withValue(o: FabOptions, key: OptionKey, value: string): FabOptions {
  if (key === "leadDays") return { ...o, leadDays: Number(value) };
  if (key === "freight" && value === ORDINARY_WAY) {
    const { freight: _, ...rest } = o;
    return rest;
  }
  return { ...o, [key]: value };
}

/** What an option is at the moment; empty where the house has no list for it. */
export const valueAt = (o: FabOptions, key: OptionKey): string =>
  String(o[key] ?? (key === "freight" ? ORDINARY_WAY : ""));
