import { NO_EXTRA, type OptionKey } from "./options.ts";

/** A value of some house's list, as it is called there. */
export interface KnownValue {
  readonly value: string;
  readonly label: string;
}

/** Decisions whose value is a number that is counted with, and how its label has it. */
const COUNTED: Readonly<Partial<Record<OptionKey, { readonly unit: RegExp; readonly example: string }>>> = {
  thickness: { unit: /(\d+(?:[.,]\d+)?)\s*(?:mm)?/i, example: "1.6 mm" },
  copper: { unit: /(\d+(?:[.,]\d+)?)\s*(µm|um|μm|oz)?/i, example: "35 µm" },
  bevel: { unit: /(\d+(?:[.,]\d+)?)\s*(?:°|deg)?/i, example: "20°" },
  quality: { unit: /(\d)/, example: "2, for use that may pause" },
};
/** Copper of an ounce on a square foot, µm (domain.md 5.3). */
const OUNCE_UM = 35;

/** A value nobody else has, of its label: letters and digits of whatever script. */
export const ownValue = (label: string): string =>
  label
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60) || "other";

/**
 * What a label of a profile's list counts as. Values mean the same at every house: a label that is known somewhere has its
 * value; what is counted with has its number; anything else is a value of its own.
 *
 * @param known values of that decision at all houses
 * @param before what the entry counted as when its label was another one: a label nobody knows keeps it
 */
export function valueMeant(
  key: OptionKey,
  label: string,
  known: readonly KnownValue[],
  before?: string,
): { readonly value: string } | { readonly wrong: string } {
  const text = label.trim();
  const same = known.find((v) => v.label.toLowerCase() === text.toLowerCase());
  if (same) return { value: same.value };
  const counted = COUNTED[key];
  if (!counted) return { value: before ?? ownValue(text) };
  if (key === "bevel" && /^(no|none|not)\b/i.test(text)) return { value: NO_EXTRA };
  const found = counted.unit.exec(text);
  if (!found) return { wrong: `“${text}” names no number, such as ${counted.example}.` };
  const number = Number(found[1]!.replace(",", "."));
  const value = key === "copper" && /oz/i.test(found[2] ?? "") ? number * OUNCE_UM : number;
  if (!(value > 0)) return { wrong: `“${text}” names no number above 0.` };
  return { value: String(Number(value.toPrecision(6))) };
}

/** What has to be said of a label that does not speak for itself; nothing where another house calls its value so too. */
export function meaningWords(label: string, value: string, known: readonly KnownValue[]): string | undefined {
  const same = known.filter((v) => v.value === value);
  if (same.some((v) => v.label.toLowerCase() === label.trim().toLowerCase())) return undefined;
  if (same.length === 0) return `“${label.trim()}” is a value of its own: no other house has it.`;
  return `“${label.trim()}” counts as ${same[0]!.label}.`;
}
