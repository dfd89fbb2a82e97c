import type { Tx } from "../../db/pool.ts";

/** Runs that are still decided on, the oldest first; a hundred at most. */
export async function manyOpenRuns(tx: Tx): Promise<{ id: string; name: string }[]> {
  const { rows } = await tx.query<{ id: string; name: string }>(
    "select id, name from run where state = 'open' order by created_at limit 100",
  );
  return rows;
}
