import Router from "@koa/router";
import type { WaitingAnswer, WaitingRow, WaitingTest } from "@kobbin/contract";
import { addTo, besidesWords, besideTests, byUrgency, type OrderStep, waitingFor } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { manyWork } from "./queries.ts";
import { manyTries } from "./try-queries.ts";
import { type Came, manyOpenOrders, type RunOf } from "./waiting-queries.ts";

/** What a shop waits for, over all runs. */
export function waitingRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/waiting", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, (tx) => waitingOf(tx, deps.today()));
  });
  return router;
}

/** Every order of every run that is not all there yet, the most urgent first. */
export async function waitingOf(tx: Tx, today: string): Promise<WaitingAnswer> {
  const { runs, steps, bought, came, begun } = await manyOpenOrders(tx);
  const of = (r: { readonly runId: string; readonly order: string }) => `${r.runId} ${r.order}`;
  const stepsOf = new Map<string, OrderStep[]>();
  for (const s of steps) addTo(stepsOf, of(s), s);
  const boughtOf = new Map(bought.map((b) => [of(b), b]));
  const cameOf = new Map<string, Came[]>();
  for (const c of came) addTo(cameOf, of(c), c);
  const begunOf = new Map(begun.map((b) => [b.runId, b.started]));
  const rows = runs.flatMap(({ runId, run, product, orders, releasedAt }) =>
    (orders ?? []).flatMap((o): WaitingRow[] => {
      const key = of({ runId, order: o.key });
      const b = boughtOf.get(key);
      const found = waitingFor(o, {
        steps: stepsOf.get(key) ?? [],
        ...(b
          ? {
              purchase: {
                ...(b.orderedOn ? { orderedOn: b.orderedOn } : {}),
                ...(b.promisedOn ? { promisedOn: b.promisedOn } : {}),
              },
            }
          : {}),
        // boards that were placed are never received: they are back when they are begun
        came:
          o.kind === "assembly"
            ? Object.fromEntries(Object.keys(o.items).map((item) => [item, begunOf.get(runId) ?? 0]))
            : Object.fromEntries((cameOf.get(key) ?? []).map((c) => [c.item, c.qty])),
        releasedOn: (releasedAt ?? new Date(today)).toISOString().slice(0, 10),
        today,
      });
      const { kind, name, currency, total } = o;
      return found ? [{ ...found, runId, run, product, order: o.key, kind, name, currency, total }] : [];
    }),
  );
  return {
    orders: rows.sort(byUrgency),
    tests: await testsOf(tx, runs, today),
    counting: runs.flatMap(({ runId, run, product, orders }) =>
      orders === null ? [{ runId, run, product }] : [],
    ),
  };
}

/** What is to be tried besides the bench on boards of runs that are being built, by day; the same item and day in one row. */
async function testsOf(tx: Tx, runs: readonly RunOf[], today: string): Promise<WaitingTest[]> {
  const rows = new Map<string, WaitingTest>();
  for (const { runId, run, product, tests } of runs) {
    if (!tests) continue;
    const [tries, work] = await Promise.all([manyTries(tx, runId), manyWork(tx, runId)]);
    for (const { item, unit, from, is } of besideTests(tests, { tries, work }, today)) {
      if (is !== "due" && is !== "coming") continue;
      const key = `${runId} ${item.id} ${from}`;
      const units = [...(rows.get(key)?.units ?? []), unit];
      const words = besidesWords(item.besides ?? {});
      rows.set(key, {
        runId,
        run,
        product,
        item: item.id,
        name: item.name,
        words,
        units,
        from,
        isDue: is === "due",
      });
    }
  }
  return [...rows.values()].sort((a, b) => a.from.localeCompare(b.from));
}
