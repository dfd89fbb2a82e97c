import type { AskRow } from "@kobbin/contract";
import type { OfferChange } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { talk } from "../../db/talk.ts";

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

/** How such a question goes its way. */
export const supplierTalk = talk<Asked>("feed_ask");

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
  await supplierTalk.putOn(
    tx,
    rows.map((r) => r.id),
  );
  return rows.length;
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
    `update feed_ask set offers = $2, not_listed = $3::uuid[], changes = $4, before = answered_at,
       answered_at = clock_timestamp() where id = $1`,
    [id, said.offers, said.notListed, JSON.stringify(said.changes)],
  );
  await supplierTalk.end(tx, id, "answered", "");
}
