import Router from "@koa/router";
import { undoBody } from "@kobbin/contract";
import { AppError, shapes } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { undoChange } from "../../history/undo.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { manyChanges, maybeLastOwn, sentenceOf } from "./queries.ts";

/** What was changed, by whom; taking it back and bringing it again. */
export function historyRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/history", async (ctx) => {
    const { workshopId, accountId, role } = signed(ctx);
    const q = (name: string) => (typeof ctx.query[name] === "string" ? (ctx.query[name] as string) : "");
    const before = /^\d{1,18}$/.test(q("before")) ? q("before") : null;
    const uuid = (name: string) => (shapes.UUID.test(q(name)) ? q(name) : null);
    ctx.body = await readWorkshop(pool, workshopId, (tx) =>
      manyChanges(tx, accountId, role, { run: uuid("run"), product: uuid("product"), before }),
    );
  });
  router.post("/api/changes/:id/undo", async (ctx) => {
    const { force } = bodyOf(ctx, undoBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await undoChange(tx, change, ctx.params.id!, force, signed(ctx).role);
      return { id: change.id };
    });
  });
  // the last thing this person did here, or the last they took back
  for (const [verb, what] of [
    ["undo", "nothing of yours left to take back here"],
    ["redo", "nothing to bring again here"],
  ] as const)
    router.post(`/api/runs/:id/${verb}`, async (ctx) => {
      const { accountId, role } = signed(ctx);
      ctx.body = await changeOf(ctx, deps, async (tx, change) => {
        const id = await maybeLastOwn(tx, ctx.params.id!, accountId, verb);
        if (!id)
          throw new AppError("NOT_FOUND", `There is ${what}.`, "The history lists everything that was done.");
        await undoChange(tx, change, id, false, role);
        return { id: change.id, says: await sentenceOf(tx, id) };
      });
    });
  return router;
}
