import Router from "@koa/router";
import { linkBody, meetBody } from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
import { deleteLink, insertLink, oneLink, updateLink } from "./link-queries.ts";
import { deleteMeeting, insertMeeting, manyOthers, oneMeeting, updateMeeting } from "./queries.ts";

/** What is put onto the connectors of a product's boards. */
export function meetingRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/others", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, manyOthers);
  });
  router.post("/api/products/:id/meetings", async (ctx) => {
    const b = bodyOf(ctx, meetBody);
    const productId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, productId);
      change.about({ productId });
      change.says(`${name}: ${b.ref} meets ${b.other}`);
      return { id: await insertMeeting(tx, productId, b) };
    });
    ctx.status = 201;
  });
  router.put("/api/meetings/:id", async (ctx) => {
    const b = bodyOf(ctx, meetBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId } = await oneMeeting(tx, id);
      change.about({ productId });
      change.says(`what is known of ${b.ref} with ${b.other} is another`);
      await updateMeeting(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/meetings/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, words } = await oneMeeting(tx, id);
      change.about({ productId });
      change.says(`no longer held against each other: ${words}`);
      await deleteMeeting(tx, id);
    });
    ctx.status = 204;
  });
  linkRoutes(router, deps);
  return router;
}

/** How the links of a product's boards are set. */
function linkRoutes(router: Router, deps: Deps): void {
  router.post("/api/products/:id/links", async (ctx) => {
    const b = bodyOf(ctx, linkBody);
    const productId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, productId);
      change.about({ productId });
      change.says(`${name}: ${b.ref} is ${b.spec.set === "" ? "to be set" : `set to ${b.spec.set}`}`);
      return { id: await insertLink(tx, productId, b) };
    });
    ctx.status = 201;
  });
  router.put("/api/links/:id", async (ctx) => {
    const b = bodyOf(ctx, linkBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId } = await oneLink(tx, id);
      change.about({ productId });
      change.says(`${b.ref} is ${b.spec.set === "" ? "to be set" : `set to ${b.spec.set}`}`);
      await updateLink(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/links/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, ref } = await oneLink(tx, id);
      change.about({ productId });
      change.says(`${ref} is no link to be set any more`);
      await deleteLink(tx, id);
    });
    ctx.status = 204;
  });
}
