import type Router from "@koa/router";
import { claimBody, measuredBody, newClaimBody, receiptChangeBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { freeOf, putReservation } from "../library/index.ts";
import {
  deleteClaim,
  deleteMeasured,
  insertClaim,
  insertMeasured,
  oneClaim,
  updateClaim,
  updateLotCondition,
  updateReceipt,
} from "./came-queries.ts";
import { boardNamed, itemOf, partyOf } from "./items.ts";
import { isReceiptOf } from "./queries.ts";
import { released } from "./released.ts";

const STATE_WORDS = {
  open: "is not sent",
  sent: "is sent",
  settled: "is settled",
  refused: "was refused",
} as const;

/** What is looked at closer once it came: boards that are measured, deliveries set apart, claims. */
export function cameRoutes(router: Router, deps: Deps): void {
  router.post("/api/runs/:id/measured", async (ctx) => {
    const b = bodyOf(ctx, measuredBody);
    const id = ctx.params.id!;
    const many = Object.keys(b.readings).length + Object.keys(b.looks).length;
    if (many === 0)
      throw new AppError("OUT_OF_RANGE", "Nothing was measured or looked at.", "Type a reading first.");
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      await requireReceipt(tx, id, b);
      change.about({ runId: id });
      const sizes = Object.keys(b.readings).length;
      change.says(
        `${boardNamed(document, b.item)} ${b.label} measured: ${sizes} ${sizes === 1 ? "size" : "sizes"}`,
      );
      return { id: await insertMeasured(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.delete("/api/measured/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteMeasured(tx, ctx.params.id!);
      change.about({ runId: gone.runId });
      change.says(`what was measured of the board ${gone.label} removed`);
    });
    ctx.status = 204;
  });

  router.patch("/api/receipts/:id", async (ctx) => {
    const b = bodyOf(ctx, receiptChangeBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const r = await updateReceipt(tx, ctx.params.id!, b);
      change.about({ runId: r.runId });
      change.says(
        `${r.qty} × ${r.label} ${b.isApart ? "set apart" : "may be used after all"}${b.because ? `: ${b.because}` : ""}`,
      );
      // only another reason for it
      if (!r.lot || r.was === b.isApart) return;
      await updateLotCondition(tx, r.lot, b.isApart);
      // no more than is left of it and kept for nobody else
      const kept = b.isApart ? 0 : Math.min(r.qty, (await freeOf(tx, r.lot, r.runId)).free);
      await putReservation(tx, r.lot, r.runId, kept);
    });
    ctx.status = 204;
  });

  claimRoutes(router, deps);
}

/** What came otherwise than ordered, and what becomes of it. */
function claimRoutes(router: Router, deps: Deps): void {
  router.post("/api/runs/:id/claims", async (ctx) => {
    const b = bodyOf(ctx, newClaimBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      const { name } = partyOf(document, b.order);
      const what = b.item === "" ? "" : ` of ${itemOf(document, b.order, b.item).label}`;
      change.about({ runId: id });
      change.says(`claim at ${name}${what}: ${b.because}`);
      return { id: await insertClaim(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.patch("/api/claims/:id", async (ctx) => {
    const b = bodyOf(ctx, claimBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, order } = await oneClaim(tx, id);
      const { document } = await released(tx, runId);
      change.about({ runId });
      if (b.state) change.says(`the claim at ${partyOf(document, order).name} ${STATE_WORDS[b.state]}`);
      await updateClaim(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/claims/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, order } = await oneClaim(tx, id);
      const { document } = await released(tx, runId);
      change.about({ runId });
      change.says(`nothing is claimed at ${partyOf(document, order).name} after all`);
      await deleteClaim(tx, id);
    });
    ctx.status = 204;
  });
}

/** @throws AppError NOT_FOUND where a board is said to be of a delivery that holds none such */
export async function requireReceipt(
  tx: Tx,
  runId: string,
  b: { readonly receipt?: string | undefined; readonly item: string },
): Promise<void> {
  if (b.receipt && !(await isReceiptOf(tx, runId, b.receipt, b.item)))
    throw new AppError(
      "NOT_FOUND",
      "That delivery holds no such boards.",
      "Reload the page; it shows what came.",
    );
}
