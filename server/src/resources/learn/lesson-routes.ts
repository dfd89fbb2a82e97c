import Router from "@koa/router";
import { type LearnedAnswer, lessonBody, newLessonBody, planBody } from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { readLearnedSoon } from "../../jobs/learned.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { oneProductName } from "../fit/index.ts";
import { manyReports } from "../owner/index.ts";
import { manyShopErrata, oneRevisionOf } from "./erratum-queries.ts";
import {
  countUncounted,
  deleteLesson,
  insertLesson,
  manyShopLessons,
  oneLessonTitle,
  updateLesson,
} from "./lesson-queries.ts";
import { mistakesSince } from "./mistake-queries.ts";
import { deletePlan, manyPlans, upsertPlan } from "./plan-queries.ts";
import { manyProductRevisions } from "./product-queries.ts";

/** What the shop has learned, and holds every board against. */
export function lessonRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/learned", async (ctx) => {
    ctx.body = await readWorkshop(
      deps.pool,
      signed(ctx).workshopId,
      async (tx): Promise<LearnedAnswer> => ({
        lessons: await manyShopLessons(tx, deps.today()),
        uncounted: await countUncounted(tx),
        errata: await manyShopErrata(tx),
        plans: await manyPlans(tx),
        reports: await manyReports(tx),
        mistakes: await mistakesSince(tx, aYearBefore(deps.today())),
        products: await manyProductRevisions(tx),
      }),
    );
  });
  router.put("/api/products/:id/next-revision", async (ctx) => {
    const b = bodyOf(ctx, planBody);
    const productId = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneProductName(tx, productId);
      change.about({ productId });
      const because = b.because ? `: ${b.because}` : "";
      change.says(
        `${name}: ${b.isNeeded === null ? "not decided any more whether a revision is needed" : b.isNeeded ? `a next revision is planned${because}` : `no next revision is needed${because}`}`,
      );
      if (b.isNeeded === null) await deletePlan(tx, productId);
      else await upsertPlan(tx, productId, b, signed(ctx).person);
    });
    ctx.status = 204;
  });
  router.post("/api/lessons", async (ctx) => {
    const b = bodyOf(ctx, newLessonBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      // what it names is the shop's own
      const from = b.revisionId ? await oneRevisionOf(tx, b.revisionId) : undefined;
      change.about({ productId: b.productId ?? from?.productId, revisionId: b.revisionId });
      change.says(`learned: ${b.title}`);
      return { id: await insertLesson(tx, b) };
    });
    readLearnedSoon(deps, signed(ctx).workshopId, b.productId);
    ctx.status = 201;
  });
  router.patch("/api/lessons/:id", async (ctx) => {
    const b = bodyOf(ctx, lessonBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const title = await oneLessonTitle(tx, id);
      if (b.clearedOn) change.says(`cleared: ${title}${b.clearedBy ? `, ${b.clearedBy}` : ""}`);
      else if (b.clearedOn === null) change.says(`counts again: ${title}`);
      else if (b.relaxed) change.says(`${title}: other products are let off`);
      await updateLesson(tx, id, b);
    });
    if (b.check || b.clearedOn === null) readLearnedSoon(deps, signed(ctx).workshopId, undefined);
    ctx.status = 204;
  });
  router.delete("/api/lessons/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      change.says(`no lesson any more: ${await oneLessonTitle(tx, id)}`);
      await deleteLesson(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}

/** The same day a year before; of a leap day the last of February. */
const aYearBefore = (day: string): string =>
  day.endsWith("-02-29")
    ? `${Number(day.slice(0, 4)) - 1}-02-28`
    : `${Number(day.slice(0, 4)) - 1}${day.slice(4)}`;
