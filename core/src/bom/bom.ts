import { type Finding, FindingList } from "../board/findings.ts";
import { type Cells, type ColumnWords, findHeader, plain } from "../table/columns.ts";
import { expandRefs } from "./refs.ts";
import { readValue, type Value } from "./value.ts";

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

export type BomColumn =
  | "refs"
  | "qty"
  | "value"
  | "package"
  | "mpn"
  | "maker"
  | "description"
  | "dnp"
  | "fitted";

/** Header words of parts lists, in the languages and habits met. */
export const BOM_WORDS: ColumnWords<BomColumn> = {
  refs: [
    "references",
    "reference",
    "refs",
    "ref",
    "designators",
    "designator",
    "refdes",
    "ref des",
    "reference designator",
    "reference designators",
    "part reference",
    "position",
    "bezeichner",
    "parts",
  ],
  qty: [
    "quantity",
    "qty",
    "count",
    "amount",
    "menge",
    "anzahl",
    "pcs",
    "quantity per board",
    "qty per board",
    "#",
  ],
  mpn: [
    "mpn",
    "manufacturer part number",
    "manufacturer part",
    "mfr part number",
    "mfr part",
    "mfg part number",
    "part number",
    "partnumber",
    "part no",
    "maker part number",
    "order code",
  ],
  maker: ["manufacturer", "maker", "mfr", "mfg", "brand", "hersteller"],
  value: ["value", "val", "wert", "comment", "part", "name"],
  package: ["footprint", "package", "case", "size", "pattern", "land pattern", "gehäuse", "bauform"],
  description: ["description", "desc", "remark", "remarks", "notes", "note", "beschreibung"],
  dnp: ["dnp", "dni", "dnf", "do not place", "do not populate", "do not fit", "not fitted", "exclude"],
  fitted: ["fitted", "populate", "populated", "fit", "placed", "mount", "assemble"],
};

const DNP =
  /(^|[^A-Z0-9])(DNP|DNI|DNF|DNM|DNS|OMIT|UNPOPULATED|NOT FITTED|NO FIT|NOT MOUNTED|DO NOT (POPULATE|PLACE|FIT|MOUNT|INSTALL))($|[^A-Z0-9])/i;
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
  const header = findHeader(cells, BOM_WORDS, 2, chosen);
  if (!header || (header.at.refs === undefined && header.at.qty === undefined)) {
    found.add({
      tag: "bom-header-missing",
      level: "error",
      file,
      text: "No row names a column of references or quantities.",
      do: "Say which columns hold the references, the values and the part numbers.",
    });
    return { columns: {}, headers: cells[0] ?? [], lines: [], findings: found.done() };
  }
  const { at } = header;
  const heads = cells[header.row]!;
  if (header.unclaimed.length > 0)
    found.add({
      tag: "bom-column-unknown",
      level: "remark",
      file,
      row: header.row + 1,
      text: `Not used: ${header.unclaimed.join(", ")}.`,
    });
  const lines: BomLine[] = [];
  const owner = new Map<string, number>();
  for (let r = header.row + 1; r < cells.length; r++) {
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
  const columns = Object.fromEntries(Object.entries(at).map(([k, i]) => [k, heads[i as number]!]));
  return { columns, headers: heads, lines, findings: found.done() };
}

function readLine(
  cell: (key: BomColumn) => string,
  row: number,
  file: string,
  found: FindingList,
): BomLine | undefined {
  const refList = expandRefs(cell("refs"));
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
    const n = Number(stated.replace(",", "."));
    if (Number.isFinite(n) && n >= 0) qtyStated = n;
    else
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
  const marks = [valueText, cell("description"), dnpCell, fitCell].some((t) => DNP.test(t));
  const dnp = marks || TRUE.test(dnpCell) || (fitCell !== "" && FALSE.test(fitCell));
  return {
    refs,
    qty: refs.length > 0 ? refs.length : qtyStated!,
    ...(qtyStated === undefined ? {} : { qtyStated }),
    value: reading.value,
    valueText,
    package: cell("package"),
    mpn: cell("mpn"),
    maker: cell("maker"),
    description: cell("description"),
    dnp,
    row,
  };
}

/** True when a table looks like a parts list by its header. */
export const looksLikeBom = (cells: Cells): boolean => {
  const h = findHeader(cells, BOM_WORDS, 2);
  return (
    h !== undefined &&
    (h.at.refs !== undefined || h.at.qty !== undefined) &&
    !looksLikeHeaderOfPlaces(cells[h.row]!)
  );
};

const looksLikeHeaderOfPlaces = (texts: readonly string[]) => {
  const names = texts.map(plain);
  return names.some((n) => /(^| )x( |$)/.test(n)) && names.some((n) => /(^| )y( |$)/.test(n));
};
