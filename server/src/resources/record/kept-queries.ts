import type { KeptBody } from "@kobbin/contract";
import type { BareKept, BoardMeasured, MadeOf, RunPhoto } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Bare boards of a run that are put by, the oldest first. */
export async function manyKept(tx: Tx, runId: string): Promise<BareKept[]> {
  const { rows } = await tx.query<BareKept>(
    `select id, item, is_apart as "isApart", purpose, pieces, place, on_day as "on", person
     from bare_kept where run_id = $1 order by on_day, at, id`,
    [runId],
  );
  return rows;
}

export async function insertKept(
  tx: Tx,
  runId: string,
  k: KeptBody & { readonly person: string },
): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into bare_kept (workshop_id, run_id, item, is_apart, purpose, pieces, place, on_day, person)
     select current_workshop(), $1, $2, $3, b.purpose, b.pieces, $6, $7, $8 from unnest($4::text[], $5::int[]) as b (purpose, pieces)
     returning id`,
    [
      runId,
      k.item,
      k.isApart,
      k.boards.map((b) => b.purpose),
      k.boards.map((b) => b.pieces),
      k.place,
      k.on,
      k.person,
    ],
  );
  return rows.map((r) => r.id);
}

/** They lie elsewhere. */
export async function updateKept(
  tx: Tx,
  id: string,
  place: string,
): Promise<Pick<BareKept, "pieces" | "purpose"> & { readonly runId: string }> {
  const { rows } = await tx.query<Pick<BareKept, "pieces" | "purpose"> & { readonly runId: string }>(
    `update bare_kept set place = $2 where id = $1 returning run_id as "runId", pieces, purpose`,
    [id, place],
  );
  return one(rows, "bare board");
}

export async function deleteKept(
  tx: Tx,
  id: string,
): Promise<Pick<BareKept, "pieces" | "purpose"> & { readonly runId: string }> {
  const { rows } = await tx.query<Pick<BareKept, "pieces" | "purpose"> & { readonly runId: string }>(
    `delete from bare_kept where id = $1 returning run_id as "runId", pieces, purpose`,
    [id],
  );
  return one(rows, "bare board");
}

/** What a run whose bare boards were looked at says of them. */
export interface LotsOfRun {
  readonly run: string;
  readonly runName: string;
  readonly product: string;
  readonly productId: string;
  readonly revision: string;
  /** Of its released document what says how its boards were ordered. */
  readonly made: MadeOf;
  readonly came: readonly {
    readonly item: string;
    readonly qty: number;
    readonly isApart: boolean;
    readonly on: string;
  }[];
  readonly measured: readonly BoardMeasured[];
  readonly kept: readonly BareKept[];
  readonly photos: readonly (RunPhoto & { readonly spot: string; readonly item: string })[];
}

/**
 * Runs but one whose bare boards came and were measured, put by or photographed, the newest first: those of the same product,
 * then others, so many at most.
 */
export async function manyLotsBefore(
  tx: Tx,
  runId: string,
  productId: string,
  most: number,
): Promise<LotsOfRun[]> {
  const { rows } = await tx.query<LotsOfRun>(
    `with looked as (
       select run_id from board_measured union select run_id from bare_kept
       union select run_id from photo where spot is not null
     ), chosen as (
       select r.id, r.name, p.id as product_id, p.name as product, v.label as revision, x.first_on
       from looked as l
       join run as r on r.id = l.run_id
       join revision as v on v.id = r.revision_id
       join product as p on p.id = v.product_id
       cross join lateral (
         select min(c.arrived_on) as first_on from receipt as c where c.run_id = r.id and c.order_key like 'boards %'
       ) as x
       where r.id <> $1 and x.first_on is not null
       order by p.id = $2 desc, x.first_on desc, r.id
       limit $3
     )
     select c.id as run, c.name as "runName", c.product, c.product_id as "productId", c.revision,
       jsonb_strip_nulls(jsonb_build_object(
         'house', e.document -> 'house', 'options', e.document -> 'options', 'fits', e.document -> 'fits',
         'boards', (
           select jsonb_agg(jsonb_build_object('id', b -> 'id', 'name', b -> 'name', 'perProduct', b -> 'perProduct',
               'measure', (b -> 'measure') - '{nets,netlist,stencil,paste,findings,crossCheck,layers}'::text[]) order by n)
           from jsonb_array_elements(e.document -> 'boards') with ordinality as x (b, n)
         ))) as made,
       (select jsonb_agg(jsonb_build_object('item', q.item, 'qty', q.qty, 'isApart', q.is_apart, 'on', q.arrived_on))
        from receipt as q where q.run_id = c.id and q.order_key like 'boards %') as came,
       coalesce((select jsonb_agg(jsonb_build_object('id', m.id, 'item', m.item, 'label', m.label, 'on', m.on_day,
             'readings', m.readings, 'looks', m.looks, 'person', m.person, 'note', m.note) order by m.on_day, m.at, m.id)
           from board_measured as m where m.run_id = c.id), '[]') as measured,
       coalesce((select jsonb_agg(jsonb_build_object('id', k.id, 'item', k.item, 'isApart', k.is_apart, 'purpose', k.purpose,
             'pieces', k.pieces, 'place', k.place, 'on', k.on_day, 'person', k.person) order by k.on_day, k.at, k.id)
           from bare_kept as k where k.run_id = c.id), '[]') as kept,
       coalesce((select jsonb_agg(jsonb_build_object('id', h.id, 'order', h.order_key, 'item', h.item, 'spot', h.spot,
             'widthPx', h.width_px, 'heightPx', h.height_px, 'on', h.on_day, 'note', h.note, 'person', h.person) order by h.at, h.id)
           from photo as h where h.run_id = c.id and h.spot is not null), '[]') as photos
     from chosen as c
     -- what was released again counts as it was last
     cross join lateral (select document from release where run_id = c.id order by released_at desc, id limit 1) as e
     order by c.product_id = $2 desc, c.first_on desc, c.id`,
    [runId, productId, most],
  );
  return rows;
}
