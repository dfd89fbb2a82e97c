import { type Finding, FindingList } from "../board/findings.ts";
import type { Cells } from "../table/columns.ts";
import { type Layout, layoutOf } from "./layout.ts";
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

/** A parts list as read. */
export interface Bom {
  readonly columns: Partial<Record<BomColumn, string>>;
  readonly headers: readonly string[];
  readonly lines: readonly BomLine[];
  readonly findings: readonly Finding[];
}

const DNP =
  /(^|[^A-Z0-9])(DNP|DNI|DNF|DNM|DNS|OMIT|UNPOPULATED|NOT FITTED|NO FIT|NOT MOUNTED|DO NOT (POPULATE|PLACE|FIT|MOUNT|INSTALL))($|[^A-Z0-9])/i;
/** Short marks that mean it only when they stand alone: NP0 and 100 NF are something else. */
const BARE_DNP = /^(NF|NP|N\.?F\.?|NO POP|NOPOP|DEPOP)$/i;
/** Marks that some shops use for a part left off and others for a value of their own. */
const DOUBTFUL = /^(NC|OPEN|X|TBD|\?)$/i;
const TRUE = /^(true|yes|y|1|x|ja|✓)$/i;
const FALSE = /^(false|no|n|0|nein|-|)$/i;

/**
 * Reads a parts list: columns by their headers, references expanded, values parsed, do-not-place marks found.
 *
 * Bad rows become findings with their row; the good rows stay. Never throws.
 *
 * @param chosen columns a person assigned: key → header text
 */
export function readBom(cells: Cells, file: string, chosen: Partial<Record<BomColumn, string>> = {}): Bom {
  const found = new FindingList(20);
  const layout = layoutOf(cells, file, chosen, found);
  if (!layout) return { columns: {}, headers: cells[0] ?? [], lines: [], findings: found.done() };
  return readRows(cells, file, layout, found);
}

/**
 * Reads a parts list whose columns a person confirmed: by place, whatever their headings say.
 * @see readBom
 */
export const readBomAt = (cells: Cells, file: string, layout: Layout): Bom =>
  readRows(cells, file, layout, new FindingList(20));

function readRows(cells: Cells, file: string, layout: Layout, found: FindingList): Bom {
  const { at, heads, firstRow } = layout;
  const lines: BomLine[] = [];
  const owner = new Map<string, number>();
  for (let r = firstRow; r < cells.length; r++) {
    const cell = (key: BomColumn) => (at[key] === undefined ? "" : (cells[r]![at[key]!] ?? "").trim());
    if (cells[r]!.every((t) => t.trim() === "")) continue;
    const line = readLine(cell, r + 1, file, found);
    if (!line) continue;
    for (const ref of line.refs) {
      const first = owner.get(ref);
      if (first !== undefined)
        found.add({
          tag: "bom-duplicate-ref",
          level: "error",
          file,
          row: r + 1,
          about: [ref],
          text: `${ref} stands in row ${first} and again in row ${r + 1}.`,
          do: "Decide which of the two lines it belongs to.",
        });
      else owner.set(ref, r + 1);
    }
    lines.push(line);
  }
  const columns = Object.fromEntries(
    Object.entries(at).map(([k, i]) => [k, heads[i as number]?.trim() || `column ${(i as number) + 1}`]),
  );
  return { columns, headers: heads, lines, findings: found.done() };
}

function readLine(
  cell: (key: BomColumn) => string,
  row: number,
  file: string,
  found: FindingList,
): BomLine | undefined {
  // the last row of many lists adds up what stands above it
  const named = cell("refs");
  const texts = named === "" ? [cell("value"), cell("description"), cell("package"), cell("mpn")] : [named];
  if (texts.some((t) => SUM.test(t))) return undefined;
  const refList = expandRefs(named);
  for (const b of refList.bad)
    found.add({
      tag: "bom-bad-ref",
      level: "warning",
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
  const stated = cell("qty");
  let qtyStated: number | undefined;
  if (stated !== "") {
    const { n, wasGrouped } = readQuantity(stated);
    if (Number.isFinite(n) && n >= 0) qtyStated = n;
    if (wasGrouped)
      found.add({
        tag: "bom-qty-grouped",
        level: "remark",
        file,
        row,
        about: [...refList.refs],
        text: `The quantity “${stated}” was read as ${n} pieces: parts come whole.`,
      });
    if (qtyStated === undefined)
      found.add({
        tag: "bom-qty-invalid",
        level: "error",
        file,
        row,
        about: [...refList.refs],
        text: `The quantity “${stated}” is ${n < 0 ? "negative" : "not a number"}${refList.refs.length > 0 ? "; the references were counted instead" : "; the line was left out"}.`,
        do: "Correct the quantity.",
      });
  }
  const refs = refList.refs;
  if (refs.length === 0 && qtyStated === undefined) return undefined;
  if (/^\d(\.\d+)?E\+\d+$/i.test(cell("mpn")))
    found.add({
      tag: "bom-number-mangled",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `The part number “${cell("mpn")}” was turned into a number by a spreadsheet.`,
      do: "Type it as text; its digits are lost here.",
    });
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
  const [dnpCell, fitCell] = [cell("dnp"), cell("fitted")];
  if (DOUBTFUL.test(valueText) && refs.length > 0)
    found.add({
      tag: "bom-fitted-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `“${valueText}” may mean that ${refs.length === 1 ? "it is" : "they are"} not fitted.`,
      do: "Mark the line as not fitted if it is meant so; it counts as fitted now.",
    });
  const marks = [valueText, cell("description"), dnpCell, fitCell].some(
    (t) => DNP.test(t) || BARE_DNP.test(t.trim()),
  );
  const dnp = marks || TRUE.test(dnpCell) || (fitCell !== "" && FALSE.test(fitCell));
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

const SUM = /^(sub[\s-]*|grand\s+)?(total|sum|summe|gesamt)\b/i;

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
