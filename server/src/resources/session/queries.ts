import type { Pool, Tx } from "../../db/pool.ts";

/** The demo shop and its account; nothing where there is none. */
export async function maybeDemoShop(
  pool: Pool,
): Promise<{ workshopId: string; accountId: string } | undefined> {
  const { rows } = await pool.query<{ workshopId: string; accountId: string }>(
    `select m.workshop_id as "workshopId", m.account_id as "accountId"
     from account as a join member as m on m.account_id = a.id where a.email = 'demo@ashglaze' limit 1`,
  );
  return rows[0];
}

/** Whether anybody but the demo has an account. */
export async function hasOwners(db: Pool | Tx): Promise<boolean> {
  const { rows } = await db.query(
    "select 1 from account where email <> 'demo@ashglaze' and password_hash is not null limit 1",
  );
  return rows.length > 0;
}

/** Who signs in, and to which of their shops: the one they have been in longest. */
export async function maybeSigningIn(
  pool: Pool,
  email: string,
): Promise<{ id: string; hash: string | null; workshopId: string } | undefined> {
  const { rows } = await pool.query<{ id: string; hash: string | null; workshopId: string }>(
    `select a.id, a.password_hash as "hash", m.workshop_id as "workshopId"
     from account as a join member as m on m.account_id = a.id where a.email = $1 order by m.created_at, m.workshop_id limit 1`,
    [email],
  );
  return rows[0];
}

export async function deleteSessionOf(pool: Pool, tokenHash: Buffer): Promise<void> {
  await pool.query("delete from session where token_hash = $1", [tokenHash]);
}

/** Of several first owners at one moment one goes on, the others wait until it is done. */
export async function lockFirstOwner(tx: Tx): Promise<void> {
  await tx.query("select pg_advisory_xact_lock(41804182)");
}
