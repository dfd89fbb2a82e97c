import Router from "@koa/router";
import type { FeedAnswer, FeedRule } from "@kobbin/contract";
import Koa from "koa";
import { FIRST_DAY, offersFor } from "./catalogue.ts";
import { HOUSES, SUPPLIERS } from "./houses-and-suppliers.ts";
import { search } from "./search.ts";

/** How the stand-ins behave: the same seed and day give the same prices and stock. */
export interface StandInOptions {
  readonly seed: string;
  readonly latencyMs: number;
  /** The simulated day, ISO: prices and stock move with it. */
  readonly day?: string;
  /** Suppliers that fail on purpose. */
  readonly failing?: ReadonlySet<string>;
  /** Questions a supplier takes in a minute; more are refused. */
  readonly perMinute?: number;
}

/** The simulated suppliers and houses as one small HTTP service. */
export function createStandIns(options: StandInOptions): Koa {
  const app = new Koa();
  const router = new Router();
  let { latencyMs, day = FIRST_DAY } = options;
  const failing = new Set<string>();
  const silent = new Set<string>();
  const asked = new Map<string, number[]>();
  router.get("/suppliers", (ctx) => {
    ctx.body = SUPPLIERS;
  });
  router.get("/houses", (ctx) => {
    ctx.body = HOUSES;
  });
  // what a person at the stand-ins would do: let a day pass, take a supplier down, let one keep silent
  router.post("/control", (ctx) => {
    const q = ctx.query as Record<string, string | undefined>;
    if (q.day !== undefined && /^\d{4}-\d{2}-\d{2}$/.test(q.day)) day = q.day;
    if (q.latencyMs !== undefined) latencyMs = Number(q.latencyMs);
    for (const [set, keys] of [
      [failing, q.failing],
      [silent, q.silent],
    ] as const)
      if (keys !== undefined) {
        set.clear();
        for (const k of keys.split(",").filter(Boolean)) set.add(k);
      }
    ctx.body = { day, latencyMs, failing: [...failing], silent: [...silent] };
  });
  /** The supplier's key, once it is willing to answer: not too often asked, not silent, not down. */
  const willing = async (
    ctx: Koa.Context & { params: Record<string, string> },
  ): Promise<string | undefined> => {
    const key = ctx.params.key!;
    const now = Date.now();
    const recent = (asked.get(key) ?? []).filter((t) => t > now - 60_000);
    asked.set(key, [...recent, now]);
    if (recent.length >= (options.perMinute ?? 600)) {
      ctx.status = 429;
      ctx.set("Retry-After", "60");
      ctx.body = { message: "Too many questions in a minute." };
      return undefined;
    }
    await new Promise((resolve) => setTimeout(resolve, latencyMs));
    if (silent.has(key)) await new Promise((resolve) => setTimeout(resolve, 20_000));
    if (failing.has(key) || options.failing?.has(key)) {
      ctx.status = 503;
      ctx.body = { message: "The feed is down for maintenance." };
      return undefined;
    }
    return key;
  };
  router.get("/suppliers/:key/offers", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    const query = ctx.query.mpn;
    const mpns = (Array.isArray(query) ? query : [query ?? ""]).filter((m) => m !== "").slice(0, 500);
    const found = mpns.map((m) => [m, offersFor(key, m, options.seed, day)] as const);
    const answer: FeedAnswer = {
      offers: found.flatMap(([, o]) => o),
      notListed: found.filter(([, o]) => o.length === 0).map(([m]) => m),
    };
    ctx.body = answer;
  });
  router.post("/suppliers/:key/search", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    const chunks: Buffer[] = [];
    for await (const c of ctx.req) chunks.push(c as Buffer);
    const { rules = [] } = JSON.parse(Buffer.concat(chunks).toString() || "{}") as { rules?: FeedRule[] };
    ctx.body = search(key, rules, options.seed, day);
  });
  app.use(router.routes());
  return app;
}
