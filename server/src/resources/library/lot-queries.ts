import { randomUUID } from "node:crypto";
import type { BoardsWith, LotRow } from "@kobbin/contract";
import type { Kept, LotAir, LotChange, LotSample, RunLot } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const LOT = `o.id, o.number, o.mpn, o.qty, o.place, o.received_on as "receivedOn", o.unit_cost as "unitCost", o.currency, o.condition`;

/** What lies on the shelf, oldest first, with who reserved how many. */
export async function manyLots(tx: Tx): Promise<LotRow[]> {
  const { rows } = await tx.query<
    Omit<LotRow, "sample" | "air" | "made"> & {
      sample: LotSample | null;
      air: LotAir | null;
      made: string | null;
    }
  >(
    `select ${LOT}, o.donor, o.note, o.sample, o.air, o.made, coalesce(p.moisture, '') as moisture, o.version,
       coalesce(r.reserved, '[]') as reserved, coalesce(u.uses, 0) as uses
     from lot as o
     left join part as p on p.mpn_key = o.mpn_key
     -- gathered once, not once a lot
     left join (
       select r.lot_id, json_agg(json_build_object('runId', r.run_id, 'run', n.name, 'qty', r.qty) order by n.created_at) as reserved
       from reservation as r join run as n on n.id = r.run_id group by r.lot_id
     ) as r on r.lot_id = o.id
     left join (select mpn_key, count(*)::int as uses from bom_line group by mpn_key) as u on u.mpn_key = o.mpn_key
     order by o.mpn, o.received_on, o.id`,
  );
  return rows.map(({ sample, air, made, ...r }) => ({
    ...r,
    unitCost: trim(String(r.unitCost)),
    ...(sample ? { sample } : {}),
    ...(air ? { air } : {}),
    ...(made ? { made } : {}),
  }));
}

/** Lots of some numbers with what of each is free for a run: what others reserved is not. */
export async function manyFreeLots(tx: Tx, numbers: readonly string[], runId: string): Promise<RunLot[]> {
  const { rows } = await tx.query<
    Omit<RunLot, "alsoIn" | "made"> & {
      unitCost: string;
      made: string | null;
      alsoIn: RunLot["alsoIn"] | null;
    }
  >(
    `select o.id, o.mpn, (o.qty - coalesce((select sum(r.qty) from reservation as r where r.lot_id = o.id and r.run_id <> $2), 0))::float8 as qty,
       o.place, o.received_on as "receivedOn", o.unit_cost as "unitCost", o.currency, o.condition, o.made,
       -- what other runs count on without having reserved it, as their figures stood last
       (select json_agg(json_build_object('run', p.name || ', ' || n.name, 'qty', (f.summary -> 'shelf' ->> o.id::text)::float8) order by n.created_at)
          from run as n join revision as v on v.id = n.revision_id join product as p on p.id = v.product_id join fork as f on f.run_id = n.id and f.name = 'first'
          where n.id <> $2 and f.summary -> 'shelf' ? o.id::text
            and not exists (select from closing as c where c.run_id = n.id)
            and not exists (select from reservation as r where r.lot_id = o.id and r.run_id = n.id)) as "alsoIn"
     from lot as o
     where o.mpn_key = any($1::text[])
     order by o.received_on, o.id`,
    [numbers, runId],
  );
  return rows
    .filter((r) => r.qty > 0)
    .map(({ alsoIn, made, ...r }) => ({
      ...r,
      unitCost: trim(String(r.unitCost)),
      ...(made ? { made } : {}),
      ...(alsoIn ? { alsoIn } : {}),
    }));
}

/** A lot as it is put on the shelf. */
export interface NewLot {
  readonly mpn: string;
  readonly qty: number;
  readonly place: string;
  readonly receivedOn: string;
  readonly unitCost: string;
  readonly currency: string;
  readonly condition: RunLot["condition"];
  readonly donor: string;
  readonly note: string;
  readonly made?: string | undefined;
}

/** Puts lots on the shelf, all in one statement. @returns their ids, in the same order */
export async function insertLots(tx: Tx, lots: readonly NewLot[]): Promise<string[]> {
  const ids = lots.map(() => randomUUID());
  const of = <K extends keyof NewLot>(key: K) => lots.map((l) => l[key]);
  await tx.query(
    `insert into lot (id, workshop_id, mpn, qty, place, received_on, unit_cost, currency, condition, donor, note, made)
     select id, current_workshop(), mpn, qty, place, received_on, unit_cost, currency, condition, donor, note, made
     from unnest($1::uuid[], $2::text[], $3::int[], $4::text[], $5::date[], $6::numeric[], $7::text[], $8::text[], $9::text[], $10::text[], $11::text[])
       with ordinality as l (id, mpn, qty, place, received_on, unit_cost, currency, condition, donor, note, made, n)
     order by n`,
    [
      ids,
      of("mpn"),
      of("qty"),
      of("place"),
      of("receivedOn"),
      of("unitCost"),
      of("currency"),
      of("condition"),
      of("donor"),
      of("note"),
      lots.map((l) => l.made ?? null),
    ],
  );
  return ids;
}

export const insertLot = async (tx: Tx, lot: NewLot): Promise<string> => (await insertLots(tx, [lot]))[0]!;

/** Reserves pieces of lots that are new for a run, all in one statement. */
export async function insertReservations(
  tx: Tx,
  runId: string,
  lots: readonly { readonly lotId: string; readonly qty: number }[],
): Promise<void> {
  if (lots.length === 0) return;
  await tx.query(
    `insert into reservation (workshop_id, run_id, lot_id, qty)
     select current_workshop(), $1, l.lot_id, l.qty from unnest($2::uuid[], $3::int[]) with ordinality as l (lot_id, qty, n) order by n`,
    [runId, lots.map((l) => l.lotId), lots.map((l) => l.qty)],
  );
}

/** What happened to the dry bag of a lot, with the moisture level of its part; the lot held until the transaction ends. */
export async function oneLotAir(
  tx: Tx,
  id: string,
): Promise<{ mpn: string; air: LotAir | undefined; moisture: string }> {
  const { rows } = await tx.query<{ mpn: string; air: LotAir | null; moisture: string }>(
    `select o.mpn, o.air, coalesce((select p.moisture from part as p where p.mpn_key = o.mpn_key), '') as moisture
     from lot as o where o.id = $1 for update`,
    [id],
  );
  const { air, ...lot } = one(rows, "lot");
  return { ...lot, air: air ?? undefined };
}

export async function updateLotAir(tx: Tx, id: string, air: LotAir | undefined): Promise<void> {
  await tx.query("update lot set air = $2 where id = $1", [id, air ? JSON.stringify(air) : null]);
}

export async function deleteLot(tx: Tx, id: string): Promise<void> {
  one((await tx.query<{ id: string }>("delete from lot where id = $1 returning id", [id])).rows, "lot");
}

/** Reserves pieces of a lot for a run; none gives them free again. */
export async function putReservation(tx: Tx, lotId: string, runId: string, qty: number): Promise<void> {
  if (qty === 0) await tx.query("delete from reservation where lot_id = $1 and run_id = $2", [lotId, runId]);
  else
    await tx.query(
      `insert into reservation (workshop_id, lot_id, run_id, qty) values (current_workshop(), $1, $2, $3)
       on conflict on constraint reservation_key do update set qty = excluded.qty`,
      [lotId, runId, qty],
    );
}

/** A lot's number and pieces, held until the transaction ends. */
export async function oneLot(tx: Tx, id: string): Promise<{ qty: number; mpn: string }> {
  const { rows } = await tx.query<{ qty: number; mpn: string }>(
    "select qty, mpn from lot where id = $1 for update",
    [id],
  );
  return one(rows, "lot");
}

/** Pieces of a lot, nobody kept from changing them. */
export async function lotAsItIs(tx: Tx, id: string): Promise<{ qty: number }> {
  return one((await tx.query<{ qty: number }>("select qty from lot where id = $1", [id])).rows, "lot");
}

/** Pieces of a lot that no other run reserved, the lot held until the transaction ends. */
export async function freeOf(tx: Tx, lotId: string, runId: string): Promise<{ free: number; mpn: string }> {
  const lot = await oneLot(tx, lotId);
  const { rows } = await tx.query<{ n: number }>(
    "select coalesce(sum(qty), 0)::float8 as n from reservation where lot_id = $1 and run_id <> $2",
    [lotId, runId],
  );
  return { free: lot.qty - rows[0]!.n, mpn: lot.mpn };
}

/** Every change of a lot as the record has it, the oldest first. */
export async function manyLotChanges(tx: Tx, id: string): Promise<LotChange[]> {
  const { rows } = await tx.query<
    Omit<LotChange, "was" | "became"> & { was: number | null; became: number | null }
  >(
    `select r.op, to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, c.person, c.sentence,
            (r.was ->> 'qty')::float8 as was, (r.became ->> 'qty')::float8 as became
     from change_row as r join change as c on c.id = r.change_id
     where r.workshop_id = current_workshop() and r.tbl = 'lot' and r.row_key = jsonb_build_object('id', $1::text)::text
     order by r.id`,
    [id],
  );
  return rows.map(({ was, became, ...r }) => ({
    ...r,
    ...(was === null ? {} : { was }),
    ...(became === null ? {} : { became }),
  }));
}

/** Parts that are to lie on the shelf with what of them does: what is locked away is not counted. */
export async function manyKept(tx: Tx): Promise<Kept[]> {
  const { rows } = await tx.query<Kept>(
    `select p.mpn, p.keep_least as least,
            coalesce(sum(o.qty), 0)::float8 as here,
            coalesce(sum((select sum(r.qty) from reservation as r where r.lot_id = o.id)), 0)::float8 as reserved
     from part as p left join lot as o on o.mpn_key = p.mpn_key and o.condition <> 'quarantine'
     where p.keep_least > 0
     group by p.id order by p.mpn`,
  );
  return rows;
}

/** The lot of a number on a label. */
export async function manyLotsNumbered(
  tx: Tx,
  number: number,
): Promise<{ id: string; mpn: string; qty: number; place: string }[]> {
  const { rows } = await tx.query<{ id: string; mpn: string; qty: number; place: string }>(
    "select id, mpn, qty, place from lot where number = $1",
    [number],
  );
  return rows;
}

/** Released runs that a lot came for or that took of it, with the boards that may have it: which one has which piece nobody knows. */
export async function manyBoardsWith(tx: Tx, lotId: string): Promise<BoardsWith[]> {
  const { rows } = await tx.query<BoardsWith & { came: number | null; taken: number | null }>({
    // planned once a connection: it is asked of every lot that is looked at
    name: "boards with a lot",
    text: `select r.id as "runId", r.name as run, p.name as product, v.label as revision, x.came, x.taken,
       w.begun, w.good,
       (select count(*)::integer from unit_out where run_id = r.id) as out
     from (select run_id, sum(came)::integer as came, sum(taken)::integer as taken from (
         select run_id, qty as came, null::integer as taken from receipt where lot_id = $1 and not is_apart
         union all select run_id, null, pieces from lot_taken where lot_id = $1) as y group by run_id) as x
     join run as r on r.id = x.run_id join revision as v on v.id = r.revision_id join product as p on p.id = v.product_id
     cross join lateral (select coalesce(sum(started), 0)::integer as begun, coalesce(sum(good), 0)::integer as good
       from work where run_id = r.id) as w
     order by r.created_at desc, r.id`,
    values: [lotId],
  });
  return rows.map(({ came, taken, ...r }) => ({
    ...r,
    ...(came === null ? {} : { came }),
    ...(taken === null ? {} : { taken }),
  }));
}
