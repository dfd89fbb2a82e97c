import type { LotRow } from "@kobbin/contract";
import type { LotSample, RunLot } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const LOT = `o.id, o.mpn, o.qty, o.place, o.received_on as "receivedOn", o.unit_cost as "unitCost", o.currency, o.condition`;

/** What lies on the shelf, oldest first, with who reserved how many. */
export async function manyLots(tx: Tx): Promise<LotRow[]> {
  const { rows } = await tx.query<Omit<LotRow, "sample"> & { sample: LotSample | null }>(
    `select ${LOT}, o.donor, o.note, o.sample, o.version,
       coalesce((select json_agg(json_build_object('runId', r.run_id, 'run', n.name, 'qty', r.qty) order by n.created_at)
         from reservation as r join run as n on n.id = r.run_id where r.lot_id = o.id), '[]') as reserved,
       (select count(*)::int from bom_line as l where l.mpn_key = o.mpn_key) as uses
     from lot as o order by o.mpn, o.received_on, o.id`,
  );
  return rows.map(({ sample, ...r }) => ({
    ...r,
    unitCost: trim(String(r.unitCost)),
    ...(sample ? { sample } : {}),
  }));
}

/** Lots of some numbers with what of each is free for a run: what others reserved is not. */
export async function manyFreeLots(tx: Tx, numbers: readonly string[], runId: string): Promise<RunLot[]> {
  const { rows } = await tx.query<
    Omit<RunLot, "alsoIn"> & { unitCost: string; alsoIn: RunLot["alsoIn"] | null }
  >(
    `select o.id, o.mpn, (o.qty - coalesce((select sum(r.qty) from reservation as r where r.lot_id = o.id and r.run_id <> $2), 0))::float8 as qty,
       o.place, o.received_on as "receivedOn", o.unit_cost as "unitCost", o.currency, o.condition,
       -- what other runs count on without having reserved it, as their figures stood last
       (select json_agg(json_build_object('run', p.name || ', ' || n.name, 'qty', (f.summary -> 'shelf' ->> o.id::text)::float8) order by n.created_at)
          from run as n join revision as v on v.id = n.revision_id join product as p on p.id = v.product_id join fork as f on f.run_id = n.id and f.name = 'first'
          where n.id <> $2 and f.summary -> 'shelf' ? o.id::text
            and not exists (select from reservation as r where r.lot_id = o.id and r.run_id = n.id)) as "alsoIn"
     from lot as o
     where o.mpn_key = any($1::text[])
     order by o.received_on, o.id`,
    [numbers, runId],
  );
  return rows
    .filter((r) => r.qty > 0)
    .map(({ alsoIn, ...r }) => ({
      ...r,
      unitCost: trim(String(r.unitCost)),
      ...(alsoIn ? { alsoIn } : {}),
    }));
}

export async function insertLot(
  tx: Tx,
  l: {
    mpn: string;
    qty: number;
    place: string;
    receivedOn: string;
    unitCost: string;
    currency: string;
    condition: RunLot["condition"];
    donor: string;
    note: string;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into lot (workshop_id, mpn, qty, place, received_on, unit_cost, currency, condition, donor, note)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [l.mpn, l.qty, l.place, l.receivedOn, l.unitCost, l.currency, l.condition, l.donor, l.note],
  );
  return one(rows, "lot").id;
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

/** Pieces of a lot that no other run reserved, the lot held until the transaction ends. */
export async function freeOf(tx: Tx, lotId: string, runId: string): Promise<{ free: number; mpn: string }> {
  const lot = await oneLot(tx, lotId);
  const { rows } = await tx.query<{ n: number }>(
    "select coalesce(sum(qty), 0)::float8 as n from reservation where lot_id = $1 and run_id <> $2",
    [lotId, runId],
  );
  return { free: lot.qty - rows[0]!.n, mpn: lot.mpn };
}
