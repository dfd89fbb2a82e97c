import Router from "@koa/router";
import { fitBody } from "@kobbin/contract";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { readPlacesSoon } from "../../jobs/places.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { deleteFit, insertFit, oneFit, oneProductName, updateFit } from "./queries.ts";

/** What the boards of a product must go into, onto or beside. */
export function fitRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/products/:id/fits", async (ctx) => {
    const b = bodyOf(ctx, fitBody);
    const productId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, productId);
      change.about({ productId });
      change.says(`${name} must fit: ${b.label}`);
      return { id: await insertFit(tx, productId, b) };
    });
    if (b.spec.kind === "intended") readPlacesSoon(deps, signed(ctx).workshopId, productId);
    ctx.status = 201;
  });
  router.put("/api/fits/:id", async (ctx) => {
    const b = bodyOf(ctx, fitBody);
    const id = ctx.params.id!;
    let product = "";
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId } = await oneFit(tx, id);
      product = productId;
      change.about({ productId });
      change.says(`what must fit is another: ${b.label}`);
      await updateFit(tx, id, b);
    });
    if (b.spec.kind === "intended") readPlacesSoon(deps, signed(ctx).workshopId, product);
    ctx.status = 204;
  });
  router.delete("/api/fits/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, label } = await oneFit(tx, id);
      change.about({ productId });
      change.says(`need not fit any more: ${label}`);
      await deleteFit(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}
