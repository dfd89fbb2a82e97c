import Router from "@koa/router";
import { shopBody } from "@kobbin/contract";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { oneShop } from "../shop/queries.ts";

/** The shop's settings. */
export function shopRoutes(deps: Deps): Router {
  const router = new Router();
  router.patch("/api/shop", async (ctx) => {
    const b = bodyOf(ctx, shopBody);
    const { workshopId } = signed(ctx);
    await changeOf(ctx, deps, async (tx) => {
      const columns = givenColumns({
        name: b.name,
        hourly_rate: b.hourlyRate === undefined ? undefined : Number(b.hourlyRate),
        tax_rate: b.taxRate,
        hours_per_day: b.hoursPerDay,
        decimal_mark: b.decimalMark,
        attrition: b.attrition,
        rules: b.rules,
        date_order: b.dateOrder,
        shows_mil: b.showsMil,
        rates: b.rates,
      });
      const seen = b.version ?? (await oneShop(tx)).version;
      await mergeRow(tx, "workshop", { id: workshopId }, seen, () => columns, "the shop", byOf(ctx).page);
    });
    ctx.body = await withWorkshop(deps.pool, workshopId, oneShop);
  });
  return router;
}
