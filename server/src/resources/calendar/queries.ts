import type { CalendarAnswer } from "@kobbin/contract";
import type { Pool, Tx } from "../../db/pool.ts";

/** Who made the address there is, and when; nothing where there is none. */
export async function maybeAddress(tx: Tx): Promise<CalendarAnswer> {
  const { rows } = await tx.query<{ person: string; madeAt: Date }>(
    `select person, made_at as "madeAt" from calendar_address`,
  );
  const [row] = rows;
  return row ? { person: row.person, madeAt: row.madeAt.toISOString() } : {};
}

/** A new address in the place of the one before, which opens nothing any more. */
export async function upsertAddress(tx: Tx, tokenHash: Buffer, person: string): Promise<void> {
  await tx.query(
    `insert into calendar_address (workshop_id, token_hash, person) values (current_workshop(), $1, $2)
     on conflict (workshop_id) do update set token_hash = excluded.token_hash, person = excluded.person, made_at = now()`,
    [tokenHash, person],
  );
}

export async function deleteAddress(tx: Tx): Promise<void> {
  await tx.query("delete from calendar_address");
}

/** The shop a secret opens, before anybody is signed in. */
export async function maybeShopOf(db: Pool, tokenHash: Buffer): Promise<string | undefined> {
  const { rows } = await db.query<{ shop: string | null }>("select calendar_of($1) as shop", [tokenHash]);
  return rows[0]?.shop ?? undefined;
}
