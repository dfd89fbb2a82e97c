import Router from "@koa/router";
import { meetBody } from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
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
  return router;
}
