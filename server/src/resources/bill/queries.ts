import type { SumRow, VariantRow } from "@kobbin/contract";
import type { LineOverride } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

export async function manySums(tx: Tx, revisionId: string): Promise<SumRow[]> {
  const { rows } = await tx.query<SumRow>(
    `select id, kind, name, given, lines, wanted, within_pct::float8 as "withinPct", version from line_sum where revision_id = $1 order by id`,
    [revisionId],
  );
  return rows;
}

export async function insertSum(
  tx: Tx,
  revisionId: string,
  s: Omit<SumRow, "id" | "version">,
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into line_sum (workshop_id, revision_id, kind, name, given, lines, wanted, within_pct)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7) returning id`,
    [revisionId, s.kind, s.name, JSON.stringify(s.given), JSON.stringify(s.lines), s.wanted, s.withinPct],
  );
  return one(rows, "sum").id;
}

/** The revision a sum belongs to, and its version. */
export async function oneSum(
  tx: Tx,
  id: string,
): Promise<{ revisionId: string; name: string; version: number }> {
  const { rows } = await tx.query<{ revisionId: string; name: string; version: number }>(
    `select revision_id as "revisionId", coalesce(nullif(name, ''), kind) as name, version from line_sum where id = $1`,
    [id],
  );
  return one(rows, "sum");
}

export async function deleteSum(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from line_sum where id = $1", [id]);
}

export async function manyVariants(tx: Tx, revisionId: string): Promise<VariantRow[]> {
  const { rows } = await tx.query<VariantRow>(
    "select id, name, overrides, version from variant where revision_id = $1 order by name, id",
    [revisionId],
  );
  return rows;
}

export async function insertVariant(
  tx: Tx,
  revisionId: string,
  name: string,
  overrides: Readonly<Record<string, LineOverride>>,
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into variant (workshop_id, revision_id, name, overrides) values (current_workshop(), $1, $2, $3) returning id",
    [revisionId, name, JSON.stringify(overrides)],
  );
  return one(rows, "variant").id;
}

/** The revision a variant belongs to, and its version. */
export async function oneVariant(
  tx: Tx,
  id: string,
): Promise<{ revisionId: string; name: string; version: number }> {
  const { rows } = await tx.query<{ revisionId: string; name: string; version: number }>(
    `select revision_id as "revisionId", name, version from variant where id = $1`,
    [id],
  );
  return one(rows, "variant");
}

export async function deleteVariant(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from variant where id = $1", [id]);
}

/** Columns of lists that were confirmed, by the headings of the list. */
export async function manyLists(tx: Tx): Promise<Record<string, Record<string, string>>> {
  const { rows } = await tx.query<{ pattern: string; value: Record<string, string> }>(
    "select pattern, value from correction where kind = 'list' order by updated_at desc limit 500",
  );
  return Object.fromEntries(rows.map((r) => [r.pattern, r.value]));
}

export async function upsertList(
  tx: Tx,
  source: string,
  columns: Readonly<Record<string, string>>,
): Promise<void> {
  await tx.query(
    `insert into correction (workshop_id, kind, pattern, value) values (current_workshop(), 'list', $1, $2)
     on conflict (workshop_id, kind, pattern) do update set value = excluded.value, updated_at = now()`,
    [source, JSON.stringify(columns)],
  );
}
