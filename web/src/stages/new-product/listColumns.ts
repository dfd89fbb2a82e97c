import type { ListHead } from "@kobbin/core";
import type { ShownList } from "../../proof/ListTable.tsx";

/** The list as it is shown: columns with what they are taken for. @param said what the person said in this drop */
export function shownList(list: ListHead, said: Readonly<Record<string, string>> = {}): ShownList {
  const roles: Record<number, string> = {};
  const because: Record<number, ShownList["because"][number]> = {};
  for (const [key, i] of Object.entries(list.at) as [keyof ListHead["at"], number][]) {
    roles[i] = key;
    const why = list.because[key] ?? "content";
    because[i] = why !== "chosen" ? why : said[key] === undefined ? "before" : "you";
  }
  for (const [key, name] of Object.entries(said))
    if (key.startsWith("off ")) {
      const i = columnCalled(list.heads, name);
      if (i >= 0) [roles[i], because[i]] = [key, "you"];
    }
  return { cells: list.cells, firstRow: list.firstRow, heads: list.heads, roles, because };
}

/** How a column is called: by its heading, by its place where it has none or shares it. */
export function columnName(heads: readonly string[], i: number): string {
  const head = (heads[i] ?? "").trim();
  const isOnly = heads.filter((h) => h.trim().toLowerCase() === head.toLowerCase()).length === 1;
  return head !== "" && isOnly ? head : `column ${i + 1}`;
}

const columnCalled = (heads: readonly string[], name: string): number => {
  const at = heads.findIndex((_, i) => columnName(heads, i) === name);
  return at >= 0 ? at : Number(/^column (\d+)$/.exec(name)?.[1] ?? 0) - 1;
};

/**
 * What is to be remembered of a list when a column is said to be something: every column by its name, and an empty one for
 * what no column is any more.
 */
export function withColumn(
  list: ListHead,
  column: number,
  role: string,
  said: Readonly<Record<string, string>> = {},
): Record<string, string> {
  const out: Record<string, string> = {};
  const name = columnName(list.heads, column);
  for (const [key, i] of Object.entries(list.at) as [string, number][])
    out[key] = i === column ? "" : columnName(list.heads, i);
  // what was said of columns of marks stays said, but of this one, and of one only that it leaves lines off
  for (const [key, of] of Object.entries(said))
    if (/^(off|nothing) /.test(key) && of !== name && !(role.startsWith("off ") && key.startsWith("off ")))
      out[key] = of;
  if (role !== "") out[role] = name;
  return out;
}

/** What is to be remembered where a column of marks says nothing of what is left off. */
export const ofNothing = (column: number): string => `nothing ${column + 1}`;
