import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { checkRows } from "./rows.ts";

type Row = Record<string, unknown>;
const archive = unzipSync(
  new Uint8Array(readFileSync(new URL("../../test/golden/workshop-1.kobbin.zip", import.meta.url))),
);
const text = (path: string) => new TextDecoder().decode(archive[path]);
const hashes = new Set(Object.keys(archive).flatMap((path) => path.split("files/")[1] ?? []));
/** The tables of a shop that was backed up, to be spoiled in one place. */
const shop = () =>
  new Map(
    Object.keys(archive).flatMap((path) => {
      const name = /^tables\/(\w+)\.jsonl$/.exec(path)?.[1];
      const rows = text(path).split("\n").filter(Boolean);
      return name ? [[name, rows.map((l) => JSON.parse(l) as Row)] as const] : [];
    }),
  );
const check = (tables: ReadonlyMap<string, readonly unknown[]>, files = hashes) =>
  checkRows(
    new Map([...tables].map(([t, rows]) => [t, rows.map((r) => JSON.stringify(r)).join("\n")])),
    files,
  );
/** What is told of a shop that is not in order. */
function told(tables: ReadonlyMap<string, readonly unknown[]>): string[] {
  try {
    check(tables);
    return [];
  } catch (error) {
    return Object.values((error as { details?: object }).details ?? {}).flat() as string[];
  }
}
const first = (tables: Map<string, Row[]>, table: string) => tables.get(table)![0]!;
const NO_FILE = "0".repeat(64);
const LOST = "00000000-0000-4000-8000-000000000000";

test("a whole backup is taken: every row, under new ids, in batches of rows with the same columns", () => {
  const tables = shop();
  const taken = check(tables);
  for (const [table, rows] of tables) {
    if (table === "change" || table === "change_row") continue;
    const out = taken.batches.filter((b) => b.table === table).flatMap((b) => JSON.parse(b.rows) as Row[]);
    expect([table, out.length]).toEqual([table, rows.length]);
    for (const b of taken.batches.filter((x) => x.table === table))
      for (const r of JSON.parse(b.rows) as Row[]) expect(Object.keys(r).sort()).toEqual(b.columns);
    // no id of the old shop is left
    const old = rows.map((r) => r.id).filter((id) => typeof id === "string");
    for (const id of old) expect(JSON.stringify(out)).not.toContain(id);
  }
  expect([taken.changes.length, taken.changeRows.length]).toEqual([
    tables.get("change")!.length,
    tables.get("change_row")!.length,
  ]);
  const [workshop] = JSON.parse(taken.batches[0]!.rows) as Row[];
  expect([taken.batches[0]!.table, workshop!.id]).toEqual(["workshop", taken.workshopId]);
  expect(check(tables).workshopId).not.toBe(taken.workshopId);
});

test.each<[string, string, Row, RegExp]>([
  [
    "a column nobody knows",
    "product",
    { colour: "red" },
    /^row 1 of product has a column “colour” that Kobbin does not know$/,
  ],
  [
    "a value beyond its bounds",
    "workshop",
    { tax_rate: 7 },
    /^row 1 of workshop: tax_rate should be a number from 0 to 1$/,
  ],
  ["an id that is none", "revision", { product_id: "x" }, /^row 1 of revision: product_id is no id$/],
  [
    "nothing where a row must be named",
    "revision",
    { product_id: null },
    /^row 1 of revision: product_id is no id$/,
  ],
  ["a name left out", "revision", { product_id: undefined }, /^row 1 of revision has no product_id$/],
  ["a key left out", "remark", { id: undefined }, /^row 1 of remark has no id$/],
  [
    "a name of nothing",
    "revision",
    { product_id: LOST },
    /^row 1 of revision: product_id names nothing that is there$/,
  ],
  [
    "a file that is not there",
    "board_file",
    { sha256: NO_FILE },
    /^row 1 of board_file names a file that is not there$/,
  ],
  [
    "a package that is not there",
    "release",
    { sha256: NO_FILE },
    /^row 1 of release names a file that is not there$/,
  ],
  [
    "a record of no change",
    "change_row",
    { change_id: 999_999 },
    /^row \d+ of change_row belongs to no change$/,
  ],
  ["a record of no table", "change_row", { tbl: "audit" }, /^row \d+ of change_row: tbl should be one of/],
  [
    "a record with another key",
    "change_row",
    { key: { name: "x" } },
    /^row \d+ of change_row: its key is none of \w+$/,
  ],
  [
    "a record whose key is no id",
    "change_row",
    { key: { id: "x" } },
    /^row \d+ of change_row, key: id should be an id$/,
  ],
  ["a record that was no row", "change_row", { was: [] }, /^row \d+ of change_row: was is no row$/],
  [
    "a record of a column nobody knows",
    "change_row",
    { became: { colour: "red" } },
    /^row \d+ of change_row, became has a column “colour”/,
  ],
  [
    "a change without what it changed",
    "change_row",
    { became: null },
    /^row \d+ of change_row: a change without what it changed$/,
  ],
  [
    "a removal without what it removed",
    "change_row",
    { op: "delete", was: null },
    /^row \d+ of change_row: a removal without what it removed$/,
  ],
])("%s is told once, with its place", (_, table, put, words) => {
  const tables = shop();
  // of the record one that changed a row
  const row = tables.get(table)!.find((r) => table !== "change_row" || r.op === "update")!;
  Object.assign(row, put);
  expect(told(tables).filter((p) => words.test(p))).toHaveLength(1);
});

test.each<[string, (tables: Map<string, unknown[]>) => unknown, string]>([
  [
    "a row that stands twice",
    (t) => t.get("supplier")!.push(t.get("supplier")![0]),
    "row 5 of supplier stands twice",
  ],
  ["a list for a row", (t) => t.get("supplier")!.push([]), "row 5 of supplier is no row"],
  ["nothing for a row", (t) => t.get("supplier")!.push(null), "row 5 of supplier is no row"],
])("%s is told", (_, spoil, words) => {
  const tables = shop();
  spoil(tables);
  expect(told(tables)).toEqual([words]);
});

test("twenty problems are told at most, and how many there are besides the first", () => {
  const tables = shop();
  tables.set(
    "correction",
    Array.from({ length: 30 }, () => ({ id: "x" })),
  );
  expect(() => check(tables)).toThrow(/; and 19 or more other things/);
  const two = shop();
  two.get("supplier")!.push(first(two, "supplier"), first(two, "supplier"));
  expect(() => check(two)).toThrow(/; and 1 other things/);
  const none = shop();
  none.set("workshop", []);
  expect(() => check(none)).toThrow(/no workshop, or more than one/);
  const more = shop();
  more.get("workshop")!.push({ ...first(more, "workshop") });
  expect(() => check(more)).toThrow(/no workshop, or more than one/);
});
