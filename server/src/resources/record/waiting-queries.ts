import type { OrderBrief, OrderStep, PlannedTest } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

/** Runs that are being built, and what they order, as their figures say it. */
const RUNS = `select r.id as "runId", r.name as run, p.name as product, f.summary -> 'orders' as orders, f.summary -> 'tests' as tests,
       (select max(x.released_at) from release as x where x.run_id = r.id) as "releasedAt"
     from run as r
     join fork as f on f.run_id = r.id and f.name = 'first'
     join revision as v on v.id = r.revision_id
     join product as p on p.id = v.product_id
     where r.state = 'released' and not exists (select 1 from closing as c where c.run_id = r.id)`;
const OPEN = `select r.id from run as r
     where r.state = 'released' and not exists (select 1 from closing as c where c.run_id = r.id)`;

export interface RunOf {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly orders: readonly OrderBrief[] | null;
  /** The test plan, where some of it is tried besides the bench. */
  readonly tests: readonly PlannedTest[] | null;
  readonly releasedAt: Date | null;
}
/** Boards of a run that were begun: what was placed at a house came back. */
export interface Begun {
  readonly runId: string;
  readonly started: number;
}
export interface Bought {
  readonly runId: string;
  readonly order: string;
  readonly orderedOn: string | null;
  readonly promisedOn: string | null;
}
export interface Came {
  readonly runId: string;
  readonly order: string;
  readonly item: string;
  readonly qty: number;
}

/** Everything that is known of the orders of runs that are being built. */
export async function manyOpenOrders(tx: Tx): Promise<{
  runs: readonly RunOf[];
  steps: readonly (OrderStep & { runId: string })[];
  bought: readonly Bought[];
  came: readonly Came[];
  begun: readonly Begun[];
}> {
  const [runs, steps, bought, came, begun] = await Promise.all([
    tx.query<RunOf>(RUNS),
    tx.query<OrderStep & { runId: string }>(
      `select id, run_id as "runId", order_key as "order", state, on_day as "on", words, person, source
       from order_step where run_id in (${OPEN}) order by at, id`,
    ),
    tx.query<Bought>(
      `select run_id as "runId", order_key as "order", ordered_on as "orderedOn", promised_on as "promisedOn"
       from purchase where run_id in (${OPEN})`,
    ),
    tx.query<Came>(
      `select run_id as "runId", order_key as "order", item, sum(qty)::integer as qty
       from receipt where not is_apart and run_id in (${OPEN}) group by run_id, order_key, item`,
    ),
    tx.query<Begun>(
      `select run_id as "runId", sum(started)::integer as started
       from work where run_id in (${OPEN}) group by run_id`,
    ),
  ]);
  return { runs: runs.rows, steps: steps.rows, bought: bought.rows, came: came.rows, begun: begun.rows };
}
