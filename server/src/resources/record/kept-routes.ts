import Router from "@koa/router";
import { keptBody, keptChangeBody } from "@kobbin/contract";
import { SURPLUS } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneRun } from "../run/index.ts";
import { boardNamed } from "./items.ts";
import { deleteKept, insertKept, updateKept } from "./kept-queries.ts";
import { lotsBefore } from "./lots-before.ts";
import { released } from "./released.ts";

/** Bare boards that are put by, and lots of them that came before. That no more are put by than came is the counts' to say. */
export function keptRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/kept", async (ctx) => {
    const b = bodyOf(ctx, keptBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      change.about({ runId: id });
      change.says(
        `bare ${boardNamed(document, b.item)} put by: ${b.boards.map((k) => `${k.pieces} ${SURPLUS[k.purpose]}`).join("; ")}${b.place ? `, in ${b.place}` : ""}`,
      );
      return { ids: await insertKept(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.patch("/api/kept/:id", async (ctx) => {
    const { place } = bodyOf(ctx, keptChangeBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const k = await updateKept(tx, ctx.params.id!, place);
      change.about({ runId: k.runId });
      change.says(
        `${k.pieces} bare (${SURPLUS[k.purpose]}) ${place ? `lie in ${place}` : "lie nowhere in particular"}`,
      );
    });
    ctx.status = 204;
  });
  router.delete("/api/kept/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const k = await deleteKept(tx, ctx.params.id!);
      change.about({ runId: k.runId });
      change.says(`${k.pieces} bare are not put by any more: ${SURPLUS[k.purpose]}`);
    });
    ctx.status = 204;
  });
  router.get("/api/runs/:id/lots-before", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, async (tx) =>
      lotsBefore(tx, await oneRun(tx, ctx.params.id!)),
    );
  });
  return router;
}
