import type { AskRow } from "@kobbin/contract";
import type { OfferChange } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

/** A question that was taken up. */
export interface Asked {
  readonly id: string;
  readonly runId: string;
  readonly supplierId: string;
  readonly accountId: string | null;
  readonly person: string;
  readonly page: string | null;
  /** This try counted. */
  readonly tries: number;
  /** Lines it did not list the time before. */
  readonly notListed: readonly string[];
}

/** How the questions of a run stand, by supplier. */
export async function manyAsks(tx: Tx, runId: string): Promise<AskRow[]> {
  const { rows } = await tx.query<Omit<AskRow, "since" | "before"> & { since: Date; before: Date | null }>(
    `select s.id as "supplierId", s.name as supplier, a.state, a.tries, a.reason, a.offers, a.not_listed as "notListed", a.changes, a.before, a.since
     from feed_ask as a join supplier as s on s.id = a.supplier_id
     where a.run_id = $1 order by s.feed_key, s.name`,
    [runId],
  );
  return rows.map(({ before, ...r }) => ({
    ...r,
    since: r.since.toISOString(),
    ...(before ? { before: before.toISOString() } : {}),
  }));
}

/** Puts a question to every supplier with a feed on the list; what is being asked already is not asked twice. */
export async function insertAsks(
  tx: Tx,
  runId: string,
  by: { readonly accountId: string | null; readonly person: string; readonly page?: string | undefined },
): Promise<number> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into feed_ask (workshop_id, run_id, supplier_id, account_id, person, page, state)
     select current_workshop(), $1, s.id, $2, $3, $4, 'waiting' from supplier as s where s.feed_key is not null
     on conflict on constraint feed_ask_key do update
       set state = 'waiting', tries = 0, reason = '', account_id = excluded.account_id, person = excluded.person, page = excluded.page, since = clock_timestamp()
       where feed_ask.state in ('answered', 'failed')
     returning id`,
    [runId, by.accountId, by.person, by.page ?? null],
  );
  await tx.query(
    `insert into feed_due (ask_id, workshop_id) select id, current_workshop() from unnest($1::uuid[]) as a (id)
     on conflict (ask_id) do update set next_at = clock_timestamp()`,
    [rows.map((r) => r.id)],
  );
  return rows.length;
}

/**
 * Takes a question up, for this worker alone; undefined where it is not due: done, or in another worker's hands.
 * @param heldMs a question held longer than that was lost with its worker
 */
export async function claimAsk(tx: Tx, id: string, heldMs: number): Promise<Asked | undefined> {
  const { rows } = await tx.query<Asked>(
    `update feed_ask set state = 'asking', tries = tries + 1, since = clock_timestamp()
     where id = $1 and id in (select ask_id from feed_due where next_at <= clock_timestamp())
       and (state = 'waiting' or (state = 'asking' and since < clock_timestamp() - make_interval(secs => $2 / 1000.0)))
     returning id, run_id as "runId", supplier_id as "supplierId", account_id as "accountId", person, page, tries, not_listed as "notListed"`,
    [id, heldMs],
  );
  return rows[0];
}

export async function settleAsk(
  tx: Tx,
  id: string,
  said: {
    readonly offers: number;
    readonly notListed: readonly string[];
    readonly changes: readonly OfferChange[];
  },
): Promise<void> {
  await tx.query(
    `update feed_ask set state = 'answered', reason = '', offers = $2, not_listed = $3::uuid[], changes = $4,
       before = answered_at, answered_at = clock_timestamp(), since = clock_timestamp() where id = $1`,
    [id, said.offers, said.notListed, JSON.stringify(said.changes)],
  );
  await tx.query("delete from feed_due where ask_id = $1", [id]);
}

export async function postponeAsk(tx: Tx, id: string, reason: string, waitMs: number): Promise<void> {
  await tx.query(
    "update feed_ask set state = 'waiting', reason = $2, since = clock_timestamp() where id = $1",
    [id, reason],
  );
  await tx.query(
    "update feed_due set next_at = clock_timestamp() + make_interval(secs => $2 / 1000.0) where ask_id = $1",
    [id, waitMs],
  );
}

export async function giveUpAsk(tx: Tx, id: string, reason: string): Promise<void> {
  await tx.query(
    "update feed_ask set state = 'failed', reason = $2, since = clock_timestamp() where id = $1",
    [id, reason],
  );
  await tx.query("delete from feed_due where ask_id = $1", [id]);
}
