import { randomUUID } from "node:crypto";
import type { BareTestBody, HouseRecord, PurchaseBody } from "@kobbin/contract";
import type { BareTest, PastRun, RunPurchase, RunReceipt, RunRecord, RunWork } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";
import { manyClaims, manyMeasured } from "./came-queries.ts";
import { manyDefects } from "./defect-queries.ts";
import { manyKept } from "./kept-queries.ts";
import { manyLoads } from "./load-queries.ts";
import { manySteps } from "./order-queries.ts";
import { manyPhotos } from "./photo-queries.ts";
import { manySittings } from "./sitting-queries.ts";
import { manyTries } from "./try-queries.ts";

/** Everything that happened to a run since its release. */
export async function oneRecord(tx: Tx, runId: string): Promise<RunRecord> {
  const [
    purchases,
    steps,
    receipts,
    bareTests,
    measured,
    kept,
    claims,
    photos,
    work,
    sittings,
    tries,
    loads,
    defects,
    closing,
    series,
  ] = await Promise.all([
    manyPurchases(tx, runId),
    manySteps(tx, runId),
    manyReceipts(tx, runId),
    manyBareTests(tx, runId),
    manyMeasured(tx, runId),
    manyKept(tx, runId),
    manyClaims(tx, runId),
    manyPhotos(tx, runId),
    manyWork(tx, runId),
    manySittings(tx, runId),
    manyTries(tx, runId),
    manyLoads(tx, runId),
    manyDefects(tx, runId),
    maybeClosing(tx, runId),
    maybeSeries(tx, runId),
  ]);
  return {
    purchases,
    receipts,
    ...(bareTests.length > 0 ? { bareTests } : {}),
    ...(measured.length > 0 ? { measured } : {}),
    ...(kept.length > 0 ? { kept } : {}),
    ...(claims.length > 0 ? { claims } : {}),
    ...(photos.length > 0 ? { photos } : {}),
    ...(steps.length > 0 ? { steps } : {}),
    work,
    ...(sittings.length > 0 ? { sittings } : {}),
    ...(tries.length > 0 ? { tries } : {}),
    ...(loads.length > 0 ? { loads } : {}),
    ...(defects.length > 0 ? { defects } : {}),
    ...(series ? { series } : {}),
    ...closing,
  };
}

/** The number of a run's release, and its year; nothing before. */
async function maybeSeries(tx: Tx, runId: string): Promise<RunRecord["series"]> {
  const { rows } = await tx.query<{ batch: number; year: number }>(
    `select r.batch, extract(year from l.released_at at time zone 'UTC')::integer as year
     from run as r join release as l on l.run_id = r.id
     where r.id = $1 and r.batch is not null
     order by l.released_at limit 1`,
    [runId],
  );
  return rows[0];
}

export async function manyPurchases(tx: Tx, runId: string): Promise<RunPurchase[]> {
  const { rows } = await tx.query<{
    id: string;
    order: string;
    currency: string;
    orderedOn: string | null;
    promisedOn: string | null;
    freight: string | null;
    paid: RunPurchase["paid"];
    note: string;
  }>(
    `select id, order_key as "order", currency, ordered_on as "orderedOn", promised_on as "promisedOn", freight, paid, note
     from purchase where run_id = $1 order by order_key`,
    [runId],
  );
  return rows.map(({ orderedOn, promisedOn, freight, ...r }) => ({
    ...r,
    ...(orderedOn === null ? {} : { orderedOn }),
    ...(promisedOn === null ? {} : { promisedOn }),
    ...(freight === null ? {} : { freight: trim(freight) }),
  }));
}

async function manyReceipts(tx: Tx, runId: string): Promise<RunReceipt[]> {
  const { rows } = await tx.query<Omit<RunReceipt, "lot"> & { lot: string | null }>(
    `select id, order_key as "order", item, qty, arrived_on as "arrivedOn", is_apart as "isApart", because, lot_id as lot
     from receipt where run_id = $1 order by arrived_on, at, id`,
    [runId],
  );
  return rows.map(({ lot, ...r }) => ({ ...r, ...(lot === null ? {} : { lot }) }));
}

async function manyBareTests(tx: Tx, runId: string): Promise<BareTest[]> {
  const { rows } = await tx.query<Omit<BareTest, "receipt"> & { receipt: string | null }>(
    `select id, item, receipt_id as receipt, label, on_day as "on", tried, faults, person, note
     from bare_test where run_id = $1 order by on_day, at, id`,
    [runId],
  );
  return rows.map(({ receipt, ...r }) => ({ ...r, ...(receipt === null ? {} : { receipt }) }));
}

/** What was counted as built of a run, in the order of the days. */
export async function manyWork(tx: Tx, runId: string): Promise<RunWork[]> {
  const { rows } = await tx.query<RunWork>(
    `select id, on_day as "on", started, good, reworked, scrapped, minutes, person, note
     from work where run_id = $1 order by on_day, at, id`,
    [runId],
  );
  return rows;
}

async function maybeClosing(
  tx: Tx,
  runId: string,
): Promise<Pick<RunRecord, "closedOn" | "lesson" | "taken"> | undefined> {
  const { rows } = await tx.query<Pick<RunRecord, "closedOn" | "lesson" | "taken">>(
    `select closed_on as "closedOn", lesson, taken from closing where run_id = $1`,
    [runId],
  );
  return rows[0];
}

/** Versions of a run's orders, by id. */
export async function manyRecordVersions(tx: Tx, runId: string): Promise<{ id: string; version: number }[]> {
  const { rows } = await tx.query<{ id: string; version: number }>(
    "select id, version from purchase where run_id = $1 union all select id, version from sitting where run_id = $1",
    [runId],
  );
  return rows;
}

/** What came of closed runs of a product, oldest first. */
export async function manyPast(tx: Tx, productId: string): Promise<PastRun[]> {
  const { rows } = await tx.query<{
    name: string;
    closedOn: string;
    lesson: string;
    outcome: Omit<PastRun, "name" | "closedOn" | "lesson">;
  }>(
    `select r.name, c.closed_on as "closedOn", c.lesson, c.outcome
     from closing as c join run as r on r.id = c.run_id join revision as v on v.id = r.revision_id
     where v.product_id = $1 order by c.closed_on, c.id`,
    [productId],
  );
  return rows.map(({ outcome, lesson, ...r }) => ({
    ...r,
    ...(lesson === "" ? {} : { lesson }),
    ...outcome,
  }));
}

/** The row of one of a run's orders, made where there is none yet. */
export async function upsertPurchase(
  tx: Tx,
  runId: string,
  p: { order: string; label: string; currency: string },
): Promise<{ id: string; version: number; currency: string }> {
  const { rows } = await tx.query<{ id: string; version: number; currency: string }>(
    `insert into purchase (workshop_id, run_id, order_key, label, currency)
     values (current_workshop(), $1, $2, $3, $4)
     on conflict on constraint purchase_key do update set currency = purchase.currency
     returning id, version, currency`,
    [runId, p.order, p.label, p.currency],
  );
  return one(rows, "order");
}

/** An item of a parcel as it is written down. */
export interface NewReceipt {
  readonly item: string;
  readonly label: string;
  readonly qty: number;
  readonly isApart: boolean;
  readonly because: string;
  readonly lotId: string | null;
}

/** Writes the items of one parcel down, all in one statement. @returns their ids, in the same order */
export async function insertReceipts(
  tx: Tx,
  runId: string,
  parcel: { readonly order: string; readonly arrivedOn: string },
  items: readonly NewReceipt[],
): Promise<string[]> {
  const ids = items.map(() => randomUUID());
  const of = <K extends keyof NewReceipt>(key: K) => items.map((i) => i[key]);
  await tx.query(
    `insert into receipt (id, workshop_id, run_id, order_key, arrived_on, item, label, qty, is_apart, because, lot_id)
     select id, current_workshop(), $1, $2, $3, item, label, qty, is_apart, because, lot_id
     from unnest($4::uuid[], $5::text[], $6::text[], $7::int[], $8::boolean[], $9::text[], $10::uuid[])
       with ordinality as r (id, item, label, qty, is_apart, because, lot_id, n)
     order by n`,
    [
      runId,
      parcel.order,
      parcel.arrivedOn,
      ids,
      of("item"),
      of("label"),
      of("qty"),
      of("isApart"),
      of("because"),
      of("lotId"),
    ],
  );
  return ids;
}

/** Whether a delivery of a run holds boards of that item. */
export async function isReceiptOf(tx: Tx, runId: string, receipt: string, item: string): Promise<boolean> {
  const { rows } = await tx.query(
    "select from receipt where id = $1 and run_id = $2 and item = $3 and order_key like 'boards %'",
    [receipt, runId, item],
  );
  return rows.length > 0;
}

export async function insertBareTest(
  tx: Tx,
  runId: string,
  b: Omit<BareTestBody, "receipt"> & { receipt: string | null; person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into bare_test (workshop_id, run_id, item, receipt_id, label, on_day, person, tried, faults, note)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [runId, b.item, b.receipt, b.label, b.on, b.person, b.tried, JSON.stringify(b.faults), b.note],
  );
  return one(rows, "trial").id;
}

export async function deleteBareTest(tx: Tx, id: string): Promise<{ runId: string; label: string }> {
  const { rows } = await tx.query<{ runId: string; label: string }>(
    `delete from bare_test where id = $1 returning run_id as "runId", label`,
    [id],
  );
  return one(rows, "trial");
}

/** Takes a receipt away. @returns the lot that came of it, if there is one still */
export async function deleteReceipt(
  tx: Tx,
  id: string,
): Promise<{ runId: string; lot: string | null; qty: number; label: string }> {
  const { rows } = await tx.query<{ runId: string; lot: string | null; qty: number; label: string }>(
    `delete from receipt where id = $1 returning run_id as "runId", lot_id as lot, qty, label`,
    [id],
  );
  return one(rows, "receipt");
}

export async function insertWork(tx: Tx, runId: string, w: Omit<RunWork, "id">): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into work (workshop_id, run_id, on_day, person, started, good, reworked, scrapped, minutes, note)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [runId, w.on, w.person, w.started, w.good, w.reworked, w.scrapped, w.minutes, w.note],
  );
  return one(rows, "entry").id;
}

export async function deleteWork(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ runId: string }>(
    `delete from work where id = $1 returning run_id as "runId"`,
    [id],
  );
  return one(rows, "entry").runId;
}

export async function insertClosing(
  tx: Tx,
  runId: string,
  c: { closedOn: string; person: string; lesson: string; outcome: unknown; factors: unknown; taken: unknown },
): Promise<void> {
  await tx.query(
    `insert into closing (workshop_id, run_id, closed_on, person, lesson, outcome, factors, taken)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7)`,
    [
      runId,
      c.closedOn,
      c.person,
      c.lesson,
      JSON.stringify(c.outcome),
      JSON.stringify(c.factors),
      JSON.stringify(c.taken),
    ],
  );
}

/** Lots some pieces of which are kept for a run. */
export async function manyReservedLots(tx: Tx, runId: string): Promise<string[]> {
  const { rows } = await tx.query<{ lot: string }>(
    "select lot_id as lot from reservation where run_id = $1",
    [runId],
  );
  return rows.map((r) => r.lot);
}

/** A lot as it stands after a run: so many pieces are left, none of them kept for it. @returns how many lay there before */
export async function updateLotLeft(tx: Tx, runId: string, lotId: string, qty: number): Promise<number> {
  await tx.query("delete from reservation where lot_id = $1 and run_id = $2", [lotId, runId]);
  const { rows } = await tx.query<{ had: number }>(
    `with before as (select id, qty from lot where id = $1 for update)
     update lot set qty = $2 from before where lot.id = before.id returning before.qty as had`,
    [lotId, qty],
  );
  return one(rows, "lot").had;
}

/** What a piece of an item's lots cost, once its invoice is known. */
export async function updateLotsPaid(
  tx: Tx,
  runId: string,
  order: string,
  item: string,
  unitCost: string,
): Promise<void> {
  await tx.query(
    `update lot set unit_cost = $4
     where id in (select lot_id from receipt where run_id = $1 and order_key = $2 and item = $3)`,
    [runId, order, item, unitCost],
  );
}

/** What of an order's columns is to change. */
export const purchaseColumns = (b: PurchaseBody, paid: Readonly<Record<string, string | number>>) => ({
  ordered_on: b.orderedOn,
  promised_on: b.promisedOn,
  freight: b.freight,
  paid: b.paid
    ? Object.fromEntries(Object.entries({ ...paid, ...b.paid }).filter(([, v]) => v !== null))
    : undefined,
  note: b.note,
});

/**
 * What came of the shop's orders of boards at each house: days promised and real where both are written down, boards that
 * were set apart, questions asked back. Real days end with the last parcel that is written down.
 */
export async function manyHouseRecords(tx: Tx): Promise<HouseRecord[]> {
  const { rows } = await tx.query<
    Omit<HouseRecord, "promisedDays" | "realDays"> & { promised: number[]; real: number[] }
  >(
    `with ordered as (
       select p.run_id, p.order_key, split_part(p.order_key, ' ', 2) as house, p.ordered_on, p.promised_on,
         (select max(r.arrived_on) from receipt as r where r.run_id = p.run_id and r.order_key = p.order_key) as arrived,
         (select coalesce(sum(r.qty), 0) from receipt as r where r.run_id = p.run_id and r.order_key = p.order_key) as came,
         (select coalesce(sum(r.qty), 0) from receipt as r
          where r.run_id = p.run_id and r.order_key = p.order_key and r.is_apart) as apart
       from purchase as p where p.order_key like 'boards %' and p.ordered_on is not null
     )
     select h.id as "houseId", count(o.house)::int as orders,
       coalesce(array_agg(o.promised_on - o.ordered_on) filter (where o.promised_on is not null and o.arrived is not null), '{}') as promised,
       coalesce(array_agg(o.arrived - o.ordered_on) filter (where o.promised_on is not null and o.arrived is not null), '{}') as real,
       coalesce(sum(o.came), 0)::float8 as boards, coalesce(sum(o.apart), 0)::float8 as apart,
       (select count(*) from quotation as q where q.house_id = h.id and q.question <> '')::int
         + (select count(*) from order_step as s where s.order_key = 'boards ' || h.id and s.state = 'asked')::int as questions
     from house as h left join ordered as o on o.house = h.id::text
     group by h.id order by h.id`,
  );
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  return rows.map(({ promised, real, ...r }) => ({
    ...r,
    ...(real.length > 0 ? { promisedDays: mean(promised), realDays: mean(real) } : {}),
  }));
}
