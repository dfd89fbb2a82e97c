import Router from "@koa/router";
import { rightBody, rightChangeBody } from "@kobbin/contract";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
import { deleteRight, insertRight, oneRight, updateRight } from "./queries.ts";

/** Whose the marks, pictures, files and designs on a product are, and what entitles to them. */
export function rightsRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/products/:id/rights", async (ctx) => {
    const b = bodyOf(ctx, rightBody);
    const productId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, productId);
      change.about({ productId });
      change.says(`on ${name}: ${b.what}`);
      return { id: await insertRight(tx, productId, b) };
    });
    ctx.status = 201;
  });
  router.patch("/api/rights/:id", async (ctx) => {
    const b = bodyOf(ctx, rightChangeBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, what } = await oneRight(tx, id);
      change.about({ productId });
      change.says(`what entitles to ${what} is written down`);
      await updateRight(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/rights/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, what } = await oneRight(tx, id);
      change.about({ productId });
      change.says(`no longer on the product: ${what}`);
      await deleteRight(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}
