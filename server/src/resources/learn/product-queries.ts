import type { LearnedAnswer } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";

/** Products with their revisions, the oldest first. */
export async function manyProductRevisions(tx: Tx): Promise<LearnedAnswer["products"]> {
  const { rows } = await tx.query<LearnedAnswer["products"][number]>(
    `select p.id, p.name, coalesce(jsonb_agg(jsonb_build_object('id', v.id, 'label', v.label,
         'out', (select count(*) from unit_out as u join run as r on r.id = u.run_id where r.revision_id = v.id)) order by v.created_at, v.id)
       filter (where v.id is not null), '[]') as revisions
     from product as p left join revision as v on v.product_id = p.id
     group by p.id, p.name
     order by p.name, p.id`,
  );
  return rows;
}
