import Router from "@koa/router";
import { lineBody, newRunBody, quoteBody, type RunBody, runBody, type Shop } from "@kobbin/contract";
import {
  AppError,
  convertMicros,
  DEFAULT_ASSEMBLY,
  microsToText,
  type RunAssembly,
  roundMoney,
  toMicros,
} from "@kobbin/core";
import { one, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { manyHouses } from "../house/queries.ts";
import { oneShop } from "../shop/queries.ts";
import { answerRun, refreshRun, refreshRuns } from "./document.ts";
import {
  deleteLine,
  insertLine,
  insertRun,
  oneRun,
  type StoredRun,
  updateFork,
  updateLine,
  upsertQuote,
} from "./queries.ts";

/** Runs: start, read, choose; lines of the parts list; quotations. */
export function runRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.post("/api/runs", async (ctx) => {
    const body = bodyOf(ctx, newRunBody);
    const { workshopId } = signed(ctx);
    const id = await withWorkshop(pool, workshopId, async (tx) => {
      one((await tx.query("select id from revision where id = $1", [body.revisionId])).rows, "revision");
      const houses = await manyHouses(tx);
      return insertRun(tx, {
        ...body,
        houseId: houses[0]?.id ?? null,
        assembly: firstAssembly(await oneShop(tx)),
      });
    });
    await refreshRun(deps, workshopId, id);
    ctx.status = 201;
    ctx.body = { id };
  });

  router.get("/api/runs/:id", async (ctx) => {
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, (tx) =>
      answerRun(tx, ctx.params.id!, today()),
    );
  });

  router.patch("/api/runs/:id", async (ctx) => {
    const body = bodyOf(ctx, runBody);
    const { workshopId } = signed(ctx);
    const id = ctx.params.id!;
    await withWorkshop(pool, workshopId, async (tx) => {
      const run = await oneRun(tx, id);
      if (run.state === "released")
        throw new AppError(
          "NOT_ALLOWED",
          "The run is released; what was ordered stays as it is.",
          "Start a new run to change something.",
        );
      if (body.name !== undefined) await tx.query("update run set name = $2 where id = $1", [id, body.name]);
      if (!(await updateFork(tx, id, body.version, merged(run, body))))
        throw new AppError(
          "STALE_VERSION",
          "Somebody changed this run in between; your change was not saved.",
          "The page shows the newest state now; change it again there.",
        );
    });
    await refreshRun(deps, workshopId, id);
    ctx.body = await withWorkshop(pool, workshopId, (tx) => answerRun(tx, id, today()));
  });

  router.delete("/api/runs/:id", async (ctx) => {
    await withWorkshop(pool, signed(ctx).workshopId, async (tx) =>
      one(
        (await tx.query("delete from run where id = $1 and state = 'open' returning id", [ctx.params.id]))
          .rows,
        "open run",
      ),
    );
    ctx.status = 204;
  });

  router.post("/api/revisions/:id/lines", async (ctx) => {
    const b = bodyOf(ctx, lineBody);
    const { workshopId } = signed(ctx);
    const revisionId = ctx.params.id!;
    const id = await withWorkshop(pool, workshopId, async (tx) => {
      one((await tx.query("select id from revision where id = $1", [revisionId])).rows, "revision");
      const { rows } = await tx.query<{ next: number }>(
        "select coalesce(max(position), 0) + 1 as next from bom_line where revision_id = $1",
        [revisionId],
      );
      const refs = b.refs ?? [];
      return insertLine(tx, revisionId, rows[0]!.next, {
        refs,
        qty: refs.length > 0 ? refs.length : (b.qty ?? 1),
        valueText: b.valueText ?? "",
        package: b.package ?? "",
        mpn: b.mpn ?? "",
        maker: b.maker ?? "",
        description: b.description ?? "",
        dnp: b.dnp ?? false,
        mount: b.mount ?? "none",
      });
    });
    await refreshRuns(deps, workshopId, revisionId);
    ctx.status = 201;
    ctx.body = { id };
  });
  router.patch("/api/lines/:id", async (ctx) => {
    const b = bodyOf(ctx, lineBody);
    const { workshopId } = signed(ctx);
    const revisionId = await withWorkshop(pool, workshopId, (tx) => updateLine(tx, ctx.params.id!, b));
    await refreshRuns(deps, workshopId, revisionId);
    ctx.status = 204;
  });
  router.delete("/api/lines/:id", async (ctx) => {
    const { workshopId } = signed(ctx);
    const revisionId = await withWorkshop(pool, workshopId, (tx) => deleteLine(tx, ctx.params.id!));
    await refreshRuns(deps, workshopId, revisionId);
    ctx.status = 204;
  });

  router.put("/api/runs/:id/quotes", async (ctx) => {
    const b = bodyOf(ctx, quoteBody);
    const { workshopId } = signed(ctx);
    await withWorkshop(pool, workshopId, async (tx) => {
      await oneRun(tx, ctx.params.id!);
      one((await tx.query("select id from house where id = $1", [b.houseId])).rows, "house");
      await upsertQuote(tx, ctx.params.id!, { ...b, capturedOn: today() });
    });
    await refreshRun(deps, workshopId, ctx.params.id!);
    ctx.status = 204;
  });
  router.delete("/api/runs/:id/quotes/:house/:kind", async (ctx) => {
    const { workshopId } = signed(ctx);
    await withWorkshop(pool, workshopId, async (tx) =>
      tx.query("delete from quotation where run_id = $1 and house_id = $2 and kind = $3", [
        ctx.params.id,
        ctx.params.house,
        ctx.params.kind,
      ]),
    );
    await refreshRun(deps, workshopId, ctx.params.id!);
    ctx.status = 204;
  });
  return router;
}

/** The sums a run begins with, thought in euro, in the shop's own currency where it knows the rate. */
function firstAssembly(shop: Shop): Partial<RunAssembly> {
  const rate = shop.rates.EUR;
  if (shop.currency === "EUR" || rate === undefined) return {};
  const own = (euro: string | number) =>
    microsToText(roundMoney(convertMicros(toMicros(euro), rate), shop.currency));
  return { stencilPrice: own(DEFAULT_ASSEMBLY.stencilPrice), consumables: own(DEFAULT_ASSEMBLY.consumables) };
}

/** The stored choices with a change laid over them; keys the change does not name stay. */
function merged(
  run: StoredRun,
  b: RunBody,
): Pick<StoredRun, "goodBoards" | "confidence" | "houseId" | "options" | "assembly" | "choices"> {
  const defined = <T extends object>(o: T | undefined) =>
    Object.fromEntries(Object.entries(o ?? {}).filter(([, v]) => v !== undefined));
  return {
    goodBoards: b.goodBoards ?? run.goodBoards,
    confidence: b.confidence ?? run.confidence,
    houseId: b.houseId === undefined ? run.houseId : b.houseId,
    options: { ...run.options, ...defined(b.options) },
    assembly: { ...run.assembly, ...defined(b.assembly) },
    choices: {
      ...run.choices,
      ...defined({ basket: b.basket, pins: b.pins, leftovers: b.leftovers, accepted: b.accepted }),
    },
  };
}
