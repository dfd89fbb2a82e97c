import { shapes } from "@kobbin/core";
import type { Column, Descriptor, Ref } from "./columns.ts";
import { RUN_TABLES } from "./run-tables.ts";
import { SHOP_TABLES } from "./shop-tables.ts";

export type { Column, Descriptor, Ref };

const { anything, flag, id, instant, mapOf, nullable, oneOf, text, whole } = shapes;

/** Every recorded table, parents first. Names of tables and columns in a statement come from here and nowhere else. */
export const DESCRIPTORS = {
  ...SHOP_TABLES,
  ...RUN_TABLES,
} as const satisfies Readonly<
  Record<string, { key: readonly string[]; columns: Readonly<Record<string, unknown>> }>
>;

/** One of the recorded tables. */
export type Table = keyof typeof DESCRIPTORS;
/** Table names, parents before children. */
export const TABLE_ORDER = Object.keys(DESCRIPTORS) as Table[];

const serial = whole(1, 9e15);

/** The record of what was changed: written with every change, read back with a backup, never changed by a person. */
export const RECORD = {
  change: {
    key: ["id"],
    columns: {
      id: serial,
      at: instant,
      account_id: nullable(id),
      person: text(200),
      sentence: text(600),
      product_id: nullable(id),
      revision_id: nullable(id),
      run_id: nullable(id),
      undoes: nullable(serial),
      undone_by: nullable(serial),
      is_final: flag,
      request_key: nullable(id),
      request_hash: nullable(text(200)),
      page: nullable(id),
      result: anything(12, 100_000),
    },
  },
  change_row: {
    key: ["id"],
    columns: {
      id: serial,
      change_id: serial,
      tbl: oneOf(...TABLE_ORDER),
      key: mapOf(anything(1, 1), 4),
      op: oneOf("insert", "update", "delete"),
      name: nullable(text(300)),
      version: nullable(whole(0, 2e9)),
      was: nullable(anything(20, 2_000_000)),
      became: nullable(anything(20, 2_000_000)),
    },
  },
} as const;

/** A table's descriptor. @throws Error where there is no such table: the name came from data */
export function descriptorOf(table: string): Descriptor {
  if (isTable(table)) return DESCRIPTORS[table] as unknown as Descriptor;
  if (Object.hasOwn(RECORD, table)) return RECORD[table as keyof typeof RECORD] as unknown as Descriptor;
  throw new Error(`no table: ${String(table).slice(0, 60)}`);
}

/** Whether a name is one of the recorded tables. */
export const isTable = (name: unknown): name is Table =>
  typeof name === "string" && Object.hasOwn(DESCRIPTORS, name);

/** Whether a column names a row of another table. */
export const isRef = (column: Column): column is Ref => typeof column !== "function";
