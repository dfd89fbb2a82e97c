import { counted } from "../../counted.ts";
import { nameOfValue, plainOf } from "../../fab/fit-options.ts";
import type { House } from "../../fab/house.ts";
import { type FabOptions, OPTION_WORDS, type OptionKey, ORDER_OPTIONS } from "../../fab/options.ts";
import type { RunDocument, RunQuote } from "./document.ts";

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
  now: {
    readonly boards: number;
    readonly options: FabOptions;
    readonly revision: string;
    readonly sheet?: string;
  },
  house: House,
): string[] {
  const { basis } = q;
  if (!basis) return [];
  const label = (key: OptionKey, value: string | number) => nameOfValue([house], key, value);
  const out: string[] = [];
  if (basis.revision !== now.revision) out.push(`revision ${basis.revision}, now it is ${now.revision}`);
  if (basis.boards !== now.boards) out.push(`${counted(basis.boards, "board")}, now it is ${now.boards}`);
  if (basis.sheet !== now.sheet)
    out.push(`${basis.sheet ?? "single boards"}, now it is ${now.sheet ?? "single boards"}`);
  for (const key of ORDER_OPTIONS) {
    // what only some houses make was not asked for where the quotation does not say it
    const [was, is] = [basis.options[key] ?? plainOf(key), now.options[key] ?? plainOf(key)!];
    if (was !== undefined && was !== is)
      out.push(`${OPTION_WORDS[key].word} ${label(key, was)}, now it is ${label(key, is)}`);
  }
  return out;
}
