import { BudgetError, type DropBudget } from "./budget.ts";
import { readDirectory, unpackEntry } from "./directory.ts";

export const TOO_MANY_CELLS = "The tables of the drop hold more cells than a parts list could.";
const TOO_MANY_MERGED = "A sheet merges more cells than a parts list could.";
/** Rows up to which a sheet is read; one that names a later one is no parts list. */
const LAST_ROW = 200_000;

/** Column of a cell's address: A is 1, XFD is 16384. */
function columnOf(letters: string): number {
  let n = 0;
  for (let i = 0; i < letters.length; i++) n = n * 26 + (letters.charCodeAt(i) & 31);
  return n;
}

/**
 * Looks at a workbook before it is opened: how much it unpacks to, how many cells its rows span, how many its merged
 * ones cover. A sheet of two kilobytes can ask for seventeen milliards of them.
 *
 * @returns false where it is no workbook
 * @throws BudgetError where it holds more than the drop may
 */
export function weighSheet(bytes: Uint8Array, budget: DropBudget): boolean {
  const entries = readDirectory(bytes, budget.limits.entries);
  if (!entries?.some((e) => /^xl\//.test(e.name))) return false;
  budget.spend("entries", entries.length, `A workbook holds more than ${budget.limits.entries} files.`);
  for (const e of entries) {
    budget.spend("bytes", e.size, "A workbook unpacks to more than a drop may hold.");
    if (e.isEncrypted) return false;
    // every entry is unpacked once here: what says less than it holds is found out
    const isSheet = /^xl\/worksheets\/[^/]+\.xml$/i.test(e.name);
    const part = unpackEntry(bytes, e);
    if (!part) return false;
    if (isSheet) weigh(new TextDecoder("latin1").decode(part), budget);
  }
  return true;
}

const TAG = /<(?:\w+:)?(row|c|mergeCell)\b([^>]*)>/g;
const ADDRESS = /\b(?:r|ref)\s*=\s*["']\s*\$?([A-Za-z]{0,3})\$?(\d{0,7})(?::\$?([A-Za-z]{1,3})\$?(\d{1,7}))?/;

function weigh(xml: string, budget: DropBudget): void {
  let row = 0;
  let last = 0;
  const endRow = () => {
    // empty cells before the last one are cells too
    if (last > 0) budget.spend("cells", last, TOO_MANY_CELLS);
    last = 0;
  };
  for (const [, tag, attributes] of xml.matchAll(TAG)) {
    const [, letters = "", digits = "", letters2, digits2] = ADDRESS.exec(attributes!) ?? [];
    if (tag === "row") {
      endRow();
      row = digits === "" ? row + 1 : Number(digits);
      if (row > LAST_ROW)
        throw new BudgetError(`A sheet has something in row ${row}; ${LAST_ROW} rows are read.`);
      budget.spend("cells", 1, TOO_MANY_CELLS);
    } else if (tag === "c") {
      last = Math.max(last + 1, letters === "" ? 0 : columnOf(letters));
      if (Number(digits) > LAST_ROW)
        throw new BudgetError(`A sheet has something in row ${digits}; ${LAST_ROW} rows are read.`);
    } else if (letters2 !== undefined) {
      const wide = Math.abs(columnOf(letters2) - columnOf(letters)) + 1;
      const high = Math.abs(Number(digits2) - Number(digits)) + 1;
      budget.spend("merged", wide * high, TOO_MANY_MERGED);
    }
  }
  endRow();
}
