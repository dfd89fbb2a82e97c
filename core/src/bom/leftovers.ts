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
    /^#(N\/A|NV|REF!|VALUE!|WERT!|NAME\?|DIV\/0!|NULL!|NUM!|SPILL!|CALC!|BEZUG!|ÜBERLAUF!|#+)$/i.test(text) ||
    /^#{3,}$/.test(text)
  )
    return { text: "", doubt: "error" };
  if (DATE.test(text)) return { text, doubt: "date" };
  if (/^\d([.,]\d+)?E[+-]?\d{2,}$/i.test(text)) return { text, doubt: "power" };
  return { text };
}
