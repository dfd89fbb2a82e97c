import type { MistakesOfYear } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";
import { commonSince } from "./common-queries.ts";

/** What went wrong since a day: faults, boards given up, known faults worked around, claims. */
export async function mistakesSince(tx: Tx, since: string): Promise<MistakesOfYear> {
  const { rows } = await tx.query<Omit<MistakesOfYear, "since" | "common">>(
    `select
       coalesce((select jsonb_agg(f order by f.n desc, f.code) from (
         select code, count(*) as n, coalesce(sum(minutes), 0) as minutes, count(*) filter (where minutes is null) as untimed
         from defect where on_day >= $1 group by code) as f), '[]') as faults,
       coalesce((select jsonb_agg(jsonb_strip_nulls(to_jsonb(s)) order by s.boards desc, s.run) from (
         select r.name as run, sum(w.scrapped) as boards,
           (select (f.summary->>'perGood')::float8 from fork as f where f.run_id = r.id and f.name = 'first'
             and not f.summary ? 'unpriced') as "perBoard"
         from work as w join run as r on r.id = w.run_id
         where w.on_day >= $1 group by r.id, r.name having sum(w.scrapped) > 0) as s), '[]') as scrapped,
       (select jsonb_build_object('n', count(*), 'minutes', coalesce(sum(minutes), 0),
           'untimed', count(*) filter (where minutes is null))
         from rework where on_day >= $1 and not is_scrapped) as reworked,
       (select count(*)::integer from claim where opened_on >= $1) as claims`,
    [since],
  );
  return { since, ...one(rows, "shop"), common: await commonSince(tx, since) };
}
