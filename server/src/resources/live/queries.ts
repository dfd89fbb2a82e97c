import type { PresenceRow } from "@kobbin/contract";
import type { Pool, Tx } from "../../db/pool.ts";

/** Whether a session still stands in a shop its person belongs to. */
export async function isStillIn(pool: Pool, tokenHash: Buffer, workshopId: string): Promise<boolean> {
  const { rows } = await pool.query(
    `select 1 from session as s join member as m on m.account_id = s.account_id and m.workshop_id = s.workshop_id
     where s.token_hash = $1 and s.expires_at > now() and s.workshop_id = $2`,
    [tokenHash, workshopId],
  );
  return rows.length > 0;
}

export async function deletePresence(tx: Tx, page: string): Promise<void> {
  await tx.query("delete from presence where page = $1", [page]);
}

/** Who is here now, by page; a page that has not been heard of for three beats is gone. */
export async function manyPresent(tx: Tx): Promise<PresenceRow[]> {
  const { rows } = await tx.query<PresenceRow>(
    "select page, person, place from presence where seen_at > now() - interval '45 seconds' order by person, page",
  );
  return rows;
}

/** Says that a page is there, and where. @returns whether it is new */
export async function upsertPresence(
  tx: Tx,
  p: { page: string; accountId: string; person: string; place: string | undefined },
): Promise<boolean> {
  await tx.query("delete from presence where seen_at < now() - interval '2 minutes'");
  const { rows } = await tx.query<{ isNew: boolean }>(
    `insert into presence (page, workshop_id, account_id, person, place) values ($1, current_workshop(), $2, $3, coalesce($4, ''))
     on conflict (workshop_id, page) do update set place = coalesce($4, presence.place), seen_at = now() returning xmax = 0 as "isNew"`,
    [p.page, p.accountId, p.person, p.place ?? null],
  );
  return rows[0]?.isNew ?? false;
}
