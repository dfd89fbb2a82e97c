import Router from "@koa/router";
import { offerBody, supplierBody } from "@kobbin/contract";
import { one, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { manyLines, refreshRuns } from "../run/index.ts";
import { askSuppliers } from "./ask.ts";
import { deleteFeedOffers, deleteOffer, insertOffer, insertSupplier, manySuppliers } from "./queries.ts";

/** Suppliers and offers: the feeds, typed and pasted ones. */
export function sourceRoutes(deps: Deps): Router {
  const { pool, config, today } = deps;
  const router = new Router();
  router.get("/api/suppliers", async (ctx) => {
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, manySuppliers);
  });
  router.post("/api/suppliers", async (ctx) => {
    const body = bodyOf(ctx, supplierBody);
    ctx.status = 201;
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => ({
      id: await insertSupplier(tx, body),
    }));
  });
  router.post("/api/runs/:id/ask", async (ctx) => {
    const { workshopId } = signed(ctx);
    const { revisionId, suppliers, lines } = await withWorkshop(pool, workshopId, async (tx) => {
      const { rows } = await tx.query<{ revisionId: string }>(
        `select revision_id as "revisionId" from run where id = $1`,
        [ctx.params.id],
      );
      const { revisionId } = one(rows, "run");
      return { revisionId, suppliers: await manySuppliers(tx), lines: await manyLines(tx, revisionId) };
    });
    const asked = await askSuppliers(config.standInsUrl, suppliers, lines, today());
    await withWorkshop(pool, workshopId, async (tx) => {
      await deleteFeedOffers(
        tx,
        lines.map((l) => l.id),
        asked.answered,
      );
      for (const o of asked.offers) await insertOffer(tx, o);
      await tx.query("update run set asked_at = now() where id = $1", [ctx.params.id]);
    });
    await refreshRuns(deps, workshopId, revisionId);
    ctx.body = asked.answer;
  });
  router.post("/api/lines/:id/offers", async (ctx) => {
    const body = bodyOf(ctx, offerBody);
    const { workshopId } = signed(ctx);
    const { id, revisionId } = await withWorkshop(pool, workshopId, async (tx) => {
      const { rows } = await tx.query<{ revisionId: string }>(
        `select revision_id as "revisionId" from bom_line where id = $1`,
        [ctx.params.id],
      );
      const { revisionId } = one(rows, "line");
      return {
        revisionId,
        id: await insertOffer(tx, { ...body, lineId: ctx.params.id!, packaging: "", capturedOn: today() }),
      };
    });
    await refreshRuns(deps, workshopId, revisionId);
    ctx.status = 201;
    ctx.body = { id };
  });
  router.delete("/api/offers/:id", async (ctx) => {
    const { workshopId } = signed(ctx);
    const revisionId = await withWorkshop(pool, workshopId, (tx) => deleteOffer(tx, ctx.params.id!));
    await refreshRuns(deps, workshopId, revisionId);
    ctx.status = 204;
  });
  return router;
}
