import { type Cells, plain } from "../table/columns.ts";
import { expandRefs } from "./refs.ts";
import { readValue } from "./value.ts";
import type { BomColumn } from "./words.ts";

/** A column recognised by what it holds. */
export interface ContentColumn {
  readonly key: BomColumn;
  readonly index: number;
}

const SAMPLE = 200;
const REFERENCES = /^[A-Z]{1,4}\d{1,4}[A-H]?\b/i;
const PACKAGE =
  /^(?:[RCLD]_?)?(?:01005|0201|0402|0603|0805|1206|1210|1812|2010|2512)(?:$|[_ M(-])|(?:SO(?:IC|P|T|D|N)?|[TL]?QF[NP]|DFN|DIP|BGA|TO|SMA|SMB|SMC|MELF|TSSOP|MSOP|HDR|PIN|JST|CASE)[-_ ]?[A-Z]?\d/i;
const PART_NUMBER = /^(?=.*\d)(?=.*[A-Z])[A-Z0-9][A-Z0-9./#+_-]{4,}$/i;

/** Whether a cell is references and nothing else. */
export function readsAsReferences(text: string): boolean {
  if (!REFERENCES.test(text)) return false;
  const list = expandRefs(text);
  return list.bad.length === 0 && list.refs.length > 0;
}

/**
 * Which columns hold references, values, packages and part numbers, told by their cells alone.
 *
 * A column is one of references when nine of ten of its cells expand to designators without a rest; of packages or part
 * numbers when six of ten look like it; of values when half read as one for the references beside them. Quantities are
 * whole numbers that agree with the references more often than not.
 *
 * @param from first row of data
 * @param taken columns that are spoken for
 */
export function columnsByContent(
  cells: Cells,
  from: number,
  taken: ReadonlySet<number> = new Set(),
  known?: number,
): ContentColumn[] {
  const given = cells.slice(from, from + SAMPLE).filter((r) => r.some((t) => t.trim() !== ""));
  const width = given.reduce((n, r) => Math.max(n, r.length), 0);
  // in a wide table a row of one or two cells is a title, or a sum
  const wide = given.filter((r) => r.filter((t) => t.trim() !== "").length > 2);
  const rows = width >= 4 && wide.length > 0 ? wide : given;
  if (rows.length === 0) return [];
  const column = (i: number) => rows.map((r) => (r[i] ?? "").trim());
  const share = (i: number, is: (text: string) => boolean) => {
    const filled = column(i).filter((t) => t !== "");
    return filled.length === 0 ? 0 : filled.filter(is).length / filled.length;
  };
  const free = Array.from({ length: width }, (_, i) => i).filter((i) => !taken.has(i));
  const found: ContentColumn[] = [];
  const best = (
    key: BomColumn,
    least: number,
    is: (text: string) => boolean,
    isFit?: (i: number) => boolean,
  ) => {
    let index = -1;
    let most = least;
    for (const i of free) {
      if (found.some((f) => f.index === i) || (isFit && !isFit(i))) continue;
      const s = share(i, is);
      if (s > most || (s === most && index < 0 && s > 0)) {
        most = s;
        index = i;
      }
    }
    if (index >= 0) found.push({ key, index });
    return index;
  };
  const refs = known ?? best("refs", 0.9, readsAsReferences);
  if (refs === undefined || refs < 0) return [];
  const firstRef = rows.map((r) => expandRefs(r[refs] ?? "").refs);
  const agrees = (i: number) => {
    const given = rows
      .map((r, k) => [(r[i] ?? "").trim(), firstRef[k]!.length] as const)
      .filter(([t]) => t !== "");
    return given.length > 0 && given.filter(([t, n]) => Number(t) === n).length > given.length * 0.6;
  };
  best("qty", 0.9, (t) => /^\d{1,4}$/.test(t), agrees);
  best("package", 0.6, (t) => PACKAGE.test(t));
  const value = free.find(
    (i) =>
      i !== refs &&
      !found.some((f) => f.index === i) &&
      rows.filter((r, k) => readValue(r[i] ?? "", firstRef[k]![0]).value !== null).length * 2 >
        rows.filter((_, k) => /^[RCLY]\d/.test(firstRef[k]![0] ?? "")).length &&
      rows.some((r, k) => readValue(r[i] ?? "", firstRef[k]![0]).value !== null),
  );
  if (value !== undefined) found.push({ key: "value", index: value });
  best(
    "mpn",
    0.6,
    (t) => PART_NUMBER.test(t),
    (i) => new Set(column(i)).size > rows.length / 2,
  );
  maker(rows, found, free, column);
  return found;
}

/** The maker of a part number: words where a number stands and nowhere else, fewer of them than numbers. */
function maker(
  rows: Cells,
  found: ContentColumn[],
  free: readonly number[],
  column: (i: number) => string[],
): void {
  const mpn = found.find((f) => f.key === "mpn")?.index;
  if (mpn === undefined) return;
  const numbers = column(mpn);
  const index = free.find((i) => {
    if (found.some((f) => f.index === i)) return false;
    const texts = column(i);
    const filled = texts.filter((t) => t !== "");
    return (
      filled.length >= 2 &&
      texts.every((t, k) => (t === "") === (numbers[k] === "")) &&
      filled.every((t) => /^\p{L}[\p{L}\p{M} .,&'-]+$/u.test(t)) &&
      new Set(filled).size < new Set(numbers).size
    );
  });
  if (index !== undefined && rows.length > 2) found.push({ key: "maker", index });
}

/** The first row that holds designators in some column: what lies above is titles and headings. */
export function firstDataRow(cells: Cells): number | undefined {
  for (let r = 0; r < Math.min(cells.length, 80); r++)
    if (
      cells[r]!.some((t) => readsAsReferences(t.trim())) &&
      // a heading such as “R1 side” alone is no data
      cells[r]!.filter((t) => t.trim() !== "").length > 1 &&
      !cells[r]!.some((t) => ["qty", "quantity", "value", "footprint", "package"].includes(plain(t)))
    )
      return r;
  return undefined;
}
