import Router from "@koa/router";
import type { WaitingAnswer, WaitingRow } from "@kobbin/contract";
import { addTo, byUrgency, type OrderBrief, type OrderStep, waitingFor } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";

/** What a shop waits for, over all runs. */
export function waitingRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/waiting", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, (tx) => waiting(tx, deps.today()));
  });
  return router;
}

/** Runs that are being built, and what they order, as their figures say it. */
const RUNS = `select r.id as "runId", r.name as run, p.name as product, f.summary -> 'orders' as orders,
       (select max(x.released_at) from release as x where x.run_id = r.id) as "releasedAt"
     from run as r
     join fork as f on f.run_id = r.id and f.name = 'first'
     join revision as v on v.id = r.revision_id
     join product as p on p.id = v.product_id
     where r.state = 'released' and not exists (select 1 from closing as c where c.run_id = r.id)`;
const OPEN = `select r.id from run as r
     where r.state = 'released' and not exists (select 1 from closing as c where c.run_id = r.id)`;

interface RunOf {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly orders: readonly OrderBrief[] | null;
  readonly releasedAt: Date | null;
}
interface Bought {
  readonly runId: string;
  readonly order: string;
  readonly orderedOn: string | null;
  readonly promisedOn: string | null;
  readonly isInvoiced: boolean;
}
interface Came {
  readonly runId: string;
  readonly order: string;
  readonly item: string;
  readonly qty: number;
}

async function waiting(tx: Tx, today: string): Promise<WaitingAnswer> {
  const [runs, steps, bought, came] = await Promise.all([
    tx.query<RunOf>(RUNS),
    tx.query<OrderStep & { runId: string }>(
      `select id, run_id as "runId", order_key as "order", state, on_day as "on", words, person, source
       from order_step where run_id in (${OPEN}) order by at, id`,
    ),
    tx.query<Bought>(
      `select run_id as "runId", order_key as "order", ordered_on as "orderedOn", promised_on as "promisedOn",
         paid <> '{}' as "isInvoiced"
       from purchase where run_id in (${OPEN})`,
    ),
    tx.query<Came>(
      `select run_id as "runId", order_key as "order", item, sum(qty)::integer as qty
       from receipt where not is_apart and run_id in (${OPEN}) group by run_id, order_key, item`,
    ),
  ]);
  const of = (r: { readonly runId: string; readonly order: string }) => `${r.runId} ${r.order}`;
  const stepsOf = new Map<string, OrderStep[]>();
  for (const s of steps.rows) addTo(stepsOf, of(s), s);
  const boughtOf = new Map(bought.rows.map((b) => [of(b), b]));
  const cameOf = new Map<string, Came[]>();
  for (const c of came.rows) addTo(cameOf, of(c), c);
  const rows = runs.rows.flatMap(({ runId, run, product, orders, releasedAt }) =>
    (orders ?? []).flatMap((o): WaitingRow[] => {
      const key = of({ runId, order: o.key });
      const b = boughtOf.get(key);
      const found = waitingFor(o, {
        steps: stepsOf.get(key) ?? [],
        ...(b
          ? {
              purchase: {
                isInvoiced: b.isInvoiced,
                ...(b.orderedOn ? { orderedOn: b.orderedOn } : {}),
                ...(b.promisedOn ? { promisedOn: b.promisedOn } : {}),
              },
            }
          : {}),
        came: Object.fromEntries((cameOf.get(key) ?? []).map((c) => [c.item, c.qty])),
        releasedOn: (releasedAt ?? new Date(today)).toISOString().slice(0, 10),
        today,
      });
      const { kind, name, currency, total } = o;
      return found ? [{ ...found, runId, run, product, order: o.key, kind, name, currency, total }] : [];
    }),
  );
  return {
    orders: rows.sort(byUrgency),
    counting: runs.rows.flatMap(({ runId, run, product, orders }) =>
      orders === null ? [{ runId, run, product }] : [],
    ),
  };
}
