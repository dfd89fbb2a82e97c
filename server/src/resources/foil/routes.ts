import Router from "@koa/router";
import { foilBody, newFoilBody } from "@kobbin/contract";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
import { deleteFoil, insertFoil, oneFoil, updateFoil } from "./queries.ts";

/** Foils of a product: kept when they are bought, written on while they are used. */
export function foilRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/products/:id/foils", async (ctx) => {
    const b = bodyOf(ctx, newFoilBody);
    const productId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const product = await oneProductName(tx, productId);
      change.about({ productId });
      change.says(`foil ${b.name} for ${product} kept`);
      return { id: await insertFoil(tx, productId, b) };
    });
    ctx.status = 201;
  });
  router.patch("/api/foils/:id", async (ctx) => {
    const b = bodyOf(ctx, foilBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, name } = await oneFoil(tx, id);
      change.about({ productId });
      if (b.prints !== undefined) change.says(`foil ${name}: ${b.prints} boards printed`);
      await updateFoil(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/foils/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, name } = await oneFoil(tx, id);
      change.about({ productId });
      change.says(`foil ${name} taken off the list`);
      await deleteFoil(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}
