import { EXTRA_OPTIONS, type FabOptions, type House, NO_EXTRA } from "../fab/house.ts";
import type { RunDocument, RunQuote } from "./document.ts";

/** What an option is called in a sentence. */
export const OPTION_WORD: Readonly<Record<keyof FabOptions, string>> = {
  thickness: "thickness",
  copper: "copper",
  finish: "finish",
  mask: "mask colour",
  legend: "silkscreen colour",
  bevel: "bevel",
  leadDays: "lead time",
};

const isExtra = (key: string): boolean => (EXTRA_OPTIONS as readonly string[]).includes(key);

/** The fab quotation of a house, whether it holds or not. */
export const quotationOf = (doc: RunDocument, house: string): RunQuote | undefined =>
  doc.quotes.find((q) => q.kind === "fab" && q.house === house);

/**
 * How what is ordered now differs from what was quoted, in words; empty where the quotation holds. One that does not say
 * what it was for is taken to hold, which a note of the run says.
 *
 * @param house gives the options their names
 */
export function quotationMisfits(
  q: RunQuote,
  now: { readonly boards: number; readonly options: FabOptions; readonly revision: string },
  house: House,
): string[] {
  const { basis } = q;
  if (!basis) return [];
  const label = (key: keyof FabOptions, value: string | number) =>
    key === "leadDays"
      ? `${value} days`
      : ((house.options[key] ?? []).find((o) => o.value === value)?.label ?? String(value));
  const out: string[] = [];
  if (basis.revision !== now.revision) out.push(`revision ${basis.revision}, now it is ${now.revision}`);
  if (basis.boards !== now.boards) out.push(`${basis.boards} boards, now it is ${now.boards}`);
  for (const key of Object.keys(OPTION_WORD) as (keyof FabOptions)[]) {
    // what only some houses make was not asked for where the quotation does not say it
    const unsaid = isExtra(key) ? NO_EXTRA : undefined;
    const [was, is] = [basis.options[key] ?? unsaid, now.options[key] ?? NO_EXTRA];
    if (was !== undefined && was !== is)
      out.push(`${OPTION_WORD[key]} ${label(key, was)}, now it is ${label(key, is)}`);
  }
  return out;
}
