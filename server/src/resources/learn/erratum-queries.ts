import type { DecisionBody, ErratumBody, NewErratumBody, ReworkBody, ShopErratum } from "@kobbin/contract";
import type { LessonPlace, RunErratum } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";
import { OF_ERRATUM, READ_OF } from "./reading-queries.ts";

/** Optional columns of an erratum as a document has them. */
const plain = <T extends { readonly minutes: number | null }>({ minutes, ...e }: T) => ({
  ...e,
  ...(minutes === null || minutes === undefined ? {} : { minutes }),
});

/** What is known to be wrong with a product, as it stands for one of its revisions. */
export async function manyErrata(tx: Tx, productId: string, revisionId: string): Promise<RunErratum[]> {
  type Row = Omit<RunErratum, "minutes" | "decision" | "before" | "corner"> & {
    minutes: number | null;
    decision: NonNullable<RunErratum["decision"]> | null;
    before: LessonPlace[] | null;
    x: number | null;
    y: number | null;
  };
  const { rows } = await tx.query<Row>(
    `select e.id, e.title, e.effect, e.harm, e.spot, e.way, e.workaround, e.minutes, e.planned, e.evidence,
       e.found_on::text as "foundOn", v.label as "foundIn", e.revision_id = $2 as "isHere", e.decisions->$2::text as decision,
       case when p.read_of = ${READ_OF} then p.places end as before,
       coalesce((b.measure#>>'{extentMm,0}')::float8, 0) as x, coalesce((b.measure#>>'{extentMm,1}')::float8, 0) as y
     from erratum as e
     join revision as v on v.id = e.revision_id
     left join board as b on b.revision_id = e.revision_id and ${OF_ERRATUM}
     left join lesson as l on false
     left join learned_reading as p on p.board_id = b.id and p.of_id = e.id
     where e.product_id = $1
     order by e.position, e.id`,
    [productId, revisionId],
  );
  return rows.map(
    ({ decision, before, x, y, ...r }): RunErratum => ({
      ...plain(r),
      ...(decision === null ? {} : { decision }),
      ...(before === null || r.isHere ? {} : { before, corner: [x!, y!] as const }),
    }),
  );
}

/** Every erratum of the shop, with how far the boards that have it are worked on. */
export async function manyShopErrata(tx: Tx): Promise<ShopErratum[]> {
  const { rows } = await tx.query<ShopErratum & { minutes: number | null }>(
    `select e.id, e.title, e.effect, e.harm, e.spot, e.way, e.workaround, e.minutes, e.planned, e.evidence,
       e.found_on::text as "foundOn", e.product_id as "productId", p.name as product,
       e.revision_id as "revisionId", v.label as revision, e.decisions,
       coalesce((select jsonb_agg(jsonb_build_object('runId', r.id, 'run', r.name, 'revision', rv.label,
             'good', (select coalesce(sum(w.good), 0) from work as w where w.run_id = r.id),
             'units', (select coalesce(jsonb_agg(jsonb_strip_nulls(jsonb_build_object('id', k.id, 'unit', k.unit, 'isScrapped', k.is_scrapped,
                 'minutes', k.minutes)) order by k.unit), '[]')
               from rework as k where k.erratum_id = e.id and k.run_id = r.id))
           order by r.created_at, r.id)
         from run as r join revision as rv on rv.id = r.revision_id
         -- boards of another revision have it where it was decided that it stays
         where rv.product_id = e.product_id and r.state <> 'open'
           and (rv.id = e.revision_id or e.decisions->(rv.id::text)->>'is' = 'stays')), '[]') as reworks
     from erratum as e
     join product as p on p.id = e.product_id
     join revision as v on v.id = e.revision_id
     order by p.name, e.position desc, e.id`,
  );
  return rows.map(plain) as ShopErratum[];
}

/** The product and revision an erratum is of, and what it is called. */
export async function oneErratum(
  tx: Tx,
  id: string,
): Promise<{ productId: string; revisionId: string; title: string }> {
  const { rows } = await tx.query<{ productId: string; revisionId: string; title: string }>(
    `select product_id as "productId", revision_id as "revisionId", title from erratum where id = $1`,
    [id],
  );
  return one(rows, "erratum");
}

/** A revision with its product, by name. */
export async function oneRevisionOf(
  tx: Tx,
  id: string,
): Promise<{ productId: string; product: string; label: string }> {
  const { rows } = await tx.query<{ productId: string; product: string; label: string }>(
    `select p.id as "productId", p.name as product, v.label
     from revision as v join product as p on p.id = v.product_id where v.id = $1`,
    [id],
  );
  return one(rows, "revision");
}

export async function insertErratum(tx: Tx, productId: string, e: NewErratumBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into erratum (workshop_id, product_id, revision_id, title, effect, harm, spot, way, workaround, minutes,
       planned, evidence, found_on, position)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12,
       (select coalesce(max(position) + 1, 0) from erratum where product_id = $1)) returning id`,
    [
      productId,
      e.revisionId,
      e.title,
      e.effect,
      e.harm,
      JSON.stringify(e.spot),
      e.way,
      e.workaround,
      e.minutes ?? null,
      e.planned,
      e.evidence,
      e.foundOn,
    ],
  );
  return one(rows, "erratum").id;
}

/** What is said anew of an erratum; what is not said stays. */
export async function updateErratum(tx: Tx, id: string, e: ErratumBody): Promise<void> {
  await tx.query(
    `update erratum set
       title = coalesce($2, title),
       effect = coalesce($3, effect),
       harm = coalesce($4, harm),
       spot = coalesce($5, spot),
       way = coalesce($6, way),
       workaround = coalesce($7, workaround),
       minutes = case when $8 then $9::double precision else minutes end,
       planned = coalesce($10, planned),
       evidence = coalesce($11, evidence)
     where id = $1`,
    [
      id,
      e.title ?? null,
      e.effect ?? null,
      e.harm ?? null,
      e.spot ? JSON.stringify(e.spot) : null,
      e.way ?? null,
      e.workaround ?? null,
      e.minutes !== undefined,
      e.minutes ?? null,
      e.planned ?? null,
      e.evidence ?? null,
    ],
  );
}

/** What was decided for a revision; taken back where nothing is. */
export async function updateDecision(tx: Tx, id: string, d: DecisionBody): Promise<void> {
  await tx.query(
    `update erratum set decisions = case when $3::text is null then decisions - $2::text
       else jsonb_set(decisions, array[$2::text], jsonb_build_object('is', $3::text, 'because', $4::text, 'on', $5::text)) end
     where id = $1`,
    [id, d.revisionId, d.is, d.because, d.on],
  );
}

export async function deleteErratum(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from erratum where id = $1", [id]);
}

/** Writes down what became of one board; what was said of it before is put right. */
export async function upsertRework(
  tx: Tx,
  erratumId: string,
  r: ReworkBody,
  person: string,
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into rework (workshop_id, erratum_id, run_id, unit, on_day, minutes, is_scrapped, note, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8)
     on conflict (workshop_id, erratum_id, run_id, unit) do update set on_day = excluded.on_day,
       minutes = excluded.minutes, is_scrapped = excluded.is_scrapped, note = excluded.note, person = excluded.person
     returning id`,
    [erratumId, r.runId, r.unit, r.on, r.minutes ?? null, r.isScrapped, r.note, person],
  );
  return one(rows, "reworked board").id;
}

/** @returns of which run and board it was, and of which erratum */
export async function deleteRework(
  tx: Tx,
  id: string,
): Promise<{ runId: string; unit: number; erratumId: string }> {
  const { rows } = await tx.query<{ runId: string; unit: number; erratumId: string }>(
    `delete from rework where id = $1 returning run_id as "runId", unit, erratum_id as "erratumId"`,
    [id],
  );
  return one(rows, "reworked board");
}

/** How many errata were worked around on a board of a run. */
export async function reworksOf(tx: Tx, runId: string, unit: number): Promise<number> {
  const { rows } = await tx.query<{ n: number }>(
    "select count(*)::integer as n from rework where run_id = $1 and unit = $2 and not is_scrapped",
    [runId, unit],
  );
  return rows[0]!.n;
}
