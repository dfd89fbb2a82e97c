import Router from "@koa/router";
import {
  type AskAnswer,
  askHousesBody,
  offerBody,
  quotationBody,
  quotedOffer,
  supplierBody,
  supplierChange,
} from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one, readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf, tell } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf, listBodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { onePart } from "../library/index.ts";
import { manyOrderAsks } from "../record/index.ts";
import { insertHouseAsks, manyAnswering, manyHouseAsks, oneLine, oneRun } from "../run/index.ts";
import { insertAsks, manyAsks } from "./ask-queries.ts";
import {
  countKnown,
  deleteOffer,
  deleteQuoted,
  insertOffer,
  insertOffers,
  insertSupplier,
  manySuppliers,
} from "./queries.ts";

/** Suppliers and offers: the feeds, typed and pasted ones. */
export function sourceRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.get("/api/suppliers", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manySuppliers);
  });
  router.post("/api/suppliers", async (ctx) => {
    const body = bodyOf(ctx, supplierBody);
    ctx.status = 201;
    ctx.body = await changeOf(ctx, deps, async (tx) => ({ id: await insertSupplier(tx, body) }));
  });
  router.patch("/api/suppliers/:id", async (ctx) => {
    const { version, ...b } = bodyOf(ctx, supplierChange);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx) => {
      const old = (await manySuppliers(tx)).find((s) => s.id === id);
      const columns = givenColumns({
        name: b.name,
        currency: b.currency,
        shipping: b.shipping,
        free_from: b.freeFrom,
        days_min: b.daysMin,
        days_max: b.daysMax,
        small_order_below: b.smallOrderBelow,
        small_order_fee: b.smallOrderFee,
        minimum_order: b.minimumOrder,
        handling: b.handling,
        duty_rate: b.dutyRate,
        duty_on_freight: b.dutyOnFreight,
        source_class: b.sourceClass,
        includes_tax: b.includesTax,
      });
      await mergeRow(
        tx,
        "supplier",
        { id },
        version,
        () => columns,
        one(old ? [old] : [], "supplier").name,
        byOf(ctx).page,
      );
    });
    ctx.status = 204;
  });
  router.post("/api/runs/:id/ask", async (ctx) => {
    const by = byOf(ctx);
    const { workshopId } = by;
    const runId = ctx.params.id!;
    ctx.body = await withWorkshop(pool, workshopId, async (tx) => {
      await oneRun(tx, runId);
      await insertAsks(tx, runId, by);
      await tell(tx, { kind: "asking", workshop: workshopId, runId });
      return asksOf(tx, runId);
    });
    ctx.status = 202;
  });
  router.post("/api/runs/:id/ask-houses", async (ctx) => {
    const by = byOf(ctx);
    const { workshopId } = by;
    const runId = ctx.params.id!;
    const { start } = bodyOf(ctx, askHousesBody);
    ctx.body = await withWorkshop(pool, workshopId, async (tx) => {
      await oneRun(tx, runId);
      await insertHouseAsks(tx, runId, start, by);
      await tell(tx, { kind: "asking", workshop: workshopId, runId });
      return asksOf(tx, runId);
    });
    ctx.status = 202;
  });
  router.get("/api/runs/:id/asks", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      await oneRun(tx, ctx.params.id!);
      const runId = ctx.params.id!;
      return asksOf(tx, runId);
    });
  });
  router.post("/api/lines/:id/offers", async (ctx) => {
    const body = bodyOf(ctx, offerBody);
    const lineId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { revisionId, name } = await oneLine(tx, lineId);
      change.about({ revisionId });
      const supplier = (await manySuppliers(tx)).find((x) => x.id === body.supplierId);
      // a part of this shop, or none
      if (body.partId) await onePart(tx, body.partId);
      change.says(`${name}: offer of ${one(supplier ? [supplier] : [], "supplier").name} ${body.source}`);
      return {
        id: await insertOffer(tx, { ...body, lineId, packaging: body.packaging ?? "", capturedOn: today() }),
      };
    });
    ctx.status = 201;
  });
  router.post("/api/runs/:id/quotation", async (ctx) => {
    const b = await listBodyOf(ctx, quotationBody, "offers", quotedOffer);
    const runId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { revisionId } = await oneRun(tx, runId);
      change.about({ runId, revisionId });
      const supplier = (await manySuppliers(tx)).find((x) => x.id === b.supplierId);
      change.says(
        `quotation of ${one(supplier ? [supplier] : [], "supplier").name}: ${b.offers.length} offers`,
      );
      await deleteQuoted(tx, b.supplierId, [...new Set(b.offers.map((o) => o.lineId))]);
      await refuseForeign(tx, revisionId, b.offers);
      await insertOffers(
        tx,
        b.offers.map((o) => ({
          ...o,
          supplierId: b.supplierId,
          currency: b.currency,
          packaging: "",
          source: "pasted" as const,
          capturedOn: today(),
          validUntil: b.validUntil,
        })),
      );
      return { offers: b.offers.length };
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

/** @throws AppError NOT_FOUND where a quotation names a line of another bill, or a part the library does not have */
async function refuseForeign(
  tx: Tx,
  revisionId: string,
  offers: readonly { readonly lineId: string; readonly partId?: string | undefined }[],
): Promise<void> {
  const lines = [...new Set(offers.map((o) => o.lineId))];
  const parts = [...new Set(offers.flatMap((o) => (o.partId ? [o.partId] : [])))];
  const known = await countKnown(tx, revisionId, lines, parts);
  if (known.lines !== lines.length)
    throw new AppError(
      "NOT_FOUND",
      "A line is not in the bill of this run.",
      "Nothing was kept. Read it again.",
    );
  if (known.parts !== parts.length)
    throw new AppError("NOT_FOUND", "A part is not in the library.", "Nothing was kept. Read it again.");
}

/** How everything stands that a run asks of others. */
const asksOf = async (tx: Tx, runId: string): Promise<AskAnswer> => ({
  asks: await manyAsks(tx, runId),
  houses: await manyHouseAsks(tx, runId),
  orders: await manyOrderAsks(tx, runId),
  answering: await manyAnswering(tx),
});
