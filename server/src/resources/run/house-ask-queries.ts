import type { HouseAskRow } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";

/** A question to a house that was taken up. */
export interface HouseAsked {
  readonly id: string;
  readonly runId: string;
  readonly houseId: string;
  readonly accountId: string | null;
  readonly person: string;
  readonly page: string | null;
  readonly start: number;
  /** This try counted. */
  readonly tries: number;
}

/** How the questions of a run to houses stand. */
export async function manyHouseAsks(tx: Tx, runId: string): Promise<HouseAskRow[]> {
  const { rows } = await tx.query<Omit<HouseAskRow, "since"> & { since: Date }>(
    `select h.id as "houseId", h.profile ->> 'name' as house, a.state, a.tries, a.reason, a.since
     from house_ask as a join house as h on h.id = a.house_id
     where a.run_id = $1 order by h.position, h.id`,
    [runId],
  );
  return rows.map((r) => ({ ...r, since: r.since.toISOString() }));
}

/** Puts a question to every house that can be asked on the list; what is being asked already is not asked twice. */
export async function insertHouseAsks(
  tx: Tx,
  runId: string,
  start: number,
  by: { readonly accountId: string | null; readonly person: string; readonly page?: string | undefined },
): Promise<number> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into house_ask (workshop_id, run_id, house_id, account_id, person, page, start, state)
     select current_workshop(), $1, h.id, $2, $3, $4, $5, 'waiting' from house as h where h.feed_key is not null
     on conflict on constraint house_ask_key do update
       set state = 'waiting', tries = 0, reason = '', account_id = excluded.account_id, person = excluded.person,
         page = excluded.page, start = excluded.start, since = clock_timestamp()
       where house_ask.state in ('answered', 'failed')
     returning id`,
    [runId, by.accountId, by.person, by.page ?? null, start],
  );
  await tx.query(
    `insert into house_due (ask_id, workshop_id) select id, current_workshop() from unnest($1::uuid[]) as a (id)
     on conflict (ask_id) do update set next_at = clock_timestamp()`,
    [rows.map((r) => r.id)],
  );
  return rows.length;
}

/**
 * Takes a question up, for this worker alone; undefined where it is not due.
 * @param heldMs a question held longer than that was lost with its worker
 */
export async function claimHouseAsk(tx: Tx, id: string, heldMs: number): Promise<HouseAsked | undefined> {
  const { rows } = await tx.query<HouseAsked>(
    `update house_ask set state = 'asking', tries = tries + 1, since = clock_timestamp()
     where id = $1 and id in (select ask_id from house_due where next_at <= clock_timestamp())
       and (state = 'waiting' or (state = 'asking' and since < clock_timestamp() - make_interval(secs => $2 / 1000.0)))
     returning id, run_id as "runId", house_id as "houseId", account_id as "accountId", person, page, start, tries`,
    [id, heldMs],
  );
  return rows[0];
}

/** Ends a question, answered or given up. */
export async function endHouseAsk(
  tx: Tx,
  id: string,
  state: "answered" | "failed",
  reason: string,
): Promise<void> {
  await tx.query("update house_ask set state = $2, reason = $3, since = clock_timestamp() where id = $1", [
    id,
    state,
    reason,
  ]);
  await tx.query("delete from house_due where ask_id = $1", [id]);
}

/** Puts a question off that was not answered. */
export async function postponeHouseAsk(tx: Tx, id: string, reason: string, waitMs: number): Promise<void> {
  await tx.query(
    "update house_ask set state = 'waiting', reason = $2, since = clock_timestamp() where id = $1",
    [id, reason],
  );
  await tx.query(
    "update house_due set next_at = clock_timestamp() + make_interval(secs => $2 / 1000.0) where ask_id = $1",
    [id, waitMs],
  );
}
