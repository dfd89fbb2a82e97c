import type { FindingList } from "../findings.ts";
import { markIn, markInColumn } from "./marks.ts";
import { expandRefs } from "./refs.ts";
import { readValue, type Value } from "./value.ts";
import type { BomColumn } from "./words.ts";

/** A line of a parts list, one per row of the file. */
export interface BomLine {
  readonly refs: readonly string[];
  /** What the references count; the stated quantity where there are none. */
  readonly qty: number;
  readonly qtyStated?: number;
  readonly value: Value | null;
  readonly valueText: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly dnp: boolean;
  /** Row in the file, from 1. */
  readonly row: number;
}

/** The text of a row's cell, by what its column holds. */
export type Cell = (key: BomColumn) => string;

/** One row as a line of the list; nothing where it names no part. What is odd of it is said. */
export function readLine(cell: Cell, row: number, file: string, found: FindingList): BomLine | undefined {
  const named = cell("refs");
  if (SUM.test(named === "" ? cell("mpn") : named)) return undefined;
  const refs = refsOf(named, row, file, found);
  const qtyStated = quantityOf(cell("qty"), refs, row, file, found);
  if (refs.length === 0 && qtyStated === undefined) return undefined;
  if (refs.length > 0 && qtyStated !== undefined && qtyStated !== refs.length)
    found.add({
      tag: "bom-qty-mismatch",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `The file says ${qtyStated}, the references count ${refs.length}; ${refs.length} is used.`,
      do: "Check whether a reference is missing.",
    });
  const valueText = cell("value");
  const reading = readValue(valueText, refs[0]);
  if (reading.doubt)
    found.add({
      tag: "bom-value-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `${reading.doubt}.`,
    });
  const dnp = isLeftOff(cell, refs, row, file, found);
  return {
    refs,
    qty: refs.length > 0 ? refs.length : qtyStated!,
    ...(qtyStated === undefined ? {} : { qtyStated }),
    value: reading.value,
    valueText,
    package: packageOf(cell("package")),
    mpn: cell("mpn"),
    maker: cell("maker"),
    description: cell("description"),
    dnp,
    row,
  };
}

/** References of a line, expanded; what is none, and what stands twice, is said. */
function refsOf(named: string, row: number, file: string, found: FindingList): readonly string[] {
  const refList = expandRefs(named);
  for (const b of refList.bad)
    found.add({
      tag: "bom-bad-ref",
      // what reads like a reference and is none is a part that is missing
      level: /[A-Za-z]\d/.test(b.text) ? "error" : "warning",
      file,
      row,
      text: `“${b.text}”: ${b.why}.`,
      do: "Correct the reference.",
    });
  if (refList.duplicates.length > 0)
    found.add({
      tag: "bom-duplicate-ref",
      level: "warning",
      file,
      row,
      about: refList.duplicates,
      text: `${refList.duplicates.join(", ")} named twice in one line; counted once.`,
    });
  return refList.refs;
}

/** The quantity a file states, as far as it is one. */
function quantityOf(
  stated: string,
  refs: readonly string[],
  row: number,
  file: string,
  found: FindingList,
): number | undefined {
  if (stated === "") return undefined;
  const { n, wasGrouped } = readQuantity(stated);
  const qtyStated = Number.isFinite(n) && n >= 0 ? n : undefined;
  if (wasGrouped)
    found.add({
      tag: "bom-qty-grouped",
      level: "remark",
      file,
      row,
      about: [...refs],
      text: `The quantity “${stated}” was read as ${n} pieces: parts come whole.`,
    });
  if (qtyStated === undefined)
    found.add({
      tag: "bom-qty-invalid",
      level: "error",
      file,
      row,
      about: [...refs],
      text: `The quantity “${stated}” is ${n < 0 ? "negative" : "not a number"}${refs.length > 0 ? "; the references were counted instead" : "; the line was left out"}.`,
      do: "Correct the quantity.",
    });
  return qtyStated;
}

/** Whether a line is not fitted, by its columns and the marks in its texts; what may mean it is said. */
function isLeftOff(
  cell: Cell,
  refs: readonly string[],
  row: number,
  file: string,
  found: FindingList,
): boolean {
  const valueText = cell("value");
  const columns = [markInColumn(cell("dnp"), true), markInColumn(cell("fitted"), false)];
  const marks = [valueText, cell("description"), cell("mpn"), cell("package")].map(markIn);
  const isOff = columns.includes("no") || marks.includes("no");
  const strange = [cell("dnp"), cell("fitted")].find((t, k) => columns[k] === "unknown" && t !== "");
  if (!isOff && strange !== undefined && refs.length > 0)
    found.add({
      tag: "bom-fitted-unknown",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `“${strange}” says neither that ${refs.length === 1 ? "it is" : "they are"} fitted nor that not; taken as not fitted.`,
      do: "Write yes or no there.",
    });
  else if (!isOff && markIn(valueText) === "unknown" && refs.length > 0)
    found.add({
      tag: "bom-fitted-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `“${valueText}” may mean that ${refs.length === 1 ? "it is" : "they are"} not fitted.`,
      do: "Mark the line as not fitted if it is meant so; it counts as fitted now.",
    });
  return isOff || (strange !== undefined && refs.length > 0);
}

/** Begins a row that adds up others. */
export const SUM = /^(sub[\s-]*|grand\s+)?(total|sum|summe|gesamt)\b/i;

/** A quantity as people write it: 10, 10 pcs, 3x, 2,5 of a metre, and 1.000 or 1,000 for a thousand pieces. */
function readQuantity(text: string): { readonly n: number; readonly wasGrouped: boolean } {
  const bare = text
    .replace(/^[x×]\s*|\s*([x×]|pcs?\.?|pieces?|st(k|ück)?\.?|ea\.?|off|units?|nos?\.?)$/gi, "")
    .trim();
  if (/^\d{1,3}([.,' \u00a0]\d{3})+$/.test(bare))
    return { n: Number(bare.replace(/\D/g, "")), wasGrouped: true };
  return { n: bare === "" ? Number.NaN : Number(bare.replace(",", ".")), wasGrouped: false };
}

/** Chip sizes whose leading zero a spreadsheet took: 402 was 0402. */
const packageOf = (text: string): string => (/^(201|402|603|805)$/.test(text) ? `0${text}` : text);
