import Router from "@koa/router";
import {
  newRunBody,
  quoteAnswerBody,
  quoteBody,
  type RunBody,
  remarkBody,
  runBody,
  type Shop,
} from "@kobbin/contract";
import {
  AppError,
  carriedWork,
  convertMicros,
  DEFAULT_ASSEMBLY,
  firstChoices,
  layChoices,
  microsToText,
  type RunAssembly,
  roundMoney,
  toMicros,
} from "@kobbin/core";
import { one, readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import type { Row } from "../../history/rows.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { manyHouses } from "../house/index.ts";
import { firstRates, oneShop } from "../shop/index.ts";
import { answerRun } from "./document.ts";
import { firstArticleRoute } from "./first-article.ts";
import {
  answerQuote,
  deleteOpenRun,
  deleteQuote,
  deleteRemark,
  insertRemark,
  insertRun,
  manyBoards,
  maybeLastWork,
  oneRun,
  requireRevision,
  updateRunName,
  upsertQuote,
} from "./queries.ts";

/** Runs: start, read, choose, remark; quotations. */
export function runRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.post("/api/runs", async (ctx) => {
    const body = bodyOf(ctx, newRunBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, body.revisionId);
      const boards = await manyBoards(tx, body.revisionId);
      const first = firstChoices(
        boards.map((b) => b.measure),
        await manyHouses(tx),
      );
      const last = await maybeLastWork(tx, body.revisionId);
      const carried = last && carriedWork(last, last.isSameRevision);
      const id = await insertRun(tx, {
        ...body,
        houseId: first.house?.id ?? null,
        options: first.options,
        assembly: { ...firstAssembly(await oneShop(tx)), ...carried?.assembly },
        ...(carried ? { choices: carried.choices } : {}),
      });
      change.about({ runId: id });
      return { id };
    });
    ctx.status = 201;
  });

  router.get("/api/runs/:id", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, (tx) =>
      answerRun(tx, ctx.params.id!, today()),
    );
  });

  router.patch("/api/runs/:id", async (ctx) => {
    const body = bodyOf(ctx, runBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const run = await oneRun(tx, id);
      change.about({ runId: id });
      if (body.name !== undefined) await updateRunName(tx, id, body.name);
      await mergeRow(
        tx,
        "fork",
        { id: run.forkId },
        body.version,
        (base) => laid(base, body),
        "this run",
        byOf(ctx).page,
      );
    });
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, (tx) => answerRun(tx, id, today()));
  });

  firstArticleRoute(router, deps);
  router.delete("/api/runs/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { revisionId } = await oneRun(tx, id);
      change.about({ revisionId });
      await deleteOpenRun(tx, id);
    });
    ctx.status = 204;
  });

  router.put("/api/runs/:id/quotes", async (ctx) => {
    const b = bodyOf(ctx, quoteBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      await oneRun(tx, id);
      change.about({ runId: id });
      const house = (await manyHouses(tx)).find((h) => h.id === b.houseId);
      change.says(
        `quotation of ${one(house ? [house] : [], "house").name}: ${b.total} ${b.currency}, ${b.days} days`,
      );
      await upsertQuote(tx, id, { ...b, capturedOn: today() });
    });
    ctx.status = 204;
  });
  router.put("/api/runs/:id/quotes/:house/answer", async (ctx) => {
    const { answer } = bodyOf(ctx, quoteAnswerBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      await oneRun(tx, id);
      change.about({ runId: id });
      const house = (await manyHouses(tx)).find((h) => h.id === ctx.params.house);
      change.says(`${one(house ? [house] : [], "house").name} was answered: ${answer}`);
      if (!(await answerQuote(tx, id, house!.id, answer)))
        throw new AppError("NOT_FOUND", `${house!.name} asks nothing.`, "Load the page again.");
    });
    ctx.status = 204;
  });
  router.delete("/api/runs/:id/quotes/:house/:kind", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      await oneRun(tx, id);
      change.about({ runId: id });
      await deleteQuote(tx, id, ctx.params.house!, ctx.params.kind!);
    });
    ctx.status = 204;
  });

  router.post("/api/runs/:id/remarks", async (ctx) => {
    const b = bodyOf(ctx, remarkBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await oneRun(tx, id);
      change.about({ runId: id });
      change.says(`remark: ${b.text}`);
      return { id: await insertRemark(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.delete("/api/remarks/:id", async (ctx) => {
    const { person, role } = signed(ctx);
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteRemark(tx, ctx.params.id!);
      if (role !== "owner" && gone.person !== person)
        throw new AppError(
          "NOT_ALLOWED",
          `The remark is ${gone.person}’s.`,
          "Ask them, or an owner, to remove it; you may add one of your own.",
        );
      change.about({ runId: gone.runId });
    });
    ctx.status = 204;
  });
  return router;
}

/** The sums a run begins with, thought in euro, in the shop's own currency where a rate is known. */
function firstAssembly(shop: Shop): Partial<RunAssembly> {
  // who keeps no rate to the euro begins with the one a new shop of that currency has
  const rate = shop.rates.EUR ?? firstRates(shop.currency).EUR;
  if (shop.currency === "EUR" || rate === undefined) return {};
  const own = (euro: string | number) =>
    microsToText(roundMoney(convertMicros(toMicros(euro), rate), shop.currency));
  return { stencilPrice: own(DEFAULT_ASSEMBLY.stencilPrice), consumables: own(DEFAULT_ASSEMBLY.consumables) };
}

/** A change laid over the row as the person saw it. */
function laid(base: Row, b: RunBody): Row {
  return givenColumns({
    good_boards: b.goodBoards,
    confidence: b.confidence,
    house_id: b.houseId,
    ...layChoices(base, b),
  });
}
