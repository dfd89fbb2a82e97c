import type { Middleware } from "koa";
import type { Deps } from "../../deps.ts";
import { figuresDue, livePages, metrics } from "../../metrics.ts";

/**
 * /health: the process lives. /ready: it can do its work (the database answers) and does not stop. /metrics: what it
 * counts; only from this machine, or where the caller shows METRICS_TOKEN.
 */
export function health(deps: Deps): Middleware {
  return async (ctx, next) => {
    if (ctx.path === "/health") {
      ctx.body = { status: "alive" };
      return;
    }
    if (ctx.path === "/ready") {
      const state = deps.isStopping?.() ? "stopping" : await databaseState(deps);
      ctx.status = state === "ready" ? 200 : 503;
      ctx.set("Cache-Control", "no-store");
      ctx.body = { status: state };
      return;
    }
    if (ctx.path === "/metrics") {
      const isLocal = /^(127\.|::1$|::ffff:127\.)/.test(ctx.ip);
      const { metricsToken } = deps.config;
      if (!isLocal && (metricsToken === "" || ctx.get("Authorization") !== `Bearer ${metricsToken}`)) {
        ctx.status = 403;
        ctx.body = "metrics are for this machine, or with the token of METRICS_TOKEN\n";
        return;
      }
      const { rows } = await deps.pool
        .query<{ n: number }>("select count(*)::int as n from figures_due")
        .catch(() => ({ rows: [] }));
      if (rows[0]) figuresDue.set(rows[0].n);
      livePages.set(deps.live.size);
      ctx.set("Content-Type", metrics.contentType);
      ctx.body = await metrics.metrics();
      return;
    }
    await next();
  };
}

async function databaseState(deps: Deps): Promise<string> {
  const late = new Promise<string>((resolve) =>
    setTimeout(() => resolve("the database does not answer"), 2000).unref(),
  );
  const asked = deps.pool.query("select 1").then(
    () => "ready",
    () => "the database does not answer",
  );
  return Promise.race([asked, late]);
}
