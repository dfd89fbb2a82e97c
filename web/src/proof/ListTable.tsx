import { GripVertical } from "lucide-react";
import { useState } from "react";
import { Mark } from "../ui/Mark.tsx";

const SHOWN = 40;
const WHY = {
  heading: "by its heading",
  content: "by what it holds",
  before: "as last time",
  you: "you said so",
} as const;
const KEY = "text/x-column";

/** A list as it lies in its file, with what each column is taken for and why. */
export interface ShownList {
  readonly cells: readonly (readonly string[])[];
  readonly firstRow: number;
  readonly heads: readonly string[];
  /** Column → what it is taken for. */
  readonly roles: Readonly<Record<number, string>>;
  readonly because: Readonly<Record<number, keyof typeof WHY>>;
}

/** The list's own rows, each column under what it is taken for; roles are dragged onto columns, or chosen there. */
export function ListTable({
  list,
  words,
  findings = [],
  rows = list.cells.length,
  onRole,
}: {
  list: ShownList;
  /** What columns may hold: its key and how it is called. */
  words: readonly (readonly [string, string])[];
  findings?: readonly { readonly row?: number; readonly level: string; readonly text: string }[];
  /** Rows of the whole list. */
  rows?: number;
  /** A column is something else, or nothing. */
  onRole: (column: number, role: string) => void;
}) {
  const [over, setOver] = useState<number>();
  const width = Math.min(
    40,
    list.cells.slice(0, 200).reduce((n, r) => Math.max(n, r.length), 0),
  );
  const columns = Array.from({ length: width }, (_, i) => i);
  const marked = new Map<number, string>();
  for (const f of findings)
    if (f.row && f.level !== "remark")
      marked.set(f.row, [marked.get(f.row), f.text].filter(Boolean).join(" "));
  const taken = new Set(Object.values(list.roles));
  return (
    <>
      <ul aria-label="What columns may hold" className="mb-2 flex flex-wrap gap-2">
        {words.map(([role, word]) => (
          <li
            key={role}
            draggable
            onDragStart={(e) => {
              e.dataTransfer.setData(KEY, role);
              e.dataTransfer.effectAllowed = "copy";
            }}
            className={`flex cursor-grab items-center gap-1 rounded-[3px] border px-2 py-[2px] text-[13px] ${taken.has(role) && role !== "variant" ? "border-metal-line bg-metal-soft" : "border-rule bg-paper"}`}
          >
            <GripVertical className="size-3.5 text-ink-3" aria-hidden />
            {word}
          </li>
        ))}
      </ul>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard
        tabIndex={0}
        aria-label="The list"
        className="max-h-[42vh] overflow-auto border border-rule"
      >
        <table className="num border-collapse text-[13px]">
          <thead className="sticky top-0 z-10 bg-sheet">
            <tr>
              <th className="px-1">
                <span className="sr-only">Row</span>
              </th>
              {columns.map((i) => {
                const role = list.roles[i];
                const name = list.heads[i]?.trim() || `column ${i + 1}`;
                return (
                  <th
                    key={i}
                    className={`min-w-24 border-b border-l border-rule px-1 py-1 align-top font-sans ${over === i ? "bg-metal-soft" : role ? "" : "bg-paper"}`}
                    onDragOver={(e) => {
                      if (!e.dataTransfer.types.includes(KEY)) return;
                      e.preventDefault();
                      setOver(i);
                    }}
                    onDragLeave={() => setOver(undefined)}
                    onDrop={(e) => {
                      e.preventDefault();
                      setOver(undefined);
                      const dropped = e.dataTransfer.getData(KEY);
                      if (dropped) onRole(i, dropped);
                    }}
                  >
                    <select
                      aria-label={`What ${name} holds`}
                      value={role ?? ""}
                      className={`min-h-7! w-full px-1! py-0! text-[13px] ${role ? "border-metal-line font-semibold" : "text-ink-2"}`}
                      onChange={(e) => onRole(i, e.target.value)}
                    >
                      <option value="">not used</option>
                      {words.map(([v, word]) => (
                        <option key={v} value={v}>
                          {word}
                        </option>
                      ))}
                    </select>
                    <span className="block text-[12px] font-normal text-ink-3">
                      {role && list.because[i] ? WHY[list.because[i]!] : "\u00a0"}
                    </span>
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {list.cells.slice(0, SHOWN).map((row, r) => {
              const isData = r >= list.firstRow;
              const finding = marked.get(r + 1);
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: rows of a file are what their place says
                <tr key={r} className={isData ? "" : "text-ink-3"} title={finding}>
                  <td className="border-t border-rule px-1 text-ink-3">
                    {finding ? <Mark kind="look" /> : r + 1}
                  </td>
                  {columns.map((i) => (
                    <td
                      key={i}
                      className={`max-w-56 truncate border-t border-l border-rule px-1 py-[2px] ${list.roles[i] ? "" : "bg-paper text-ink-2"} ${r === list.firstRow - 1 ? "font-semibold" : ""}`}
                    >
                      {row[i]}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </section>
      {rows > Math.min(SHOWN, list.cells.length) && (
        <p className="text-[12.5px] text-ink-2">
          The first {Math.min(SHOWN, list.cells.length)} of {rows} rows.
        </p>
      )}
    </>
  );
}
