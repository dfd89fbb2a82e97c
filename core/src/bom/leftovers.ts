import type { FindingList } from "../findings.ts";

/** What a spreadsheet left in a cell, undone where it is certain. */
export interface Cleaned {
  readonly text: string;
  /** What cannot be undone, and has to be asked about. */
  readonly doubt?: "error" | "date" | "power";
}

const MONTH = "jan|feb|mar|m[äa]r|apr|may|mai|jun|jul|aug|sep|sept|oct|okt|nov|dec|dez";
const DATE = new RegExp(
  `^(\\d{1,2}[-./ ](${MONTH})[a-z]*\\.?([-./ ]\\d{2,4})?|(${MONTH})[a-z]*\\.?[-./ ]\\d{1,4}|\\d{4}-\\d{2}-\\d{2}([T ]\\d{2}:\\d{2}(:\\d{2})?.*)?|\\d{1,2}[./]\\d{1,2}[./]\\d{4})$`,
  "i",
);

/**
 * Undoes what spreadsheets do to cells: a text wrapped as a formula (="001234"), a leading apostrophe, blanks that are
 * none. Error values, dates and powers of ten that were other things once cannot be undone and are told.
 */
export function cleanCell(cell: string): Cleaned {
  let text = cell.replace(/[\u00a0\u2007\u202f\ufeff]/g, " ").trim();
  const formula = /^=\s*"((?:[^"]|"")*)"$/.exec(text) ?? /^=\s*T\("((?:[^"]|"")*)"\)$/i.exec(text);
  if (formula) text = formula[1]!.replaceAll('""', '"').trim();
  if (/^'(?=\S)/.test(text)) text = text.slice(1);
  if (
    /^#(NO VALUE!|N\/A|NV|REF!|VALUE!|WERT!|NAME\?|DIV\/0!|NULL!|NUM!|SPILL!|CALC!|BEZUG!|ÜBERLAUF!|#+)$/i.test(
      text,
    ) ||
    /^#{3,}$/.test(text)
  )
    return { text: "", doubt: "error" };
  if (DATE.test(text)) return { text, doubt: "date" };
  if (/^\d([.,]\d+)?E[+-]?\d{2,}$/i.test(text)) return { text, doubt: "power" };
  return { text };
}

const COLUMN: Readonly<Record<string, string>> = {
  refs: "reference",
  value: "value",
  mpn: "part number",
  package: "package",
  qty: "quantity",
};

/** Says what a spreadsheet left in a cell in the place of what stood there. */
export function sayLeftover(
  doubt: "error" | "date" | "power",
  key: string,
  text: string,
  row: number,
  about: readonly string[],
  file: string,
  found: FindingList,
): void {
  if (doubt === "power" && key !== "mpn") return;
  if (doubt === "date" && key === "qty") return;
  const what = COLUMN[key] ?? key;
  found.add({
    tag: "bom-number-mangled",
    level: doubt === "error" ? "error" : "warning",
    file,
    row,
    about,
    text:
      doubt === "error"
        ? `The ${what} is an error of the spreadsheet; it was taken as empty.`
        : `The ${what} “${text}” ${doubt === "date" ? "is a date: a spreadsheet may have made it of something like 2-1 or 1/2" : "was turned into a number by a spreadsheet"}.`,
    do:
      doubt === "error"
        ? "Mend the formula, or type the value."
        : "Type it as text; what it was cannot be known from here.",
  });
}
