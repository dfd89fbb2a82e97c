import type { RunSitting } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Steps of a run's boards as far as they came at the bench. */
export async function manySittings(tx: Tx, runId: string): Promise<RunSitting[]> {
  const { rows } = await tx.query<RunSitting & { readonly used: NonNullable<RunSitting["used"]> }>(
    `select id, unit, step, marks, lost, minutes, is_done as "isDone", used, person
     from sitting where run_id = $1 order by unit, step`,
    [runId],
  );
  return rows.map(({ used, ...s }) => (Object.keys(used).length === 0 ? s : { ...s, used }));
}

/** The row of a step of a board, made where there is none. */
export async function upsertSitting(
  tx: Tx,
  runId: string,
  { unit, step, person }: { readonly unit: number; readonly step: number; readonly person: string },
): Promise<{ id: string; version: number }> {
  const { rows } = await tx.query<{ id: string; version: number }>(
    `insert into sitting (workshop_id, run_id, unit, step, person)
     values (current_workshop(), $1, $2, $3, $4)
     on conflict on constraint sitting_key do update set unit = sitting.unit
     returning id, version`,
    [runId, unit, step, person],
  );
  return one(rows, "step");
}
