import type { FoundRow } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";

/** What the numbers of boards that were built are made of, by run. */
export async function manySeries(tx: Tx): Promise<
  {
    readonly runId: string;
    readonly name: string;
    readonly revision: string;
    readonly product: string;
    readonly rule: string;
    readonly batch: number;
    readonly year: number;
  }[]
> {
  const { rows } = await tx.query(
    `select r.id as "runId", r.name, v.label as revision, l.product, l.serial_rule as rule,
            r.batch, extract(year from l.released_at at time zone 'UTC')::integer as year
     from run as r join release as l on l.run_id = r.id join revision as v on v.id = r.revision_id
     where r.batch is not null`,
  );
  return rows;
}

/** Runs, products, parts and what was learned, in whose words each of some patterns occurs. */
export async function manyFound(tx: Tx, words: readonly string[]): Promise<FoundRow[]> {
  const { rows } = await tx.query<FoundRow>(
    `select found.kind, found.text, found.more, found."to", b.id as "boardId", md5(b.corrections::text) as look from (
       (select 'run' as kind, p.name || ', ' || r.name as text, 'revision ' || v.label || ', ' || f.good_boards || ' good boards' as more,
               '/runs/' || r.id || '/board' as "to", v.id as revision_id, null::uuid as board_id
        from run as r join fork as f on f.run_id = r.id and f.name = 'first'
        join revision as v on v.id = r.revision_id join product as p on p.id = v.product_id
        where lower(p.name || ' ' || v.label || ' ' || r.name) like all ($1::text[])
        order by f.updated_at desc limit 8)
       union all
       (select 'product', p.name, '', '/products/' || p.id || '/history',
               (select id from revision where product_id = p.id order by created_at desc limit 1), null from product as p
        where lower(p.name) like all ($1::text[]) order by p.name limit 5)
       union all
       (select 'part', coalesce(nullif(l.mpn, ''), nullif(l.value_text, ''), l.refs[1]),
               array_to_string(l.refs[1:4], ' ') || ' ' || l.value_text || ' in ' || p.name || ' ' || v.label,
               '/runs/' || (select id from run where revision_id = v.id order by created_at desc limit 1)
                 || '/parts?find=' || coalesce(nullif(l.mpn, ''), nullif(l.value_text, ''), l.refs[1]), v.id, l.board_id
        from bom_line as l join revision as v on v.id = l.revision_id join product as p on p.id = v.product_id
        where lower(array_to_string(l.refs, ' ') || ' ' || l.value_text || ' ' || l.mpn || ' ' || l.maker || ' ' || l.description) like all ($1::text[])
        order by l.position limit 8)
       union all
       (select 'lesson', title, came, '/lessons?find=' || replace(replace(title, '%', '%25'), '&', '%26'), null, null from lesson
        where lower(title || ' ' || came || ' ' || evidence) like all ($1::text[]) order by position desc limit 5)
       union all
       (select 'lesson', e.title, p.name || ' ' || v.label || ', known to be wrong', '/lessons?find=' || replace(replace(e.title, '%', '%25'), '&', '%26'),
               v.id, null
        from erratum as e join revision as v on v.id = e.revision_id join product as p on p.id = e.product_id
        where lower(e.title || ' ' || e.effect || ' ' || e.workaround || ' ' || p.name) like all ($1::text[])
        order by e.position desc limit 5)
     ) as found
     left join lateral (select o.id, o.corrections from board as o where o.revision_id = found.revision_id
                        order by (o.id = found.board_id) desc nulls last, o.position, o.name, o.id limit 1) as b on true
     where found."to" is not null`,
    [words],
  );
  return rows;
}
