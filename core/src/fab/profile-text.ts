import type { Condition, House, HouseLimits } from "./house.ts";
import { LIMITS } from "./measures.ts";
import { OPTION_WORDS, type OptionKey, ORDER_OPTIONS, ORDINARY_WAY } from "./options.ts";

type Named = { readonly value: string; readonly label: string };
/** What of a house conditions are about. */
type Offers = Pick<House, "options" | "price">;
/** What a house offers of a decision, as it is called there; lead times and ways stand with its prices. */
function valuesOf({ options, price }: Offers, key: OptionKey): readonly Named[] {
  if (key === "leadDays")
    return price.lead.map(({ days }) => ({ value: String(days), label: `${days} days` }));
  if (key === "freight") return [{ value: ORDINARY_WAY, label: ORDINARY_WAY }, ...(price.services ?? [])];
  return (options as Readonly<Partial<Record<string, readonly Named[]>>>)[key] ?? [];
}
const isSaid = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Conditions as they are typed: `finish: immersion gold | immersion silver; laminate: FR`. */
export const conditionsText = (house: Offers, when: readonly Condition[] | undefined): string =>
  (when ?? [])
    .map(
      ({ key, in: list }) =>
        `${OPTION_WORDS[key].word}: ${list.map((v) => valuesOf(house, key).find((x) => x.value === v)?.label ?? v).join(" | ")}`,
    )
    .join("; ");

/**
 * Reads them. A decision is named as a heading or a sentence has it, a value by its label or its own word; between values
 * stands a bar or "or".
 */
export function readConditions(
  house: Offers,
  text: string,
): { readonly when: readonly Condition[] } | { readonly wrong: string } {
  const when: Condition[] = [];
  for (const part of text.split(";").map((s) => s.trim())) {
    if (part === "") continue;
    const [name = "", rest] = part.split(/:(.*)/s);
    const key = ORDER_OPTIONS.find((k) =>
      [k, OPTION_WORDS[k].word, OPTION_WORDS[k].label].some((w) => isSaid(w, name)),
    );
    if (!key || rest === undefined)
      return { wrong: `“${part}” names no decision, such as “finish: immersion gold”.` };
    if (when.some((w) => w.key === key)) return { wrong: `${OPTION_WORDS[key].label} is named twice.` };
    const known = valuesOf(house, key);
    const named = (s: string) => known.find((v) => isSaid(v.label, s) || isSaid(v.value, s))?.value;
    // a label may have an "or" of its own: bars part first
    const parts = rest.split("|").flatMap((s) => (named(s) ? [s] : s.split(/\s+or\s+/)));
    const list: string[] = [];
    for (const s of parts) {
      const value = named(s);
      if (value === undefined)
        return {
          wrong: `It offers no ${OPTION_WORDS[key].word} “${s.trim()}”; it has ${known.map((v) => v.label).join(", ") || "none to choose"}.`,
        };
      list.push(value);
    }
    when.push({ key, in: list });
  }
  return { when };
}

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;

/** Limits as they are typed: `smallest track 0.1; largest board 400 × 300`, mm; the thickness to a hole is a ratio. */
export const limitsText = (limits: HouseLimits | undefined): string =>
  Object.entries(limits ?? {})
    .map(
      ([key, v]: [string, number | readonly number[]]) =>
        `${LIMITS[key as keyof HouseLimits].label} ${typeof v === "number" ? v : v.join(" × ")}`,
    )
    .join("; ");

/** Reads them; a limit is named by its label or its key. */
export function readLimits(text: string): { readonly limits: HouseLimits } | { readonly wrong: string } {
  const out: Record<string, number | readonly [number, number]> = {};
  for (const part of text.split(/;|\n/).map((s) => s.trim())) {
    if (part === "") continue;
    const found = new RegExp(`^(.*?)\\s*[:=]?\\s*(${NUMBER})(?:\\s*[x×]\\s*(${NUMBER}))?\\s*(?:mm)?$`).exec(
      part,
    );
    const key = Object.keys(LIMITS).find((k) =>
      [k, LIMITS[k as keyof HouseLimits].label].some((w) => isSaid(w, found?.[1] ?? "")),
    ) as keyof HouseLimits | undefined;
    if (!found || !key) return { wrong: `“${part}” is no limit, such as “${LIMITS.minTrackMm.label} 0.1”.` };
    if (key in out) return { wrong: `${LIMITS[key].label} is named twice.` };
    const [a, b] = [found[2], found[3]].map((s) =>
      s === undefined ? undefined : Number(s.replace(",", ".")),
    );
    if ((LIMITS[key].kind === "sides") !== (b !== undefined))
      return {
        wrong: `${LIMITS[key].label}: ${b === undefined ? "two sides" : "one number"}, not “${part}”.`,
      };
    out[key] = b === undefined ? a! : [a!, b];
  }
  return { limits: out };
}
