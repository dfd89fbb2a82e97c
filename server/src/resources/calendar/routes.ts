import { randomBytes } from "node:crypto";
import Router from "@koa/router";
import { AppError } from "@kobbin/core";
import { writeCalendar } from "@kobbin/formats";
import { readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { client, networkOf } from "../../middleware/client.ts";
import { hashToken, limitTries, signed } from "../../middleware/session.ts";
import { waitingOf } from "../record/index.ts";
import { oneShop } from "../shop/index.ts";
import { eventsOf } from "./events.ts";
import { deleteAddress, maybeAddress, maybeShopOf, upsertAddress } from "./queries.ts";

/** What a shop waits for, in the calendar of whoever has its secret address. */
export function calendarRoutes(deps: Deps): Router {
  const { pool, config } = deps;
  const router = new Router();
  router.get("/api/calendar", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, maybeAddress);
  });
  router.post("/api/calendar", async (ctx) => {
    const { workshopId, person } = signed(ctx);
    const token = randomBytes(24).toString("base64url");
    await withWorkshop(pool, workshopId, (tx) => upsertAddress(tx, hashToken(token), person));
    ctx.status = 201;
    // the secret is shown once; only its hash is kept
    ctx.body = { path: `/api/calendars/${token}` };
  });
  router.delete("/api/calendar", async (ctx) => {
    await withWorkshop(pool, signed(ctx).workshopId, deleteAddress);
    ctx.status = 204;
  });
  router.get("/api/calendars/:token", async (ctx) => {
    await limitTries(pool, `calendar ${networkOf(client(ctx).address)}`, 120);
    const shop = await maybeShopOf(pool, hashToken(ctx.params.token!));
    if (!shop)
      throw new AppError(
        "NOT_FOUND",
        "Nothing is to be fetched under this address.",
        "Ask an owner of the shop for the address it has now.",
      );
    const { name, orders, tests } = await readWorkshop(pool, shop, async (tx) => ({
      name: (await oneShop(tx)).name,
      ...(await waitingOf(tx, deps.today())),
    }));
    ctx.type = "text/calendar; charset=utf-8";
    ctx.set("Cache-Control", "private, no-store");
    ctx.body = writeCalendar(`${name}: waiting`, eventsOf(orders, tests, config.origins[0] ?? ""), {
      now: new Date().toISOString(),
    });
  });
  return router;
}
