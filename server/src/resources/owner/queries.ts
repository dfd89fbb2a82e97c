import type { NewReportBody, OutsBody, ReportBody, ShopReport, UnitOut } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Where the boards of a run went, by their number. */
export async function manyOuts(tx: Tx, runId: string): Promise<UnitOut[]> {
  const { rows } = await tx.query<UnitOut>(
    `select id, unit, on_day::text as "on", towards, holder, reach, person from unit_out where run_id = $1 order by unit`,
    [runId],
  );
  return rows;
}

/** The highest board of a run that is known of: counted as started, or at the bench. */
export async function highestUnit(tx: Tx, runId: string): Promise<number> {
  const { rows } = await tx.query<{ n: number }>(
    `select greatest((select coalesce(sum(started), 0) from work where run_id = $1),
       (select coalesce(max(unit), 0) from sitting where run_id = $1),
       (select coalesce(max(unit), 0) from test_try where run_id = $1))::integer as n`,
    [runId],
  );
  return rows[0]!.n;
}

/** Boards that went somewhere; what was said of one before is put right. */
export async function upsertOuts(tx: Tx, runId: string, b: OutsBody, person: string): Promise<void> {
  await tx.query(
    `insert into unit_out (workshop_id, run_id, unit, on_day, towards, holder, reach, person)
     select current_workshop(), $1, u, $3, $4, $5, $6, $7 from unnest($2::integer[]) as u order by u
     on conflict (workshop_id, run_id, unit) do update set on_day = excluded.on_day, towards = excluded.towards,
       holder = excluded.holder, reach = excluded.reach, person = excluded.person`,
    [runId, [...new Set(b.units)], b.on, b.towards, b.holder, b.reach, person],
  );
}

interface OutOf {
  readonly runId: string;
  readonly unit: number;
}

/** @returns of which run and board it was */
export async function deleteOut(tx: Tx, id: string): Promise<OutOf> {
  const { rows } = await tx.query<OutOf>(
    `delete from unit_out where id = $1 returning run_id as "runId", unit`,
    [id],
  );
  return one(rows, "board that went out");
}

/**
 * Forgets who has a board, in the row and in the record of its changes: nothing of it can be read or brought back any more.
 * Call it in a change of its own, last: what the record takes down of it is wiped with the rest.
 */
export async function forgetHolder(tx: Tx, id: string): Promise<OutOf> {
  const { rows } = await tx.query<OutOf>(
    `update unit_out set holder = '', reach = '' where id = $1 returning run_id as "runId", unit`,
    [id],
  );
  const out = one(rows, "board that went out");
  await tx.query(
    `update change_row set was = was - 'holder' - 'reach', became = became - 'holder' - 'reach'
     where tbl = 'unit_out' and key = jsonb_build_object('id', $1::uuid)`,
    [id],
  );
  return out;
}

/** What owners said, the newest first. */
export async function manyReports(tx: Tx): Promise<ShopReport[]> {
  type Row = ShopReport & { runId: string | null };
  const { rows } = await tx.query<Row>(
    `select o.id, o.product_id as "productId", p.name as product, o.run_id as "runId", r.name as run, v.label as revision, o.unit,
       o.on_day::text as "on", o.says, o.conditions, o.workaround, o.answer, o.erratum_id as "erratumId", o.person
     from owner_report as o join product as p on p.id = o.product_id
     left join run as r on r.id = o.run_id left join revision as v on v.id = r.revision_id
     order by o.on_day desc, o.at desc, o.id`,
  );
  return rows.map(
    (row) => Object.fromEntries(Object.entries(row).filter(([, v]) => v !== null)) as unknown as ShopReport,
  );
}

/** The product a report is of, and what it says. */
export async function oneReport(
  tx: Tx,
  id: string,
): Promise<{ productId: string; runId: string | null; says: string }> {
  const { rows } = await tx.query<{ productId: string; runId: string | null; says: string }>(
    `select product_id as "productId", run_id as "runId", says from owner_report where id = $1`,
    [id],
  );
  return one(rows, "report");
}

export async function insertReport(tx: Tx, r: NewReportBody, person: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into owner_report (workshop_id, product_id, run_id, unit, on_day, says, conditions, workaround, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8) returning id`,
    [r.productId, r.runId ?? null, r.unit ?? null, r.on, r.says, r.conditions, r.workaround, person],
  );
  return one(rows, "report").id;
}

/** What is said anew of it; what is not said stays. */
export async function updateReport(tx: Tx, id: string, r: ReportBody): Promise<void> {
  await tx.query(
    `update owner_report set
       says = coalesce($2, says),
       conditions = coalesce($3, conditions),
       workaround = coalesce($4, workaround),
       answer = coalesce($5, answer),
       erratum_id = case when $6 then $7::uuid else erratum_id end
     where id = $1`,
    [
      id,
      r.says ?? null,
      r.conditions ?? null,
      r.workaround ?? null,
      r.answer ?? null,
      r.erratumId !== undefined,
      r.erratumId ?? null,
    ],
  );
}

export async function deleteReport(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from owner_report where id = $1", [id]);
}
