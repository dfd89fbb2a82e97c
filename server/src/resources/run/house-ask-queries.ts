import type { HouseAskRow } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { talk } from "../../db/talk.ts";

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

/** How such a question goes its way. */
export const houseTalk = talk<HouseAsked>("house_ask");

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

/** Houses of one shop that are asked at a time; there are a handful, and each is asked once for every shop. */
const MOST_ASKED = 24;

/**
 * Puts a question to every house that can be asked on the list; what is being asked already is not asked twice.
 * @throws AppError NOT_ALLOWED where a shop has more of them than are asked at a time
 */
export async function insertHouseAsks(
  tx: Tx,
  runId: string,
  start: number,
  by: { readonly accountId: string | null; readonly person: string; readonly page?: string | undefined },
): Promise<number> {
  const answering = (await manyAnswering(tx)).length;
  if (answering > MOST_ASKED)
    throw new AppError(
      "NOT_ALLOWED",
      `This shop has ${answering} houses that answer over the network, and at most ${MOST_ASKED} are asked at a time.`,
      "Remove those you do not order from.",
    );
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
  await houseTalk.putOn(
    tx,
    rows.map((r) => r.id),
  );
  return rows.length;
}

/** Houses that answer over the network, by id. */
export async function manyAnswering(tx: Tx): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    "select id from house where feed_key is not null order by position, id",
  );
  return rows.map((r) => r.id);
}
