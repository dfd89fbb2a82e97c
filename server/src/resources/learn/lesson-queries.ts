import type { BuiltWith, LessonBody, NewLessonBody, ShopLesson } from "@kobbin/contract";
import { BENCH_TOOLS, type MadeBetween, type RunLesson, wasMade } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";
import { FORMER } from "../people/index.ts";

/**
 * Lessons that count for a product, oldest first; of those it is let off the reason. In whose hands a machine is doubted is
 * not told: a document is frozen with its lessons, and a name must be forgotten wherever it stands.
 */
export async function manyLessons(tx: Tx, productId: string): Promise<RunLesson[]> {
  const { rows } = await tx.query<Omit<RunLesson, "relaxedBecause"> & { because: string | null }>(
    `select id, title, case when looks_at ? 'person' then looks_at || '{"person": "one of us"}' else looks_at end as "check", level, sure, came, evidence, since::text,
       (select r->>'because' from jsonb_array_elements(relaxed) as r where r->>'product' = $1::text limit 1) as because
     from lesson
     where cleared_on is null and (product_id is null or product_id = $1::uuid)
     order by position, id`,
    [productId],
  );
  return rows.map(({ because, ...l }) => ({
    ...l,
    ...(because === null ? {} : { relaxedBecause: because }),
  }));
}

/**
 * Released runs that have what a lesson doubts: a part by its number in what was released or in what came and may be used,
 * a lot that came for the run or was counted as taken, a house that something is ordered at, a machine of which is written
 * down that boards went through it, a program they were loaded with: of these the boards are known.
 */
const USES = `(
  select x.run_id, max(x.units) as units,
    array_agg(distinct p.place order by p.place) filter (where p.place is not null) as places from (
    select run_id, places, null::integer as units from release_use
    where kind = l.looks_at->>'kind' and key = case kind
      when 'part' then number_key(l.looks_at->>'mpn') else l.looks_at->>'id' end
    union all
    -- a lot by its id, a part by every lot of its number: each by its own index
    (select c.run_id, array[sum(c.qty)::text || ' came'], null
     from lot as o join receipt as c on c.workshop_id = o.workshop_id and c.lot_id = o.id
     where l.looks_at->>'kind' = 'part' and o.mpn_key = number_key(l.looks_at->>'mpn') and not c.is_apart
     group by c.run_id)
    union all
    (select c.run_id, array[sum(c.qty)::text || ' came'], null from receipt as c
     where c.lot_id = case when l.looks_at->>'kind' = 'lot' then (l.looks_at->>'id')::uuid end and not c.is_apart
     group by c.run_id)
    union all
    select run_id, array[pieces::text || ' taken'], null from lot_taken
    where lot_id = case when l.looks_at->>'kind' = 'lot' then (l.looks_at->>'id')::uuid end
    union all
    -- by the name it had when a board went through it, which it may have still
    -- who left stands under one name with all who left: any board of theirs may have it, which is not known
    (select s.run_id, '{}'::text[],
       case when l.looks_at->>'person' = '${FORMER}' then null else count(distinct s.unit)::integer end
     from (select l.looks_at->>'name' as name union select name from equipment where id::text = l.looks_at->>'id') as m
     cross join unnest(array['${BENCH_TOOLS.join("', '")}']) as t(tool)
     join sitting as s on s.used @> jsonb_build_object(t.tool, m.name) and s.used <> '{}' and s.unit > 0
     where l.looks_at->>'kind' = 'machine' and coalesce(l.looks_at->>'person', s.person) = s.person
     group by s.run_id)
    union all
    -- what a board was loaded with last; of a chip that is loaded loose nobody knows on which board it went
    (select i.run_id, '{}'::text[],
       case when exists (select from release as r where r.run_id = i.run_id
           and r.document->'assembly'->'programLoose' ?| array_agg(i.place)) then null
         else count(distinct i.unit)::integer end
     from (select distinct on (x.run_id, x.place, lower(x.name), x.unit) x.run_id, x.unit, x.place, x.version_text
       from image_load as x
       where l.looks_at->>'kind' = 'program' and lower(x.name) = lower(btrim(l.looks_at->>'name')) and x.is_right
       order by x.run_id, x.place, lower(x.name), x.unit, x.at desc) as i
     where btrim(l.looks_at->>'version') = '' or lower(btrim(i.version_text)) = lower(btrim(l.looks_at->>'version'))
     group by i.run_id)
  ) as x left join lateral unnest(x.places) as p(place) on true
  group by x.run_id
) as u`;

/**
 * Date codes of the bags of a part that came for a run or were taken for it, where only some days of it are doubted: by the
 * lesson and the run.
 *
 * @param today ISO day
 */
async function manyBags(tx: Tx, today: string): Promise<Map<string, NonNullable<BuiltWith["bags"]>>> {
  const { rows } = await tx.query<{ lesson: string; runId: string; made: MadeBetween; codes: string[] }>(
    `select l.id as lesson, u.run_id as "runId", l.looks_at->'made' as made,
       array_agg(coalesce(o.made, '') order by o.made, o.id) as codes
     from lesson as l
     join lot as o on o.mpn_key = number_key(l.looks_at->>'mpn')
     join (select lot_id, run_id from receipt where not is_apart
           union select lot_id, run_id from lot_taken) as u on u.lot_id = o.id
     where l.looks_at->>'kind' = 'part' and l.looks_at ? 'made'
     group by l.id, u.run_id`,
  );
  return new Map(
    rows.map((r) => [
      `${r.lesson} ${r.runId}`,
      r.codes.map((code) => ({ code, was: wasMade(code, r.made, today) })),
    ]),
  );
}

/** Bags of such parts that still hold something, by the lesson. @param today ISO day */
async function manyBagsLeft(tx: Tx, today: string): Promise<Map<string, BagLeft[]>> {
  const { rows } = await tx.query<{ lesson: string; made: MadeBetween } & Omit<BagLeft, "was">>(
    `select l.id as lesson, l.looks_at->'made' as made, o.id as "lotId", o.place, o.qty::float8 as qty,
       coalesce(o.made, '') as code, o.condition = 'quarantine' as "isApart"
     from lesson as l
     join lot as o on o.mpn_key = number_key(l.looks_at->>'mpn')
     where l.looks_at->>'kind' = 'part' and l.looks_at ? 'made' and l.cleared_on is null and o.qty > 0
     order by o.received_on, o.id`,
  );
  const out = new Map<string, BagLeft[]>();
  for (const { lesson, made, ...bag } of rows)
    out.set(lesson, [...(out.get(lesson) ?? []), { ...bag, was: wasMade(bag.code, made, today) }]);
  return out;
}
type BagLeft = NonNullable<ShopLesson["bags"]>[number];

/**
 * Every lesson of the shop with what it caught, and the open runs in which it is open.
 *
 * @param today ISO day
 */
export async function manyShopLessons(tx: Tx, today: string): Promise<ShopLesson[]> {
  type Row = Omit<ShopLesson, "productId" | "product" | "revisionId" | "clearedOn"> & {
    productId: string | null;
    product: string | null;
    revisionId: string | null;
    clearedOn: string | null;
  };
  const { rows } = await tx.query<Row>(
    `select l.id, l.title, l.looks_at as "check", l.level, l.sure, l.came, l.evidence, l.since::text,
       l.product_id as "productId", p.name as product, l.revision_id as "revisionId",
       l.cleared_on::text as "clearedOn", l.cleared_by as "clearedBy", l.relaxed,
       coalesce((select jsonb_agg(jsonb_build_object('product', cp.name, 'revision', cv.label, 'on', c.on_day, 'found', c.found)
           order by c.on_day desc, cp.name, cv.label)
         from lesson_catch as c join revision as cv on cv.id = c.revision_id join product as cp on cp.id = cv.product_id
         where c.lesson_id = l.id), '[]') as caught,
       coalesce((select jsonb_agg(jsonb_build_object('runId', r.id, 'run', r.name, 'product', rp.name, 'revision', rv.label,
             'places', coalesce(u.places, '{}'), 'begun', w.begun, 'good', w.good)
             || case when u.units is null then '{}'::jsonb else jsonb_build_object('units', u.units) end order by rp.name, rv.label, r.created_at, r.id)
         from ${USES}
         join run as r on r.id = u.run_id
         join revision as rv on rv.id = r.revision_id join product as rp on rp.id = rv.product_id
         cross join lateral (select coalesce(sum(started), 0) as begun, coalesce(sum(good), 0) as good
           from work where run_id = r.id) as w), '[]') as built,
       coalesce((select jsonb_agg(jsonb_build_object('id', r.id, 'name', r.name, 'product', rp.name, 'revision', rv.label)
             || (f.summary->'lessons'->l.id::text) order by rp.name, rv.label, r.name, r.id)
         from run as r join revision as rv on rv.id = r.revision_id join product as rp on rp.id = rv.product_id
         join fork as f on f.run_id = r.id and f.name = 'first'
         where r.state = 'open' and f.summary->'lessons' ? l.id::text), '[]') as runs
     from lesson as l
     left join product as p on p.id = l.product_id
     order by l.cleared_on is not null, l.position desc, l.id`,
  );
  const isNarrow = rows.some((l) => l.check.kind === "part" && l.check.made);
  const bags = isNarrow ? await manyBags(tx, today) : undefined;
  const left = isNarrow ? await manyBagsLeft(tx, today) : undefined;
  const withBags = (lesson: string, b: BuiltWith): BuiltWith => {
    const its = bags?.get(`${lesson} ${b.runId}`);
    return its ? { ...b, bags: its } : b;
  };
  return rows.map(({ productId, product, revisionId, clearedOn, ...l }) => ({
    ...l,
    built: l.built.map((b) => withBags(l.id, b)),
    ...(left?.has(l.id) ? { bags: left.get(l.id)! } : {}),
    ...(productId === null ? {} : { productId, product: product! }),
    ...(revisionId === null ? {} : { revisionId }),
    ...(clearedOn === null ? {} : { clearedOn }),
  }));
}

/** Open runs that are not counted since something changed, or could not be: how the lessons stand in them is not known. */
export async function countUncounted(tx: Tx): Promise<number> {
  const { rows } = await tx.query<{ n: number }>(
    `select count(*)::int as n from run as r join fork as f on f.run_id = r.id and f.name = 'first'
     where r.state = 'open'
       and (not coalesce(f.summary ? 'lessons', false) or exists (select 1 from figures_due as d where d.run_id = r.id))`,
  );
  return rows[0]!.n;
}

export async function insertLesson(tx: Tx, l: NewLessonBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into lesson (workshop_id, title, looks_at, level, sure, came, evidence, since, product_id, revision_id, position)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9,
       (select coalesce(max(position) + 1, 0) from lesson)) returning id`,
    [
      l.title,
      JSON.stringify(l.check),
      l.level,
      l.sure,
      l.came,
      l.evidence,
      l.since,
      l.productId ?? null,
      l.revisionId ?? null,
    ],
  );
  return one(rows, "lesson").id;
}

export async function oneLessonTitle(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ title: string }>("select title from lesson where id = $1", [id]);
  return one(rows, "lesson").title;
}

/** What is said anew of a lesson; what is not said stays. */
export async function updateLesson(tx: Tx, id: string, l: LessonBody): Promise<void> {
  await tx.query(
    `update lesson set
       title = coalesce($2, title),
       looks_at = coalesce($3, looks_at),
       level = coalesce($4, level),
       sure = coalesce($5, sure),
       evidence = coalesce($6, evidence),
       cleared_on = case when $7 then $8::date else cleared_on end,
       cleared_by = coalesce($9, cleared_by),
       relaxed = coalesce($10, relaxed)
     where id = $1`,
    [
      id,
      l.title ?? null,
      l.check ? JSON.stringify(l.check) : null,
      l.level ?? null,
      l.sure ?? null,
      l.evidence ?? null,
      l.clearedOn !== undefined,
      l.clearedOn ?? null,
      l.clearedBy ?? null,
      l.relaxed ? JSON.stringify(l.relaxed) : null,
    ],
  );
}

export async function deleteLesson(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from lesson where id = $1", [id]);
}

/** Lessons of which it is not written down yet that they caught something on a revision; those learned from it are none. */
export async function manyNewCatches(
  tx: Tx,
  revisionId: string,
  lessons: readonly string[],
): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    `select l.id from lesson as l
     where l.id = any($2::uuid[]) and l.revision_id is distinct from $1
       -- what is chosen of a run, or lies in a bag, says nothing of a design
       and l.looks_at->>'kind' not in ('lot', 'house', 'machine', 'program') and not l.looks_at ? 'made'
       and not exists (select from lesson_catch as c where c.lesson_id = l.id and c.revision_id = $1)`,
    [revisionId, lessons],
  );
  return rows.map((r) => r.id);
}

/** Writes down that lessons did not hold on a revision. */
export async function insertCatches(
  tx: Tx,
  revisionId: string,
  catches: readonly { readonly lesson: string; readonly found: string }[],
  on: string,
): Promise<void> {
  await tx.query(
    `insert into lesson_catch (workshop_id, lesson_id, revision_id, on_day, found)
     select current_workshop(), l.id, $1, $4, u.found
     from unnest($2::uuid[], $3::text[]) as u (lesson, found)
     join lesson as l on l.id = u.lesson
     on conflict do nothing`,
    [revisionId, catches.map((c) => c.lesson), catches.map((c) => c.found.slice(0, 1000)), on],
  );
}
