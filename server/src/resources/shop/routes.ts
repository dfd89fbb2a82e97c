import Router from "@koa/router";
import { shopBody } from "@kobbin/contract";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { oneShop, shopColumns } from "../shop/queries.ts";

/** The shop's settings. */
export function shopRoutes(deps: Deps): Router {
  const router = new Router();
  router.patch("/api/shop", async (ctx) => {
    const b = bodyOf(ctx, shopBody);
    const { workshopId } = signed(ctx);
    await changeOf(ctx, deps, async (tx) => {
      const { version, ...settings } = b;
      const columns = givenColumns(shopColumns(settings));
      const seen = version ?? (await oneShop(tx)).version;
      await mergeRow(tx, "workshop", { id: workshopId }, seen, () => columns, "the shop", byOf(ctx).page);
    });
    ctx.body = await withWorkshop(deps.pool, workshopId, oneShop);
  });
  return router;
}
