import {
  type House,
  type ProfileColumn,
  type ProfileList,
  profileCells,
  profileColumns,
  profileEntry,
} from "@kobbin/core";
import { Plus, X } from "lucide-react";
import { typedDate } from "../../../ui/text/dates.ts";

/** An entry of a list as it is typed, with what it was. */
export interface TypedEntry {
  readonly id: number;
  readonly before?: object;
  readonly cells: readonly string[];
}

let next = 0;
/** The entries of a list, to be typed over. */
export const typedEntries = (
  list: ProfileList,
  entries: readonly object[],
  house: House,
): readonly TypedEntry[] =>
  entries.map((before) => ({ id: next++, before, cells: profileCells(list, before, house) }));

/** What was typed, read back; what stands where and cannot be. */
export function readEntries(
  list: ProfileList,
  typed: readonly TypedEntry[],
  house: House,
): {
  readonly entries: readonly Readonly<Record<string, unknown>>[];
  readonly wrong?: { readonly row: number; readonly column: number; readonly text: string };
} {
  const columns = profileColumns(list);
  const entries: Readonly<Record<string, unknown>>[] = [];
  for (const [row, t] of typed.entries()) {
    // a day is typed as any other date of the shop
    const cells = t.cells.map((c, i) => (columns[i]?.kind === "day" ? (typedDate(c) ?? c) : c));
    const r = profileEntry(list, cells, t.before, house);
    if ("wrong" in r) return { entries, wrong: { row, column: r.column, text: r.wrong } };
    entries.push(r.entry);
  }
  return { entries };
}

/** Least width of a column by what is typed in it. */
const WIDTH: Readonly<Record<string, string>> = {
  text: "min-w-32",
  conditions: "min-w-28",
  limits: "min-w-28",
  measures: "min-w-36",
};
const widthOf = (c: ProfileColumn): string =>
  c.key === "called" ? "min-w-20" : (WIDTH[c.kind] ?? "num min-w-14 !px-1 text-right");

/** A list of a profile as a table to type in: a row an entry, more at its end, each to be taken out. */
export function RowsEdit({
  list,
  name,
  rows,
  wrong,
  onChange,
}: {
  list: ProfileList;
  /** What the list is of, for its fields. */
  name: string;
  rows: readonly TypedEntry[];
  wrong: ReturnType<typeof readEntries>["wrong"];
  onChange: (rows: readonly TypedEntry[]) => void;
}) {
  const columns = profileColumns(list);
  const put = (row: number, column: number, text: string) =>
    onChange(
      rows.map((r, i) => (i === row ? { ...r, cells: r.cells.map((c, k) => (k === column ? text : c)) } : r)),
    );
  return (
    <div className="overflow-x-auto">
      {rows.length > 0 && (
        <table className="rows tight w-full">
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c.key} className="!px-1 text-[13px]">
                  {c.label}
                </th>
              ))}
              <th>
                <span className="sr-only">take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => (
              <tr key={r.id}>
                {columns.map((c, k) => {
                  const isWrong = wrong?.row === i && wrong.column === k;
                  return (
                    <td key={c.key} className="!px-1">
                      <input
                        aria-label={`${name}, ${c.label}, row ${i + 1}`}
                        aria-invalid={isWrong || undefined}
                        className={`!min-h-7 w-full ${widthOf(c)}`}
                        maxLength={500}
                        value={r.cells[k] ?? ""}
                        onChange={(e) => put(i, k, e.target.value)}
                      />
                    </td>
                  );
                })}
                <td className="!px-1">
                  <button
                    type="button"
                    aria-label={`Take ${r.cells[0] || "the row"} out of ${name}`}
                    className="p-1 text-ink-2 hover:text-ink"
                    onClick={() => onChange(rows.filter((x) => x !== r))}
                  >
                    <X className="size-4" aria-hidden />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {wrong && (
        <p role="alert" className="text-[13px] text-stop">
          Row {wrong.row + 1}: {wrong.text}
        </p>
      )}
      <button
        type="button"
        className="quiet-link inline-flex items-center gap-1 py-1"
        onClick={() => onChange([...rows, { id: next++, cells: columns.map(() => "") }])}
      >
        <Plus className="size-3.5" aria-hidden /> one more
        <span className="sr-only"> in {name}</span>
      </button>
    </div>
  );
}
