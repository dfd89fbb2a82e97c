import { randomUUID } from "node:crypto";
import { addTo, shapes } from "@kobbin/core";
import { tooMany } from "../schema/bounds.ts";
import { checkColumns } from "../schema/judge.ts";
import { type Descriptor, descriptorOf, isRef, isTable, TABLE_ORDER } from "../schema/tables.ts";
import { BACKUP_TABLES, refuse } from "./format.ts";
import { strayed } from "./strayed.ts";

type Row = Record<string, unknown>;

/** Rows that may be stored: their ids are new, their columns known, their references to rows that are there. */
export interface CheckedRows {
  readonly workshopId: string;
  /** By table, in the order they are stored: batches of rows that carry the same columns, as JSON. */
  readonly batches: readonly {
    readonly table: string;
    readonly columns: readonly string[];
    readonly rows: string;
    readonly count: number;
  }[];
  /** Hashes of the files that are shown as photos. */
  readonly photos: ReadonlySet<string>;
  readonly changes: readonly Row[];
  readonly changeRows: readonly Row[];
}

const UUIDS = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;
/** Tables whose rows name a file by its hash. */
const NAMES_A_FILE: ReadonlySet<string> = new Set(["board_file", "release", "photo"]);
/** So many problems are told; more help nobody. */
const MOST_PROBLEMS = 20;
const BATCH = 500;

/**
 * Checks the rows of a backup against what their tables hold and against each other, and numbers them anew.
 * @param tables text of each table, one row of JSON a line
 * @param files hashes of the files that are there
 * @throws AppError ARCHIVE_INVALID with the problems as details
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one order of checks, each on what the one before let through
export function checkRows(tables: ReadonlyMap<string, string>, files: ReadonlySet<string>): CheckedRows {
  const problems: string[] = [];
  const tell = (what: string) => {
    if (problems.length < MOST_PROBLEMS) problems.push(what);
  };
  const read = new Map<string, Row[]>();
  for (const table of BACKUP_TABLES) read.set(table, parse(table, tables.get(table) ?? "", tell));
  const stop = () => {
    if (problems.length > 0) throw refuse(`${problems[0]}${more(problems.length)}`, problems);
  };
  stop();
  const rows = (table: string) => read.get(table)!;
  if (rows("workshop").length !== 1) throw refuse("it holds no workshop, or more than one");
  putOnBoards(rows("bom_line"), rows("board"));

  const ids = new Map(TABLE_ORDER.map((t) => [t as string, new Set(rows(t).map((r) => r.id as string))]));
  for (const table of TABLE_ORDER) {
    const keys = new Set<string>();
    for (const [n, row] of rows(table).entries()) {
      const where = `row ${n + 1} of ${table}`;
      checkColumns(descriptorOf(table), row, where, tell, true);
      checkRefs(descriptorOf(table), row, where, ids, tell);
      const key = descriptorOf(table)
        .key.map((c) => String(row[c]))
        .join(" ");
      if (keys.has(key)) tell(`${where} stands twice`);
      keys.add(key);
      if (NAMES_A_FILE.has(table) && !files.has(String(row.sha256)))
        tell(`${where} names a file that is not there`);
    }
  }
  for (const what of tooMany(rows)) tell(what);
  // only rows that are right one by one can be held against each other
  stop();
  for (const what of strayed(rows)) tell(what);
  const changes = new Set(rows("change").map((c) => String(c.id)));
  for (const [n, c] of rows("change").entries())
    checkColumns(descriptorOf("change"), c, `row ${n + 1} of change`, tell, true);
  for (const [n, r] of rows("change_row").entries()) {
    const where = `row ${n + 1} of change_row`;
    checkColumns(descriptorOf("change_row"), r, where, tell, true);
    if (!changes.has(String(r.change_id))) tell(`${where} belongs to no change`);
    if (isTable(r.tbl)) checkRecorded(descriptorOf(r.tbl), r, where, tell);
  }
  stop();

  const fresh = freshIds(read);
  const known = new Set(fresh.values());
  const renew = (row: Row): Row =>
    JSON.parse(JSON.stringify(row).replace(UUIDS, (id) => fresh.get(id) ?? id)) as Row;
  const batches: { table: string; columns: string[]; rows: string; count: number }[] = [];
  for (const table of TABLE_ORDER) {
    const list = rows(table)
      .map(renew)
      .map((r) => (table === "alternate" ? ofOwnRuns(r, known) : r));
    // rows that carry the same columns go together: what is left out takes its default
    const groups = new Map<string, Row[]>();
    for (const r of list) {
      const columns = Object.keys(r).sort().join(" ");
      addTo(groups, columns, r);
    }
    for (const [columns, group] of groups)
      for (let i = 0; i < group.length; i += BATCH) {
        const some = group.slice(i, i + BATCH);
        batches.push({
          table,
          columns: columns.split(" "),
          rows: JSON.stringify(some),
          count: some.length,
        });
      }
  }
  const soft = (id: unknown) => (typeof id === "string" && known.has(id) ? id : null);
  return {
    workshopId: fresh.get(String(rows("workshop")[0]!.id))!,
    batches,
    photos: new Set(rows("photo").map((p) => String(p.sha256))),
    changes: rows("change")
      .map(renew)
      .map((c) => ({
        ...c,
        product_id: soft(c.product_id),
        revision_id: soft(c.revision_id),
        run_id: soft(c.run_id),
      })),
    changeRows: rows("change_row").map(renew),
  };
}

const more = (n: number) =>
  n > 1 ? `; and ${n - 1}${n >= MOST_PROBLEMS ? " or more" : ""} other things` : "";

function parse(table: string, text: string, tell: (what: string) => void): Row[] {
  const out: Row[] = [];
  for (const [n, line] of text.split("\n").entries()) {
    if (line === "") continue;
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      value = undefined;
    }
    if (typeof value !== "object" || value === null || Array.isArray(value))
      tell(`row ${n + 1} of ${table} is no row`);
    else out.push(value as Row);
  }
  return out;
}

function checkRefs(
  d: Descriptor,
  row: Row,
  where: string,
  ids: ReadonlyMap<string, ReadonlySet<string>>,
  tell: (what: string) => void,
): void {
  for (const [name, column] of Object.entries(d.columns)) {
    if (!isRef(column)) continue;
    const value = row[name];
    if (value === undefined || value === null) {
      if (!column.isOptional) tell(`${where} has no ${name}`);
    } else if (!ids.get(column.to)?.has(String(value))) tell(`${where}: ${name} names nothing that is there`);
  }
}

/** A row of the record: its key is that of its table, and what it was and became are columns of it. */
function checkRecorded(d: Descriptor, r: Row, where: string, tell: (what: string) => void): void {
  const key = r.key as Row;
  if (Object.keys(key).sort().join() !== [...d.key].sort().join())
    tell(`${where}: its key is none of ${String(r.tbl)}`);
  else checkColumns(d, key, `${where}, key`, tell, false);
  for (const side of ["was", "became"] as const) {
    const part = r[side];
    if (part === null || part === undefined) continue;
    if (typeof part !== "object" || Array.isArray(part)) tell(`${where}: ${side} is no row`);
    else checkColumns(d, part as Row, `${where}, ${side}`, tell, r.op === "delete");
  }
  if (r.op === "update" && (!r.was || !r.became)) tell(`${where}: a change without what it changed`);
  if (r.op === "delete" && !r.was) tell(`${where}: a removal without what it removed`);
}

/** A new id for every row of the backup, and for every row the record tells of. */
function freshIds(read: ReadonlyMap<string, readonly Row[]>): Map<string, string> {
  const fresh = new Map<string, string>();
  const renew = (id: unknown) => {
    if (typeof id === "string" && shapes.UUID.test(id) && !fresh.has(id)) fresh.set(id, randomUUID());
  };
  for (const table of TABLE_ORDER) for (const r of read.get(table)!) renew(r.id);
  for (const r of read.get("change_row")!) {
    for (const v of Object.values(r.key as Row)) renew(v);
    // what a removed row named may be gone too
    if (isTable(r.tbl))
      for (const [name, column] of Object.entries(descriptorOf(r.tbl).columns))
        if (isRef(column)) for (const side of [r.was, r.became]) renew((side as Row | null)?.[name]);
  }
  return fresh;
}

/** The runs an alternate is approved for, as far as they are there. */
function ofOwnRuns(row: Row, known: ReadonlySet<string>): Row {
  return Array.isArray(row.runs) ? { ...row, runs: row.runs.filter((id) => known.has(String(id))) } : row;
}

/** Lines written before lines knew their board are on the only one of their revision, as migration 0008 has it. */
function putOnBoards(lines: readonly Row[], boards: readonly Row[]): void {
  for (const l of lines) {
    const own = "board_id" in l ? [] : boards.filter((b) => b.revision_id === l.revision_id);
    if (own.length === 1) l.board_id = own[0]!.id;
  }
}
