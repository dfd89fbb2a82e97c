import Router from "@koa/router";
import { decisionBody, erratumBody, newErratumBody, reworkBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { readLearnedSoon } from "../../jobs/learned.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneRun } from "../run/index.ts";
import {
  deleteErratum,
  deleteRework,
  insertErratum,
  oneErratum,
  oneRevisionOf,
  updateDecision,
  updateErratum,
  upsertRework,
} from "./erratum-queries.ts";

const DECIDED = { fixed: "is mended", stays: "stays", gone: "is nothing it has any more" } as const;

/** What is known to be wrong with the shop's boards, what was decided, and on which boards it was worked around. */
export function erratumRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/errata", async (ctx) => {
    const b = bodyOf(ctx, newErratumBody);
    const made = await changeOf(ctx, deps, async (tx, change) => {
      const { productId, product, label } = await oneRevisionOf(tx, b.revisionId);
      change.about({ productId, revisionId: b.revisionId });
      change.says(`wrong with ${product} ${label}: ${b.title}`);
      return { id: await insertErratum(tx, productId, b), productId };
    });
    readLearnedSoon(deps, signed(ctx).workshopId, made.productId);
    ctx.body = { id: made.id };
    ctx.status = 201;
  });
  router.patch("/api/errata/:id", async (ctx) => {
    const b = bodyOf(ctx, erratumBody);
    const id = ctx.params.id!;
    let product: string | undefined;
    await changeOf(ctx, deps, async (tx, change) => {
      const e = await oneErratum(tx, id);
      product = e.productId;
      change.about({ productId: e.productId, revisionId: e.revisionId });
      await updateErratum(tx, id, b);
    });
    if (b.spot) readLearnedSoon(deps, signed(ctx).workshopId, product);
    ctx.status = 204;
  });
  router.put("/api/errata/:id/decision", async (ctx) => {
    const b = bodyOf(ctx, decisionBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const e = await oneErratum(tx, id);
      const v = await oneRevisionOf(tx, b.revisionId);
      if (v.productId !== e.productId || b.revisionId === e.revisionId)
        throw new AppError(
          "NOT_ALLOWED",
          `${e.title}: nothing is decided of it for ${v.product} ${v.label}.`,
          "Decide for another revision of the same product.",
        );
      change.about({ productId: e.productId, revisionId: b.revisionId });
      change.says(
        b.is === null
          ? `not decided any more for ${v.label}: ${e.title}`
          : `in ${v.label} it ${DECIDED[b.is]}: ${e.title}`,
      );
      await updateDecision(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/errata/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const e = await oneErratum(tx, id);
      change.about({ productId: e.productId, revisionId: e.revisionId });
      change.says(`nothing wrong after all: ${e.title}`);
      await deleteErratum(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}

/** On which boards it was worked around. */
export function reworkRoutes(deps: Deps): Router {
  const router = new Router();
  router.put("/api/errata/:id/reworks", async (ctx) => {
    const b = bodyOf(ctx, reworkBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const e = await oneErratum(tx, id);
      const run = await oneRun(tx, b.runId);
      if (run.productId !== e.productId)
        throw new AppError(
          "NOT_ALLOWED",
          `The run ${run.name} is of another product.`,
          "Write it down for a board of this product.",
        );
      change.about({ runId: b.runId });
      change.says(`board ${b.unit}: ${e.title} ${b.isScrapped ? "given up for it" : "worked around"}`);
      return { id: await upsertRework(tx, id, b, signed(ctx).person) };
    });
  });
  router.delete("/api/reworks/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, unit, erratumId } = await deleteRework(tx, ctx.params.id!);
      const e = await oneErratum(tx, erratumId);
      change.about({ runId });
      change.says(`board ${unit}: ${e.title}, not worked around after all`);
    });
    ctx.status = 204;
  });
  return router;
}
