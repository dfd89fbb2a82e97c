import { randomUUID } from "node:crypto";
import type Koa from "koa";
import { countRequest } from "../metrics.ts";

/** A number for every request, in the log, in the answer's head and in a defect's answer; and its time in the metrics. */
export const requestLog =
  (deps: { readonly log: (entry: Record<string, unknown>) => void }): Koa.Middleware =>
  async (ctx, next) => {
    const given = ctx.get("X-Request-Id");
    const id = /^[\w-]{8,64}$/.test(given) ? given : randomUUID().slice(0, 8);
    ctx.state.requestId = id;
    ctx.set("X-Request-Id", id);
    const started = performance.now();
    await next();
    if (!ctx.path.startsWith("/api/")) return;
    const ms = performance.now() - started;
    // the route's pattern, not the path: ids would make a line each
    const route = String((ctx as { _matchedRoute?: unknown })._matchedRoute ?? "none");
    countRequest(ctx.method, route, ctx.status, ms / 1000);
    deps.log({
      level: "info",
      request: id,
      method: ctx.method,
      path: ctx.path,
      status: ctx.status,
      ms: Math.round(ms),
      ...(ctx.state.signed ? { workshop: ctx.state.signed.workshopId } : {}),
    });
  };
