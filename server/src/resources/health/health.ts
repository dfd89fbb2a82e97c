import type { Middleware } from "koa";
import type { Deps } from "../../deps.ts";
import { figuresDue, livePages, metrics } from "../../metrics.ts";
import { client } from "../../middleware/client.ts";
import { ofDatabase, wasFull } from "../../middleware/errors.ts";
import { countFiguresDue, upsertReady } from "./queries.ts";

/**
 * /health: the process lives. /ready: it can do its work (the database answers) and does not stop. /metrics: what it
 * counts; only from this machine, or where the caller shows METRICS_TOKEN.
 */
export function health(deps: Deps, now: () => number = Date.now): Middleware {
  return async (ctx, next) => {
    if (ctx.path === "/health") {
      ctx.body = { status: "alive" };
      return;
    }
    if (ctx.path === "/ready") {
      const state = deps.isStopping?.() ? "stopping" : await databaseState(deps, now());
      ctx.status = state === "ready" ? 200 : 503;
      ctx.set("Cache-Control", "no-store");
      ctx.body = { status: state };
      return;
    }
    if (ctx.path === "/metrics") {
      const isLocal = client(ctx).isHere;
      const { metricsToken } = deps.config;
      if (!isLocal && (metricsToken === "" || ctx.get("Authorization") !== `Bearer ${metricsToken}`)) {
        ctx.status = 403;
        ctx.body = "metrics are for this machine, or with the token of METRICS_TOKEN\n";
        return;
      }
      const due = await countFiguresDue(deps.pool).catch(() => undefined);
      if (due !== undefined) figuresDue.set(due);
      livePages.set(deps.live.size);
      ctx.set("Content-Type", metrics.contentType);
      ctx.body = await metrics.metrics();
      return;
    }
    await next();
  };
}

const AWAY = "the database does not answer";

/** Whether the database answers and takes a write; asked at most once in two seconds. */
function databaseState(deps: Deps, now: number): Promise<string> {
  const known = states.get(deps.pool);
  if (known && now - known.at < 2000) return known.state;
  const state = askState(deps);
  states.set(deps.pool, { at: now, state });
  // what is wrong is looked at again at once
  void state.then((s) => s !== "ready" && states.delete(deps.pool));
  return state;
}
const states = new WeakMap<Deps["pool"], { at: number; state: Promise<string> }>();

async function askState(deps: Deps): Promise<string> {
  const late = new Promise<string>((resolve) => setTimeout(() => resolve(AWAY), 2000).unref());
  const asked = upsertReady(deps.pool).then(
    () => (wasFull(Date.now()) ? "the database has no room" : "ready"),
    (error) => (ofDatabase(error)?.code === "STORAGE_FULL" ? "the database takes nothing new" : AWAY),
  );
  return Promise.race([asked, late]);
}
