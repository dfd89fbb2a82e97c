import Router from "@koa/router";
import { copyHouseBody } from "@kobbin/contract";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { checkProfile } from "./profile.ts";
import { insertHouse, manyHouses, oneHouse, updateHouse } from "./queries.ts";

/** Houses: list, copy, edit. */
export function houseRoutes({ pool, today }: Deps): Router {
  const router = new Router();
  router.get("/api/houses", async (ctx) => {
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, manyHouses);
  });
  router.post("/api/houses", async (ctx) => {
    const { copyOf, name } = bodyOf(ctx, copyHouseBody);
    ctx.status = 201;
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const { id, ...profile } = await oneHouse(tx, copyOf);
      const all = await manyHouses(tx);
      const copy = await insertHouse(
        tx,
        all.length,
        { ...profile, name, about: `copied from ${profile.name}`, checkedOn: today() },
        id,
      );
      return oneHouse(tx, copy);
    });
  });
  router.patch("/api/houses/:id", async (ctx) => {
    const edited = (ctx.request as { body?: unknown }).body;
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const old = await oneHouse(tx, ctx.params.id!);
      await updateHouse(tx, old.id, { ...checkProfile(edited, old), checkedOn: today() });
      return oneHouse(tx, old.id);
    });
  });
  return router;
}
