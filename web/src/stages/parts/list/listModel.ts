import {
  type Bom,
  type BomColumn,
  type Cells,
  type Finding,
  type Layout,
  type LineOverride,
  type RunLine,
  readBomAt,
  recogniseColumns,
} from "@kobbin/core";
import { COLUMN_WORDS, offWords } from "../../../proof/columnWords.ts";

/** What a column of a list may be taken for: a fact of the line, one version of the product, or nothing. */
export type ColumnRole = BomColumn | "variant" | OffRole;
/** Lines with this word or sign in the column are left off; "off " alone are those without one. */
export type OffRole = `off ${string}`;

const markOf = (role: ColumnRole): string | undefined =>
  role.startsWith("off ") ? role.slice(4) : undefined;
/** What a column may hold, in words; a mark that was said to mean left off among them. */
export const roleWords = (list: TakenList): readonly (readonly [ColumnRole, string])[] => [
  ...ROLE_WORDS,
  ...Object.values(list.roles).flatMap((r) => {
    const mark = markOf(r);
    return mark === undefined ? [] : [[r, offWords(mark)] as const];
  }),
];
export const ROLE_WORDS: readonly (readonly [ColumnRole, string])[] = [
  ...COLUMN_WORDS,
  ["variant", "a variant"],
];

/** A list with its columns as they are taken now. */
export interface TakenList {
  readonly cells: Cells;
  readonly firstRow: number;
  readonly heads: readonly string[];
  /** Column → what it is taken for. */
  readonly roles: Readonly<Record<number, ColumnRole>>;
  /** Column → why, where nobody said so. */
  readonly because: Readonly<Record<number, "heading" | "content" | "before" | "you">>;
}

/** What tells a list's source from others: its headings, else how wide it is. */
export const sourceOf = (list: Pick<TakenList, "heads" | "cells">): string =>
  list.heads.some((h) => h.trim() !== "")
    ? list.heads
        .map((h) => h.trim().toLowerCase())
        .join("|")
        .slice(0, 1000)
    : `no headings, ${list.cells[0]?.length ?? 0} columns`;

/** A list as it is recognised, or as it was confirmed before for such headings. */
export function takeList(
  cells: Cells,
  known: Readonly<Record<string, Readonly<Record<string, string>>>>,
): TakenList {
  const found = recogniseColumns(cells);
  const base = { cells, firstRow: found.firstRow, heads: found.heads };
  const before = known[sourceOf(base)];
  if (before)
    return {
      ...base,
      roles: Object.fromEntries(Object.entries(before).map(([i, r]) => [Number(i), r as ColumnRole])),
      because: Object.fromEntries(Object.keys(before).map((i) => [Number(i), "before" as const])),
    };
  const entries = Object.entries(found.at) as [BomColumn, number][];
  return {
    ...base,
    roles: Object.fromEntries(entries.map(([key, i]) => [i, key])),
    because: Object.fromEntries(
      entries.map(([key, i]) => [i, found.because[key] === "heading" ? "heading" : "content"] as const),
    ),
  };
}

/** Another role for a column; a role one column can have only is taken from the other, variants may be many. */
export function withRole(list: TakenList, column: number, role: ColumnRole | ""): TakenList {
  const roles: Record<number, ColumnRole> = {};
  for (const [i, r] of Object.entries(list.roles))
    if (Number(i) !== column && (r !== role || role === "variant")) roles[Number(i)] = r;
  if (role !== "") roles[column] = role;
  return { ...list, roles, because: { ...list.because, [column]: "you" } };
}

/** What is to be said of each row, once, with everything that is wrong in it; what is about no row stands by itself. */
export function byRow(findings: readonly Finding[]): { readonly row?: number; readonly texts: string[] }[] {
  const rows = new Map<number | string, { row?: number; texts: string[] }>();
  for (const [i, f] of findings.entries()) {
    const key = f.row ?? `none ${i}`;
    const of = rows.get(key) ?? { ...(f.row === undefined ? {} : { row: f.row }), texts: [] };
    rows.set(key, of);
    for (const text of [f.text, f.do ?? ""]) if (text !== "" && !of.texts.includes(text)) of.texts.push(text);
  }
  return [...rows.values()];
}

/** What a list becomes: lines, their findings, and the variants its columns name. */
export interface ReadList {
  readonly bom: Bom;
  readonly lines: readonly Omit<RunLine, "id">[];
  /** Name of a variant → position of a line → what is otherwise. */
  readonly variants: readonly {
    readonly name: string;
    readonly overrides: ReadonlyMap<number, LineOverride>;
  }[];
}

/** Columns nothing is asked of any more: a person said what they are, now or for an earlier list of that make. */
function answeredIn({ cells, because }: TakenList): number[] {
  const said = Object.entries(because).filter(([, why]) => why === "you" || why === "before");
  if (said.some(([, why]) => why === "before"))
    return Array.from({ length: Math.max(0, ...cells.slice(0, 200).map((r) => r.length)) }, (_, i) => i);
  return said.map(([i]) => Number(i));
}

const LEFT_OFF = /^(|0|-|no|n|nein|false|dnp|dni|dnf|nf|np|omit|not fitted|do not (place|fit|populate))$/i;

/** Reads a list with the columns as they are taken. */
export function readList(list: TakenList): ReadList {
  const at = Object.fromEntries(
    Object.entries(list.roles)
      .filter(([, r]) => r !== "variant" && markOf(r) === undefined)
      .map(([i, r]) => [r, Number(i)]),
  ) as Layout["at"];
  const [off] = Object.entries(list.roles).filter(([, r]) => markOf(r) !== undefined);
  const bom =
    at.refs === undefined && at.qty === undefined
      ? { columns: {}, headers: list.heads, lines: [], findings: [] }
      : readBomAt(list.cells, "the list", {
          at,
          heads: list.heads,
          firstRow: list.firstRow,
          answered: answeredIn(list),
          ...(off ? { leftOff: { column: Number(off[0]), mark: markOf(off[1])! } } : {}),
        });
  const lines = bom.lines.map((l) => ({
    refs: l.refs,
    qty: l.refs.length > 0 ? l.refs.length : l.qty,
    valueText: l.valueText,
    package: l.package,
    mpn: l.mpn,
    maker: l.maker,
    description: l.description,
    dnp: l.dnp,
    mount: l.refs.length > 0 ? ("machine" as const) : ("none" as const),
  }));
  const variants = Object.entries(list.roles)
    .filter(([, r]) => r === "variant")
    .map(([i]) => {
      const column = Number(i);
      const overrides = new Map<number, LineOverride>();
      bom.lines.forEach((l, position) => {
        const isOff = LEFT_OFF.test((list.cells[l.row - 1]?.[column] ?? "").trim());
        if (isOff !== l.dnp) overrides.set(position, { dnp: isOff });
      });
      return { name: list.heads[column]?.trim() || `column ${column + 1}`, overrides };
    });
  return { bom, lines, variants };
}
