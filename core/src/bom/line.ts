import { type FindingList, few } from "../findings.ts";
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
  /** Whether it is fitted cannot be told from the list; it is asked, and until then it is neither. */
  readonly fitted?: "doubtful";
  /** Row in the file, from 1. */
  readonly row: number;
}

/** The text of a row's cell, by what its column holds. */
export type Cell = (key: BomColumn) => string;

/**
 * One row as a line of the list; nothing where it names no part. What is odd of it is said.
 *
 * @param isDecimal quantities of the list have three decimals: 1.000 is one
 */
export function readLine(
  cell: Cell,
  row: number,
  file: string,
  found: FindingList,
  isDecimal = false,
): BomLine | undefined {
  const named = cell("refs");
  if (SUM.test(named === "" ? cell("mpn") : named)) return undefined;
  const references = refsOf(named, row, file, found);
  const { refs } = references;
  const qtyStated = quantityOf(cell("qty"), isDecimal, refs, row, file, found);
  if (refs.length === 0 && qtyStated === undefined) return undefined;
  // what a 0 says is told by the other lines
  if (refs.length > 0 && qtyStated !== undefined && qtyStated > 0 && qtyStated !== refs.length)
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
      text: `${refs.length > 0 ? `${few(refs, 4)}: ` : ""}${reading.doubt}.`,
    });
  const dnp = isLeftOff(cell, references, row, file, found);
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

interface Named {
  readonly refs: readonly string[];
  /** What stands beside them and says, or may say, that they are left off. */
  readonly marks: readonly { readonly text: string; readonly isCertain: boolean }[];
}

/** References of a line, expanded; what is none, what stands beside them, and what stands twice, is said. */
function refsOf(named: string, row: number, file: string, found: FindingList): Named {
  const refList = expandRefs(named);
  const { refs } = refList;
  const besides = refList.beside.map((text) => ({ text, mark: markIn(text.replace(/[()[\]{}]/g, "")) }));
  for (const b of besides)
    if (b.mark === "nothing")
      found.add({
        tag: "bom-bad-ref",
        // words alone are a remark of the person who wrote the list
        level: /\d/.test(b.text) ? "warning" : "remark",
        file,
        row,
        about: [...refs],
        text: `“${b.text}” ${refs.length > 0 ? `stands beside ${few(refs, 4)}` : "is no reference"} and was passed over.`,
        do: "If it is a reference, write it without brackets.",
      });
  for (const b of refList.bad)
    found.add({
      tag: "bom-bad-ref",
      // a part may be missing
      level: "error",
      file,
      row,
      text: `“${b.text}”${refs.length > 0 ? ` beside ${few(refs, 4)}` : ""}: ${b.why}.`,
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
  const marks = besides.filter((b) => b.mark !== "nothing");
  return { refs, marks: marks.map((b) => ({ text: b.text, isCertain: b.mark === "no" })) };
}

/** The quantity a file states, as far as it is one. */
function quantityOf(
  stated: string,
  isDecimal: boolean,
  refs: readonly string[],
  row: number,
  file: string,
  found: FindingList,
): number | undefined {
  if (stated === "") return undefined;
  const { n, wasGrouped } = readQuantity(stated, isDecimal);
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
  { refs, marks: beside }: Named,
  row: number,
  file: string,
  found: FindingList,
): boolean {
  const valueText = cell("value");
  const columns = [markInColumn(cell("dnp"), true), markInColumn(cell("fitted"), false)];
  const marks = [valueText, cell("description"), cell("mpn"), cell("package")].map(markIn);
  // a mark beside one reference is that one's; beside several it may be one's or all of them's
  const isOwn = refs.length <= 1 && beside.some((b) => b.isCertain);
  const isOff = columns.includes("no") || marks.includes("no") || isOwn;
  if (!isOff && beside.length > 0)
    found.add({
      tag: "bom-fitted-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text:
        refs.length <= 1
          ? `“${beside[0]!.text}” may mean that ${refs[0] ?? "it"} is not fitted; it counts as fitted.`
          : `“${beside[0]!.text}” stands beside ${few(refs, 4)}: one of them may be left off, or all; they count as fitted.`,
      do: "Give what is left off a line of its own, and mark that.",
    });
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
export const SUM =
  /^(sub[\s-]*|grand\s+)?(totale?|totaal|totalt?|sum|summe|summa|suma|gesamt|razem|celkem|součet)(?=$|[^\p{L}])/iu;

const THOUSANDTHS = /^\d{1,3}[.,]\d{3}$/;

/** Whether the quantities of a list have three decimals: read so they are what the references of their rows count, and read otherwise none is. */
export function hasThousandths(rows: readonly { readonly qty: string; readonly refs: string }[]): boolean {
  let isDecimal = false;
  for (const { qty, refs } of rows) {
    if (!THOUSANDTHS.test(qty.trim())) continue;
    const n = expandRefs(refs).refs.length;
    if (n === 0) continue;
    if (readQuantity(qty.trim(), false).n === n) return false;
    isDecimal ||= readQuantity(qty.trim(), true).n === n;
  }
  return isDecimal;
}

/** A quantity as people write it: 10, 10 pcs, 3x, 2,5 of a metre, and 1.000 or 1,000 for a thousand pieces. */
function readQuantity(
  text: string,
  isDecimal: boolean,
): { readonly n: number; readonly wasGrouped: boolean } {
  const bare = text
    .replace(/^[x×]\s*|\s*([x×]|pcs?\.?|pieces?|st(k|ück)?\.?|ea\.?|off|units?|nos?\.?)$/gi, "")
    .trim();
  if (/^\d{1,3}([.,' \u00a0]\d{3})+$/.test(bare) && !(isDecimal && THOUSANDTHS.test(bare)))
    return { n: Number(bare.replace(/\D/g, "")), wasGrouped: true };
  return { n: bare === "" ? Number.NaN : Number(bare.replace(",", ".")), wasGrouped: false };
}

/** Chip sizes whose leading zero a spreadsheet took: 402 was 0402. */
const packageOf = (text: string): string => (/^(201|402|603|805)$/.test(text) ? `0${text}` : text);
