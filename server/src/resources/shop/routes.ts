import Router from "@koa/router";
import { shopBody } from "@kobbin/contract";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneShop, updateShop } from "./queries.ts";

/** The shop's settings. */
export function shopRoutes({ pool }: Deps): Router {
  const router = new Router();
  router.patch("/api/shop", async (ctx) => {
    const change = bodyOf(ctx, shopBody);
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      await updateShop(tx, change);
      return oneShop(tx);
    });
  });
  return router;
}
