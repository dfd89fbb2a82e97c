import Router from "@koa/router";
import { columnsBody, newSumBody, newVariantBody, sumBody, variantBody } from "@kobbin/contract";
import type { LineOverride } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { requireRevision } from "../run/index.ts";
import {
  deleteSum,
  deleteVariant,
  insertSum,
  insertVariant,
  manyLists,
  oneSum,
  oneVariant,
  upsertList,
} from "./queries.ts";

/** What belongs to a bill beside its lines: sums attached to them, and variants. */
export function billRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/columns", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, manyLists);
  });
  router.put("/api/columns", async (ctx) => {
    const b = bodyOf(ctx, columnsBody);
    await changeOf(ctx, deps, (tx, change) => {
      change.says("how the columns of a list are meant is remembered");
      return upsertList(tx, b.source, b.columns);
    });
    ctx.status = 204;
  });
  router.post("/api/revisions/:id/sums", async (ctx) => {
    const b = bodyOf(ctx, newSumBody);
    const revisionId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, revisionId);
      change.about({ revisionId });
      change.says(`a sum was attached: ${b.name || b.kind}`);
      return { id: await insertSum(tx, revisionId, { ...b, given: b.given ?? {}, lines: b.lines ?? {} }) };
    });
    ctx.status = 201;
  });
  router.patch("/api/sums/:id", async (ctx) => {
    const { version, ...b } = bodyOf(ctx, sumBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const sum = await oneSum(tx, id);
      change.about({ revisionId: sum.revisionId });
      const columns = givenColumns({
        name: b.name,
        given: b.given,
        lines: b.lines,
        wanted: b.wanted,
        within_pct: b.withinPct,
      });
      await mergeRow(tx, "line_sum", { id }, version ?? sum.version, () => columns, sum.name, byOf(ctx).page);
    });
    ctx.status = 204;
  });
  router.delete("/api/sums/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const sum = await oneSum(tx, ctx.params.id!);
      change.about({ revisionId: sum.revisionId });
      await deleteSum(tx, ctx.params.id!);
    });
    ctx.status = 204;
  });
  router.post("/api/revisions/:id/variants", async (ctx) => {
    const b = bodyOf(ctx, newVariantBody);
    const revisionId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, revisionId);
      change.about({ revisionId });
      const overrides = (b.overrides ?? {}) as Record<string, LineOverride>;
      return { id: await insertVariant(tx, revisionId, b.name, overrides) };
    });
    ctx.status = 201;
  });
  router.patch("/api/variants/:id", async (ctx) => {
    const { version, ...b } = bodyOf(ctx, variantBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const v = await oneVariant(tx, id);
      change.about({ revisionId: v.revisionId });
      const columns = givenColumns({ name: b.name, overrides: b.overrides });
      await mergeRow(tx, "variant", { id }, version ?? v.version, () => columns, v.name, byOf(ctx).page);
    });
    ctx.status = 204;
  });
  router.delete("/api/variants/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const v = await oneVariant(tx, ctx.params.id!);
      change.about({ revisionId: v.revisionId });
      await deleteVariant(tx, ctx.params.id!);
    });
    ctx.status = 204;
  });
  return router;
}
