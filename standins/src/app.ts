import Router from "@koa/router";
import type { FeedAnswer } from "@kobbin/contract";
import Koa from "koa";
import { offerFor } from "./catalogue.ts";
import { HOUSES, SUPPLIERS } from "./houses-and-suppliers.ts";

/** How the stand-ins behave: the same seed gives the same prices and stock. */
export interface StandInOptions {
  readonly seed: string;
  readonly latencyMs: number;
  /** Suppliers that fail on purpose. */
  readonly failing?: ReadonlySet<string>;
}

/** The simulated suppliers and houses as one small HTTP service. */
export function createStandIns(options: StandInOptions): Koa {
  const app = new Koa();
  const router = new Router();
  router.get("/suppliers", (ctx) => {
    ctx.body = SUPPLIERS;
  });
  router.get("/houses", (ctx) => {
    ctx.body = HOUSES;
  });
  router.get("/suppliers/:key/offers", async (ctx) => {
    const key = ctx.params.key!;
    await new Promise((resolve) => setTimeout(resolve, options.latencyMs));
    if (options.failing?.has(key)) {
      ctx.status = 503;
      ctx.body = { message: "The feed is down for maintenance." };
      return;
    }
    const query = ctx.query.mpn;
    const mpns = (Array.isArray(query) ? query : [query ?? ""]).filter((m) => m !== "").slice(0, 500);
    const found = mpns.map((m) => [m, offerFor(key, m, options.seed)] as const);
    const answer: FeedAnswer = {
      offers: found.flatMap(([, o]) => (o ? [o] : [])),
      notListed: found.filter(([, o]) => !o).map(([m]) => m),
    };
    ctx.body = answer;
  });
  app.use(router.routes());
  return app;
}
