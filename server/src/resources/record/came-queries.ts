import type { ClaimBody, MeasuredBody, NewClaimBody } from "@kobbin/contract";
import type { BoardMeasured, Claim } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Bare boards of a run that were measured, the oldest first. */
export async function manyMeasured(tx: Tx, runId: string): Promise<BoardMeasured[]> {
  const { rows } = await tx.query<Omit<BoardMeasured, "receipt"> & { receipt: string | null }>(
    `select id, item, receipt_id as receipt, label, on_day as "on", readings, looks, person, note
     from board_measured where run_id = $1 order by on_day, at, id`,
    [runId],
  );
  return rows.map(({ receipt, ...r }) => ({ ...r, ...(receipt === null ? {} : { receipt }) }));
}

export async function insertMeasured(
  tx: Tx,
  runId: string,
  b: MeasuredBody & { readonly person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into board_measured (workshop_id, run_id, item, receipt_id, label, on_day, person, readings, looks, note)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [
      runId,
      b.item,
      b.receipt ?? null,
      b.label,
      b.on,
      b.person,
      JSON.stringify(b.readings),
      JSON.stringify(b.looks),
      b.note,
    ],
  );
  return one(rows, "measured board").id;
}

export async function deleteMeasured(tx: Tx, id: string): Promise<{ runId: string; label: string }> {
  const { rows } = await tx.query<{ runId: string; label: string }>(
    `delete from board_measured where id = $1 returning run_id as "runId", label`,
    [id],
  );
  return one(rows, "measured board");
}

/** What was claimed of a run's orders, the oldest first. */
export async function manyClaims(tx: Tx, runId: string): Promise<Claim[]> {
  const { rows } = await tx.query<Omit<Claim, "credit"> & { credit: string | null }>(
    `select id, order_key as "order", item, pieces, because, letter, state, answer, credit, opened_on as "openedOn", person
     from claim where run_id = $1 order by opened_on, at, id`,
    [runId],
  );
  return rows.map(({ credit, ...c }) => ({ ...c, ...(credit === null ? {} : { credit: trim(credit) }) }));
}

export async function insertClaim(
  tx: Tx,
  runId: string,
  c: NewClaimBody & { readonly person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into claim (workshop_id, run_id, order_key, item, pieces, because, letter, opened_on, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8) returning id`,
    [runId, c.order, c.item, c.pieces, c.because, c.letter, c.on, c.person],
  );
  return one(rows, "claim").id;
}

/** The run a claim is of, and what it is about. */
export async function oneClaim(tx: Tx, id: string): Promise<{ runId: string; order: string }> {
  const { rows } = await tx.query<{ runId: string; order: string }>(
    `select run_id as "runId", order_key as "order" from claim where id = $1`,
    [id],
  );
  return one(rows, "claim");
}

/** What became of a claim; what is not said stays. */
export async function updateClaim(tx: Tx, id: string, c: ClaimBody): Promise<void> {
  await tx.query(
    `update claim set
       because = coalesce($2, because),
       letter = coalesce($3, letter),
       state = coalesce($4, state),
       answer = coalesce($5, answer),
       credit = case when $6 then $7::numeric else credit end
     where id = $1`,
    [
      id,
      c.because ?? null,
      c.letter ?? null,
      c.state ?? null,
      c.answer ?? null,
      c.credit !== undefined,
      c.credit ?? null,
    ],
  );
}

export async function deleteClaim(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from claim where id = $1", [id]);
}

/**
 * A delivery set apart, or not any more.
 * @returns what it is of, the lot that came of it if there is one still, and whether it was set apart before
 */
export async function updateReceipt(
  tx: Tx,
  id: string,
  c: { readonly isApart: boolean; readonly because: string },
): Promise<{ runId: string; lot: string | null; qty: number; label: string; was: boolean }> {
  const { rows } = await tx.query<{
    runId: string;
    lot: string | null;
    qty: number;
    label: string;
    was: boolean;
  }>(
    `with before as (select id, is_apart from receipt where id = $1 for update)
     update receipt set is_apart = $2, because = $3 from before where receipt.id = before.id
     returning run_id as "runId", lot_id as lot, qty, label, before.is_apart as was`,
    [id, c.isApart, c.because],
  );
  return one(rows, "receipt");
}

/** What may not be used is not counted on, whoever looks at the shelf; what may be again is new only if it was locked. */
export async function updateLotCondition(tx: Tx, id: string, isApart: boolean): Promise<void> {
  await tx.query(
    isApart
      ? "update lot set condition = 'quarantine' where id = $1"
      : "update lot set condition = 'new' where id = $1 and condition = 'quarantine'",
    [id],
  );
}
