import { descriptorOf } from "./tables.ts";

/**
 * The one way a name gets into a statement: looked up in the list of tables and their columns, then quoted. A name that
 * is not in the list is a defect, or an attack; nothing is sent then.
 *
 * @param column a column of the table; the table itself where it is left out
 * @throws Error where the list does not have it
 */
export function ident(table: string, column?: string): string {
  const { columns } = descriptorOf(table);
  if (column === undefined) return `"${table}"`;
  if (!Object.hasOwn(columns, column))
    throw new Error(`no column: ${String(column).slice(0, 60)} of ${table}`);
  return `"${column}"`;
}

/** Some columns of a table, each through {@link ident}, as a list for a statement. */
export const idents = (table: string, columns: readonly string[], of = ""): string =>
  columns.map((c) => `${of}${ident(table, c)}`).join(", ");
