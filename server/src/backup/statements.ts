import { ident, idents } from "../schema/ident.ts";

/** All rows of a table as lines of JSON without the shop and what is worked out of other columns, in a steady order. */
export const backupRows = (table: string): string =>
  `select (to_jsonb(t) - 'workshop_id'${table === "change_row" ? " - 'row_key'" : ""})::text as line from ${ident(table)} as t ${
    table === "workshop" ? "where t.id = current_workshop()" : ""
  } order by ${table === "change" || table === "change_row" ? "t.id" : "1"}`;

/** Rows of a table out of a list of JSON objects that all carry the same columns; the shop's own row names no shop. */
export function insertRows(table: string, columns: readonly string[]): string {
  const isOwned = table !== "workshop";
  return `insert into ${ident(table)} (${isOwned ? "workshop_id, " : ""}${idents(table, columns)}) overriding system value
    select ${isOwned ? "current_workshop(), " : ""}${idents(table, columns, "r.")} from jsonb_populate_recordset(null::${ident(table)}, $1::jsonb) as r`;
}
