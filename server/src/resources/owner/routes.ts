import Router from "@koa/router";
import { newReportBody, outsBody, reportBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
import { oneErratum } from "../learn/index.ts";
import { oneRun } from "../run/index.ts";
import {
  deleteOut,
  deleteReport,
  forgetHolder,
  highestUnit,
  insertReport,
  manyOuts,
  oneReport,
  updateReport,
  upsertOuts,
} from "./queries.ts";

const saysUnits = (units: readonly number[]) =>
  units.length === 1 ? `board ${units[0]}` : `${units.length} boards`;

/** Where boards went, who has them, and what is said of them there. No sentence of the history names anybody. */
export function ownerRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/runs/:id/outs", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, async (tx) => {
      await oneRun(tx, ctx.params.id!);
      return manyOuts(tx, ctx.params.id!);
    });
  });
  router.put("/api/runs/:id/outs", async (ctx) => {
    const b = bodyOf(ctx, outsBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      await oneRun(tx, id);
      const known = await highestUnit(tx, id);
      const most = Math.max(...b.units);
      if (most > known)
        throw new AppError(
          "OUT_OF_RANGE",
          `Nothing is known of board ${most}: ${known === 0 ? "none was started" : `the last that was started is ${known}`}.`,
          "Look at the number again, or count what was started.",
        );
      change.about({ runId: id });
      change.says(`${saysUnits(b.units)} went out: ${b.towards}`);
      await upsertOuts(tx, id, b, signed(ctx).person);
    });
    ctx.status = 204;
  });
  router.delete("/api/outs/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, unit } = await deleteOut(tx, ctx.params.id!);
      change.about({ runId });
      change.says(`board ${unit} did not go out after all`);
    });
    ctx.status = 204;
  });
  router.delete("/api/outs/:id/holder", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      change.isFinal();
      const { runId, unit } = await forgetHolder(tx, ctx.params.id!);
      change.about({ runId });
      change.says(`who has board ${unit} is forgotten`);
    });
    ctx.status = 204;
  });
  reportRoutes(router, deps);
  return router;
}

function reportRoutes(router: Router, deps: Deps): void {
  router.post("/api/reports", async (ctx) => {
    const b = bodyOf(ctx, newReportBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, b.productId);
      if (b.runId !== undefined) {
        const run = await oneRun(tx, b.runId);
        if (run.productId !== b.productId)
          throw new AppError(
            "NOT_ALLOWED",
            `The run ${run.name} is of another product.`,
            "Write it down for a board of this product.",
          );
      }
      change.about({ productId: b.productId, ...(b.runId ? { runId: b.runId } : {}) });
      change.says(`an owner of ${name} says: ${b.says}`);
      return { id: await insertReport(tx, b, signed(ctx).person) };
    });
    ctx.status = 201;
  });
  router.patch("/api/reports/:id", async (ctx) => {
    const b = bodyOf(ctx, reportBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, runId, says } = await oneReport(tx, id);
      if (b.erratumId && (await oneErratum(tx, b.erratumId)).productId !== productId)
        throw new AppError(
          "NOT_ALLOWED",
          "That fault is of another product.",
          "Choose one of the product that is spoken of.",
        );
      change.about({ productId, ...(runId ? { runId } : {}) });
      change.says(
        b.answer === undefined
          ? `what an owner says is put right: ${says}`
          : `an owner is answered: ${b.answer}`,
      );
      await updateReport(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/reports/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { productId, runId, says } = await oneReport(tx, id);
      change.about({ productId, ...(runId ? { runId } : {}) });
      change.says(`no owner says any more: ${says}`);
      await deleteReport(tx, id);
    });
    ctx.status = 204;
  });
}
