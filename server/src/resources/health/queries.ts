import type { Pool } from "../../db/pool.ts";

/** Runs whose figures wait to be counted. */
export async function countFiguresDue(pool: Pool): Promise<number> {
  const { rows } = await pool.query<{ n: number }>(
    "select count(*)::int as n from figures_due where parked is null",
  );
  return rows[0]!.n;
}

/** One small write, to see whether the database takes it. */
export async function upsertReady(pool: Pool): Promise<void> {
  await pool.query(
    "insert into tries (key, n, since) values ('ready', 0, now()) on conflict (key) do update set since = now()",
  );
}
