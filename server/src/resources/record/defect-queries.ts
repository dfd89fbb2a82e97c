import type { DefectBody, DefectChangeBody } from "@kobbin/contract";
import type { Defect } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** What was found wrong on a run's boards, the oldest first. */
export async function manyDefects(tx: Tx, runId: string): Promise<Defect[]> {
  const { rows } = await tx.query<
    Omit<Defect, "step" | "minutes"> & { step: number | null; minutes: number | null }
  >(
    `select id, unit, place as "at", code, step, on_day as "on", minutes, is_mended as "isMended", note, person
     from defect where run_id = $1 order by defect.at, id`,
    [runId],
  );
  return rows.map(({ step, minutes, ...d }) => ({
    ...d,
    ...(step === null ? {} : { step }),
    ...(minutes === null ? {} : { minutes }),
  }));
}

export async function insertDefect(
  tx: Tx,
  runId: string,
  d: DefectBody & { readonly person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into defect (workshop_id, run_id, unit, place, code, step, on_day, minutes, is_mended, note, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10) returning id`,
    [runId, d.unit, d.at, d.code, d.step ?? null, d.on, d.minutes ?? null, d.isMended, d.note, d.person],
  );
  return one(rows, "defect").id;
}

/** What a defect is of, and what. */
interface Told {
  readonly runId: string;
  readonly unit: number;
  readonly at: string;
  readonly code: string;
}

/** What became of a defect; what is not said stays. */
export async function updateDefect(tx: Tx, id: string, d: DefectChangeBody): Promise<Told> {
  const { rows } = await tx.query<Told>(
    `update defect set
       minutes = case when $2 then $3::double precision else minutes end,
       is_mended = coalesce($4, is_mended),
       note = coalesce($5, note)
     where id = $1 returning run_id as "runId", unit, place as "at", code`,
    [id, d.minutes !== undefined, d.minutes ?? null, d.isMended ?? null, d.note ?? null],
  );
  return one(rows, "defect");
}

export async function deleteDefect(tx: Tx, id: string): Promise<Told> {
  const { rows } = await tx.query<Told>(
    `delete from defect where id = $1 returning run_id as "runId", unit, place as "at", code`,
    [id],
  );
  return one(rows, "defect");
}
