import Router from "@koa/router";
import {
  bareTestBody,
  closingBody,
  type PurchaseBody,
  purchaseBody,
  type ReceiptBody,
  receiptBody,
  workBody,
} from "@kobbin/contract";
import { AppError, type LotTaken, microsToText, toMicros } from "@kobbin/core";
import { lockRun } from "../../db/lock.ts";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { deleteLot, insertLots, insertReservations, putReservation } from "../library/index.ts";
import { cameRoutes, requireReceipt } from "./came-routes.ts";
import { boardNamed, checkCame, itemOf, type OrderedItem, partyOf } from "./items.ts";
import {
  deleteBareTest,
  deleteReceipt,
  deleteWork,
  insertBareTest,
  insertClosing,
  insertReceipts,
  insertWork,
  manyHouseRecords,
  manyReservedLots,
  oneRecord,
  purchaseColumns,
  updateLotLeft,
  updateLotsPaid,
  upsertPurchase,
} from "./queries.ts";
import { released } from "./released.ts";

/** What happens to a run after its release: orders placed, parcels that came, work at the bench, its end. */
export function recordRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.get("/api/house-records", async (ctx) => {
    ctx.body = await readWorkshop(deps.pool, signed(ctx).workshopId, manyHouseRecords);
  });

  router.put("/api/runs/:id/purchases", async (ctx) => {
    const b = bodyOf(ctx, purchaseBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      change.about({ runId: id });
      const { name, currencies } = partyOf(document, b.order);
      refuseOtherMoney(name, currencies, b.currency);
      for (const item of Object.keys(b.paid ?? {})) itemOf(document, b.order, item);
      change.says(`order at ${name}: ${purchaseWords(b)}`);
      const row = await upsertPurchase(tx, id, { order: b.order, label: name, currency: b.currency });
      refuseOtherMoney(name, [row.currency], b.currency);
      await mergeRow(
        tx,
        "purchase",
        { id: row.id },
        b.version ?? row.version,
        (base) => givenColumns(purchaseColumns(b, base.paid as Record<string, string>)),
        `the order at ${name}`,
        byOf(ctx).page,
      );
      for (const [item, sum] of Object.entries(b.paid ?? {}))
        if (sum !== null && b.pieces?.[item])
          await updateLotsPaid(
            tx,
            id,
            b.order,
            item,
            microsToText(Math.round(toMicros(sum) / b.pieces[item])),
          );
    });
    ctx.status = 204;
  });

  router.post("/api/runs/:id/receipts", async (ctx) => {
    const b = bodyOf(ctx, receiptBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      change.about({ runId: id });
      const { name } = partyOf(document, b.order);
      const came = b.items.map((r) => {
        const item = itemOf(document, b.order, r.item);
        if (!r.isMeant) checkCame(document, r.item, item.label, r.qty);
        return { ...r, ...item };
      });
      const ids = await insertReceipts(tx, id, b, await putOnShelf(tx, id, came, b.arrivedOn, name));
      const said = came.map(
        (r) =>
          `${r.qty} × ${r.lot && r.cameAs && r.cameAs !== r.label ? `${r.cameAs} for ${r.label}` : r.label}${r.isApart ? " set apart" : ""}${r.because ? ` (${r.because})` : ""}`,
      );
      change.says(
        `came from ${name}: ${said.slice(0, 3).join(", ")}${said.length > 3 ? ` and ${said.length - 3} more` : ""}`,
      );
      return { ids };
    });
    ctx.status = 201;
  });
  router.delete("/api/receipts/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteReceipt(tx, ctx.params.id!);
      change.about({ runId: gone.runId });
      change.says(`${gone.qty} × ${gone.label} did not come after all`);
      if (gone.lot) await deleteLot(tx, gone.lot);
    });
    ctx.status = 204;
  });

  cameRoutes(router, deps);
  router.post("/api/runs/:id/bare-tests", async (ctx) => {
    const b = bodyOf(ctx, bareTestBody);
    const id = ctx.params.id!;
    if (b.faults.length > b.tried)
      throw new AppError(
        "OUT_OF_RANGE",
        `${b.faults.length} do not hold, but ${b.tried} were tried.`,
        "What does not hold counts among what was tried.",
      );
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      const name = boardNamed(document, b.item);
      await requireReceipt(tx, id, b);
      change.about({ runId: id });
      const failed = b.faults.length;
      change.says(
        `${name} ${b.label} tried bare: ${failed === 0 ? `all ${b.tried} hold` : `${failed} of ${b.tried} do not hold`}`,
      );
      return {
        id: await insertBareTest(tx, id, { ...b, receipt: b.receipt ?? null, person: signed(ctx).person }),
      };
    });
    ctx.status = 201;
  });
  router.delete("/api/bare-tests/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteBareTest(tx, ctx.params.id!);
      change.about({ runId: gone.runId });
      change.says(`the trial of the bare board ${gone.label} removed`);
    });
    ctx.status = 204;
  });

  router.post("/api/runs/:id/work", async (ctx) => {
    const b = bodyOf(ctx, workBody);
    const id = ctx.params.id!;
    if (b.started + b.good + b.reworked + b.scrapped + b.minutes === 0)
      throw new AppError("OUT_OF_RANGE", "Nothing was counted.", "Type how many boards, or the minutes.");
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await released(tx, id);
      change.about({ runId: id });
      change.says(workWords(b));
      return { id: await insertWork(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.delete("/api/work/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ runId: await deleteWork(tx, ctx.params.id!) });
    });
    ctx.status = 204;
  });

  router.put("/api/runs/:id/closing", async (ctx) => {
    const b = bodyOf(ctx, closingBody);
    const id = ctx.params.id!;
    const { workshopId, person } = signed(ctx);
    const { document, record } = await readWorkshop(pool, workshopId, async (tx) => ({
      ...(await released(tx, id)),
      record: await oneRecord(tx, id),
    }));
    if (record.closedOn)
      throw new AppError("NOT_ALLOWED", "The run is closed already.", "Its figures stand beside.");
    const { outcome, lots, factors } = await deps.compute.run(
      { kind: "outcome", document, record },
      workshopId,
    );
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ runId: id });
      // what the figures were computed from is still so, and nobody counts until the run is closed
      await lockRun(tx, id);
      if (JSON.stringify(await oneRecord(tx, id)) !== JSON.stringify(record))
        throw new AppError(
          "STALE_VERSION",
          "Somebody wrote something down while the run was being closed.",
          "Look at plan against actual again, then close it.",
        );
      change.says(
        `closed: ${outcome.good} good, ${outcome.scrapped} scrapped${outcome.minutes > 0 ? `, ${outcome.minutes} min` : ""}`,
      );
      const reserved = await manyReservedLots(tx, id);
      const stays = b.stays ?? {};
      const own = new Set([...reserved, ...lots]);
      if (Object.keys(stays).some((lot) => !own.has(lot)))
        throw new AppError(
          "NOT_FOUND",
          "The run took nothing of that lot.",
          "Reload the page; it shows the lots the run counted on.",
        );
      const counted = new Set(b.counted ?? []);
      const taken: Record<string, LotTaken> = {};
      for (const lot of new Set([...reserved, ...Object.keys(stays)]))
        if (stays[lot] !== undefined) {
          const had = await updateLotLeft(tx, id, lot, stays[lot]);
          taken[lot] = { pieces: had - stays[lot], isCounted: counted.has(lot) };
        } else await putReservation(tx, lot, id, 0);
      await insertClosing(tx, id, { closedOn: today(), person, lesson: b.lesson, outcome, factors, taken });
    });
    ctx.status = 204;
  });
  return router;
}

/** @throws AppError OUT_OF_RANGE where sums are given in a currency the order is not in */
function refuseOtherMoney(name: string, currencies: readonly string[], given: string): void {
  if (!currencies.includes(given))
    throw new AppError(
      "OUT_OF_RANGE",
      `The order at ${name} is in ${[...new Set(currencies)].join(" or ")}, not in ${given}.`,
      "Reload the page; it shows the order's own currency.",
    );
}

type Came = ReceiptBody["items"][number] & OrderedItem;

/** What came becomes lots, set apart or reserved for the run; boards make none. @returns each with its lot */
async function putOnShelf(
  tx: Tx,
  runId: string,
  came: readonly Came[],
  receivedOn: string,
  from: string,
): Promise<(Came & { lotId: string | null })[]> {
  const kept = came.filter((r) => r.lot);
  const lots = await insertLots(
    tx,
    kept.map((r) => {
      const { currency } = r.lot!;
      const ordered = r.lot!.mpn;
      const mpn = r.cameAs || ordered;
      // the price hangs on how many were ordered, not on how many came in this parcel
      if (r.unitCost === undefined)
        throw new AppError(
          "OUT_OF_RANGE",
          `What a piece of ${ordered} cost is missing.`,
          "Say its unit cost.",
        );
      return {
        mpn,
        qty: r.qty,
        place: r.place,
        receivedOn,
        unitCost: r.unitCost,
        currency,
        condition: r.isApart ? "quarantine" : "new",
        donor: "",
        made: r.made,
        note: [`from ${from}`, mpn === ordered ? "" : `came for ${ordered}`, r.because]
          .filter(Boolean)
          .join(": "),
      };
    }),
  );
  const lotOf = new Map(kept.map((r, i) => [r, lots[i]!]));
  await insertReservations(
    tx,
    runId,
    kept.filter((r) => !r.isApart).map((r) => ({ lotId: lotOf.get(r)!, qty: r.qty })),
  );
  return came.map((r) => ({ ...r, lotId: lotOf.get(r) ?? null }));
}

/** "ordered on 2026-11-27, promised for 2026-12-04, freight 4.00 EUR, 3 lines as invoiced". */
function purchaseWords(b: PurchaseBody): string {
  const said = (label: string, v: string | null | undefined, unit = "") =>
    v === undefined ? [] : v === null ? [`not ${label} after all`] : [`${label} ${v}${unit}`];
  const lines = Object.keys(b.paid ?? {}).length;
  const words = [
    ...said("ordered on", b.orderedOn),
    ...said("promised for", b.promisedOn),
    ...said("freight", b.freight, ` ${b.currency}`),
    ...(lines > 0 ? [`${lines === 1 ? "1 line" : `${lines} lines`} as invoiced`] : []),
    ...(b.note === undefined ? [] : [b.note === "" ? "note removed" : b.note]),
  ];
  return words.join(", ") || "written down";
}

const COUNTS = ["started", "good", "reworked", "scrapped"] as const;

/** "5 started, 3 good, 40 min". */
const workWords = (b: Record<(typeof COUNTS)[number] | "minutes", number>): string =>
  [
    ...COUNTS.filter((c) => b[c] > 0).map((c) => `${b[c]} ${c === "reworked" ? "mended" : c}`),
    ...(b.minutes > 0 ? [`${b.minutes} min`] : []),
  ].join(", ");
