import type { TestTry } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Tries of the test plan on a run's boards, the oldest first. */
export async function manyTries(tx: Tx, runId: string): Promise<TestTry[]> {
  const { rows } = await tx.query<
    Omit<TestTry, "value" | "bound"> & { value: string | null; bound: TestTry["bound"] | null }
  >(
    `select id, unit, item, name, on_day as "on", value, bound, limits, verdict, words, person
     from test_try where run_id = $1 order by at, id`,
    [runId],
  );
  return rows.map(({ value, bound, ...r }) => ({
    ...r,
    ...(value === null ? {} : { value }),
    ...(bound ? { bound } : {}),
  }));
}

export async function insertTry(tx: Tx, runId: string, t: Omit<TestTry, "id">): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into test_try (workshop_id, run_id, unit, item, name, on_day, value, bound, limits, verdict, words, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) returning id`,
    [
      runId,
      t.unit,
      t.item,
      t.name,
      t.on,
      t.value ?? null,
      t.bound ?? null,
      JSON.stringify(t.limits),
      t.verdict,
      t.words,
      t.person,
    ],
  );
  return one(rows, "try").id;
}

export async function deleteTry(tx: Tx, id: string): Promise<{ runId: string; unit: number; name: string }> {
  const { rows } = await tx.query<{ runId: string; unit: number; name: string }>(
    `delete from test_try where id = $1 returning run_id as "runId", unit, name`,
    [id],
  );
  return one(rows, "try");
}
