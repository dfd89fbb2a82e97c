import Router from "@koa/router";
import { offerBody, supplierBody } from "@kobbin/contract";
import { one, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { manyLines, oneLine, oneRun } from "../run/index.ts";
import { askSuppliers } from "./ask.ts";
import { deleteOffer, insertOffer, insertSupplier, manySuppliers, replaceFeedOffers } from "./queries.ts";

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
    ctx.body = await changeOf(ctx, deps, async (tx) => ({ id: await insertSupplier(tx, body) }));
  });
  router.post("/api/runs/:id/ask", async (ctx) => {
    const { workshopId } = signed(ctx);
    const runId = ctx.params.id!;
    const { suppliers, lines } = await withWorkshop(pool, workshopId, async (tx) => {
      const { revisionId } = await oneRun(tx, runId);
      return { suppliers: await manySuppliers(tx), lines: await manyLines(tx, revisionId) };
    });
    const asked = await askSuppliers(config.standInsUrl, suppliers, lines, today());
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      change.about({ runId });
      change.says(
        `suppliers asked: ${asked.offers.length} offers for ${asked.answer.asked} lines${asked.answer.failed.length > 0 ? `; ${asked.answer.failed.map((f) => f.supplier).join(", ")} did not answer` : ""}`,
      );
      // a line may have gone while the suppliers were thinking
      const { rows } = await tx.query<{ id: string }>("select id from bom_line where id = any($1::uuid[])", [
        lines.map((l) => l.id),
      ]);
      const there = new Set(rows.map((r) => r.id));
      await replaceFeedOffers(
        tx,
        [...there],
        asked.answered,
        asked.offers.filter((o) => there.has(o.lineId)),
      );
      await tx.query("update run set asked_at = now() where id = $1", [runId]);
      return asked.answer;
    });
  });
  router.post("/api/lines/:id/offers", async (ctx) => {
    const body = bodyOf(ctx, offerBody);
    const lineId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { revisionId, name } = await oneLine(tx, lineId);
      change.about({ revisionId });
      const supplier = (await manySuppliers(tx)).find((x) => x.id === body.supplierId);
      change.says(`${name}: offer of ${one(supplier ? [supplier] : [], "supplier").name} ${body.source}`);
      return { id: await insertOffer(tx, { ...body, lineId, packaging: "", capturedOn: today() }) };
    });
    ctx.status = 201;
  });
  router.delete("/api/offers/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ revisionId: await deleteOffer(tx, ctx.params.id!) });
    });
    ctx.status = 204;
  });
  return router;
}
