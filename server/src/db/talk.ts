import { type TalkTable, talkColumns, talkIdent } from "../schema/talks.ts";
import type { Tx } from "./pool.ts";

/** How a question to somebody outside ends for now. */
export type TalkEnd = "answered" | "failed";

/**
 * Questions to somebody outside, and the list of what is due of them: taken up by one worker, put off, ended. The three tables
 * of questions differ in what is asked; how one goes its way is the same.
 */
export function talk<T extends object>(list: TalkTable) {
  return {
    /** Puts questions on the list, due at once. */
    async putOn(tx: Tx, ids: readonly string[]): Promise<void> {
      await tx.query(
        `insert into ${talkIdent(list, true)} (ask_id, workshop_id) select id, current_workshop() from unnest($1::uuid[]) as a (id)
         on conflict (ask_id) do update set next_at = clock_timestamp()`,
        [ids],
      );
    },
    /**
     * Takes a question up, for this worker alone; undefined where it is not due: done, or in another worker's hands.
     * @param heldMs a question held longer than that was lost with its worker
     */
    async claim(tx: Tx, id: string, heldMs: number): Promise<T | undefined> {
      const { rows } = await tx.query<T>(
        `with taken as (
           update ${talkIdent(list)} set state = 'asking', tries = tries + 1, since = clock_timestamp()
           where id = $1 and id in (select ask_id from ${talkIdent(list, true)} where next_at <= clock_timestamp())
             and (state <> 'asking' or since < clock_timestamp() - make_interval(secs => $2 / 1000.0))
           returning ${talkColumns(list)}
         ), held as (
           update ${talkIdent(list, true)} set next_at = clock_timestamp() + make_interval(secs => $2 / 1000.0)
           where ask_id in (select "id" from taken)
         )
         select * from taken`,
        [id, heldMs],
      );
      return rows[0];
    },
    /** Puts a question off that was not answered. @param isCounted false where that was no fault of who was asked */
    async putOff(tx: Tx, id: string, reason: string, waitMs: number, isCounted = true): Promise<void> {
      await tx.query(
        `update ${talkIdent(list)} set state = 'waiting', reason = $2, since = clock_timestamp(),
           tries = case when $3 then tries else greatest(tries - 1, 0) end where id = $1`,
        [id, reason, isCounted],
      );
      await tx.query(
        `update ${talkIdent(list, true)} set next_at = clock_timestamp() + make_interval(secs => $2 / 1000.0) where ask_id = $1`,
        [id, waitMs],
      );
    },
    /** Ends a question, answered or given up. @param againMs it is due again after that; never where left out */
    async end(tx: Tx, id: string, state: TalkEnd, reason: string, againMs?: number): Promise<void> {
      await tx.query(
        `update ${talkIdent(list)} set state = $2, reason = $3, tries = case when $2 = 'answered' and $4 then 0 else tries end,
           since = clock_timestamp() where id = $1`,
        [id, state, reason, againMs !== undefined],
      );
      if (againMs === undefined)
        await tx.query(`delete from ${talkIdent(list, true)} where ask_id = $1`, [id]);
      else
        await tx.query(
          `update ${talkIdent(list, true)} set next_at = clock_timestamp() + make_interval(secs => $2 / 1000.0) where ask_id = $1`,
          [id, againMs],
        );
    },
  };
}
