import type { OrderAskRow } from "@kobbin/contract";
import { addTo, type OrderState, type OrderStep, orderOf, orderStand } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { talk } from "../../db/talk.ts";
import { one } from "../../db/tx.ts";

/** The talk about an order that was taken up. */
export interface OrderAsked {
  readonly id: string;
  readonly runId: string;
  readonly order: string;
  readonly houseId: string;
  readonly accountId: string | null;
  readonly person: string;
  readonly page: string | null;
  readonly number: string;
  /** This try counted. */
  readonly tries: number;
}

/** How such a talk goes its way. */
export const orderTalk = talk<OrderAsked>("order_ask");

/** What became of a run's orders, as it was written down. */
export async function manySteps(tx: Tx, runId: string): Promise<OrderStep[]> {
  const { rows } = await tx.query<OrderStep>(
    `select id, order_key as "order", state, on_day as "on", words, person, source
     from order_step where run_id = $1 order by at, id`,
    [runId],
  );
  return rows;
}

export async function insertStep(
  tx: Tx,
  runId: string,
  s: {
    readonly order: string;
    readonly label: string;
    readonly state: OrderState;
    readonly on: string;
    readonly words: string;
    readonly person: string;
    readonly source?: string;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into order_step (workshop_id, run_id, order_key, label, state, on_day, words, person, source)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8) returning id`,
    [runId, s.order, s.label, s.state, s.on, s.words, s.person, s.source ?? ""],
  );
  return one(rows, "step").id;
}

/** Takes a step away that somebody wrote down; what a house said stays. */
export async function deleteStep(
  tx: Tx,
  id: string,
): Promise<{ runId: string; order: string; label: string; state: OrderState }> {
  const { rows } = await tx.query<{ runId: string; order: string; label: string; state: OrderState }>(
    `delete from order_step where id = $1 and source = ''
     returning run_id as "runId", order_key as "order", label, state`,
    [id],
  );
  return one(rows, "step");
}

/** Dates of an order that were not written down so far. */
export async function fillPurchaseDates(
  tx: Tx,
  id: string,
  d: { readonly orderedOn?: string; readonly promisedOn?: string | undefined },
): Promise<void> {
  await tx.query(
    `update purchase set ordered_on = coalesce(ordered_on, $2), promised_on = coalesce(promised_on, $3)
     where id = $1 and ((ordered_on is null and $2::date is not null) or (promised_on is null and $3::date is not null))`,
    [id, d.orderedOn ?? null, d.promisedOn ?? null],
  );
}

/** Sends an order over the network, and again where it was taken back or given up. @returns its talk */
export async function insertOrderAsk(
  tx: Tx,
  runId: string,
  order: string,
  houseId: string,
  by: { readonly accountId: string | null; readonly person: string; readonly page?: string | undefined },
): Promise<void> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into order_ask (workshop_id, run_id, order_key, house_id, account_id, person, page, state)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, 'waiting')
     on conflict on constraint order_ask_key do update
       set state = 'waiting', tries = 0, reason = '', number = '', account_id = excluded.account_id,
         person = excluded.person, page = excluded.page, since = clock_timestamp()
     returning id`,
    [runId, order, houseId, by.accountId, by.person, by.page ?? null],
  );
  await orderTalk.putOn(tx, [one(rows, "order").id]);
}

/** Whether an order went to its house over the network: it knows then what it was told. */
export async function isTalkedAbout(
  tx: Tx,
  o: { readonly runId: string; readonly order: string },
): Promise<boolean> {
  const { rows } = await tx.query("select from order_ask where run_id = $1 and order_key = $2", [
    o.runId,
    o.order,
  ]);
  return rows.length > 0;
}

/** Whether an order is done with: something of it came, or its run is closed. */
export async function isOrderOver(tx: Tx, runId: string, order: string): Promise<boolean> {
  const { rows } = await tx.query<{ is: boolean }>(
    `select exists (select 1 from receipt where run_id = $1 and order_key = $2)
       or exists (select 1 from closing where run_id = $1) as "is"`,
    [runId, order],
  );
  return one(rows, "order").is;
}

/** Asks the house of a sent order again, now. @returns whether there is such a talk */
export async function lookAgain(tx: Tx, runId: string, order: string): Promise<boolean> {
  const { rows } = await tx.query<{ id: string }>(
    `update order_ask set tries = 0, state = case when state = 'asking' then state else 'waiting' end
     where run_id = $1 and order_key = $2 returning id`,
    [runId, order],
  );
  if (rows.length > 0) await orderTalk.putOn(tx, [rows[0]!.id]);
  return rows.length > 0;
}

/** What a house calls an order; empty where it does not know it. */
export async function updateOrderNumber(tx: Tx, id: string, number: string): Promise<void> {
  await tx.query("update order_ask set number = $2 where id = $1 and number <> $2", [id, number]);
}

/** How the talks about a run's orders stand. */
export async function manyOrderAsks(tx: Tx, runId: string): Promise<OrderAskRow[]> {
  const { rows } = await tx.query<Omit<OrderAskRow, "since"> & { since: Date }>(
    `select a.order_key as "order", h.profile ->> 'name' as house, a.state, a.tries, a.reason, a.number, a.since
     from order_ask as a join house as h on h.id = a.house_id where a.run_id = $1 order by a.order_key`,
    [runId],
  );
  return rows.map((r) => ({ ...r, since: r.since.toISOString() }));
}

/**
 * What orders of runs that are built still wait for the shop to do, in words, by run. Where something of an order came, it
 * waits for nothing.
 */
export async function manyWaiting(tx: Tx, today: string): Promise<ReadonlyMap<string, readonly string[]>> {
  const { rows } = await tx.query<OrderStep & { runId: string; label: string }>(
    `select s.id, s.run_id as "runId", s.order_key as "order", s.state, s.on_day as "on", s.words, s.person, s.source, s.label
     from order_step as s
     where not exists (select 1 from closing as c where c.run_id = s.run_id)
       and not exists (select 1 from receipt as r where r.run_id = s.run_id and r.order_key = s.order_key)
     order by s.at, s.id`,
  );
  const orders = new Map<string, (typeof rows)[number][]>();
  for (const r of rows) {
    const key = `${r.runId} ${r.order}`;
    addTo(orders, key, r);
  }
  const out = new Map<string, string[]>();
  for (const steps of orders.values()) {
    const kind = orderOf(steps[0]!.order).kind;
    const { waits } = orderStand(steps, { today, isHere: false, kind });
    const { runId, label } = steps[0]!;
    if (waits?.on === "shop") addTo(out, runId, `${label} waits for you ${waits.what}`);
  }
  return out;
}
