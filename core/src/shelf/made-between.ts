import { beginOf, endOf, type MadeIn, madeWords, readDateCode, readingsOf } from "./date-code.ts";

/** A stretch of days in which something was made, both ends with it, ISO; open where an end is left out. */
export interface MadeBetween {
  readonly from?: string;
  readonly to?: string;
}

/** Whether a lot was made within a stretch; not known where its code is missing, cannot be read, or says both. */
export type WasMade = "within" | "outside" | "not known";

/**
 * Whether a lot was made within a stretch, by its date code. A code that can be read in several ways tells it only where all of
 * them say the same; one that goes over an end of the stretch (a month against a week) tells nothing.
 *
 * @param today ISO day: nothing was made after it
 */
export function wasMade(code: string | undefined, { from, to }: MadeBetween, today: string): WasMade {
  const verdicts = new Set(
    readingsOf(code ?? "", today).map((made): WasMade => {
      const [first, last] = [beginOf(made), endOf(made)];
      if ((from !== undefined && last < from) || (to !== undefined && first > to)) return "outside";
      const isWithin = (from === undefined || first >= from) && (to === undefined || last <= to);
      return isWithin ? "within" : "not known";
    }),
  );
  return verdicts.size === 1 ? [...verdicts][0]! : "not known";
}

/** "made from 29 September 2025 to 9 November 2025". */
export function betweenWords({ from, to }: MadeBetween): string {
  if (to === undefined) return `made from ${dayWords(from!)} on`;
  return from === undefined ? `made up to ${dayWords(to)}` : `made from ${dayWords(from)} to ${dayWords(to)}`;
}
const dayWords = (iso: string): string => {
  const [year, month, day] = iso.split("-").map(Number) as [number, number, number];
  return madeWords({ year, month, day });
};

/** The date codes of a notice as a stretch of days, with what may be read otherwise; or what is wrong with them. */
export type ReadBetween =
  | { readonly made: MadeBetween | undefined; readonly or: readonly string[]; readonly wrong?: undefined }
  | { readonly wrong: string };

/**
 * Reads the first and the last date code that a notice names; one of them may be left out, both mean any.
 *
 * @param today ISO day
 */
export function readBetween(first: string, last: string, today: string): ReadBetween {
  const or: string[] = [];
  const read = (text: string): MadeIn | undefined | null => {
    if (text.trim() === "") return undefined;
    const made = readDateCode(text, today);
    if (made?.or) or.push(`${text.trim()} is taken as ${madeWords(made)}; it could be ${made.or}`);
    return made ?? null;
  };
  const [from, to] = [read(first), read(last)];
  for (const [made, text] of [
    [from, first],
    [to, last],
  ] as const)
    if (made === null) return { wrong: `“${text.trim()}” is no date code up to today, as 2540 or 09/2025` };
  const made = { ...(from ? { from: beginOf(from) } : {}), ...(to ? { to: endOf(to) } : {}) };
  if (made.from !== undefined && made.to !== undefined && made.from > made.to)
    return { wrong: "the last one lies before the first" };
  return { made: from || to ? made : undefined, or };
}
