import type Router from "@koa/router";
import { lotAirBody, lotBody, lotCount, lotCountsBody, newLotBody, reservationBody } from "@kobbin/contract";
import { AppError, lowOf, movesOf } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf, listBodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { oneRun } from "../run/index.ts";
import { airAfter } from "./lot-air.ts";
import {
  deleteLot,
  freeOf,
  insertLot,
  lotAsItIs,
  manyBoardsWith,
  manyKept,
  manyLotChanges,
  manyLots,
  oneLot,
  oneLotAir,
  putReservation,
  updateLotAir,
} from "./lot-queries.ts";

/** What lies on the shelf, where it came from and went, how it is counted, and who may take it. */
export function shelfRoutes(router: Router, deps: Deps): void {
  const { pool, today } = deps;
  router.get("/api/lots", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyLots);
  });
  router.get("/api/lots/:id/moves", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const { qty } = await lotAsItIs(tx, ctx.params.id!);
      return movesOf(await manyLotChanges(tx, ctx.params.id!), qty);
    });
  });
  router.get("/api/lots/:id/boards", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      await lotAsItIs(tx, ctx.params.id!);
      return manyBoardsWith(tx, ctx.params.id!);
    });
  });
  router.get("/api/low", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => lowOf(await manyKept(tx)));
  });
  countRoute(router, deps);
  airRoute(router, deps);
  router.post("/api/lots", async (ctx) => {
    const b = bodyOf(ctx, newLotBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      change.says(`${b.qty} × ${b.mpn} put on the shelf${b.place ? `, ${b.place}` : ""}`);
      return { id: await insertLot(tx, { ...b, receivedOn: b.receivedOn ?? today() }) };
    });
    ctx.status = 201;
  });
  router.patch("/api/lots/:id", async (ctx) => {
    const { version, ...b } = bodyOf(ctx, lotBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx) => {
      const { mpn } = await oneLot(tx, id);
      const columns = givenColumns({
        qty: b.qty,
        place: b.place,
        unit_cost: b.unitCost,
        condition: b.condition,
        donor: b.donor,
        note: b.note,
        made: b.made,
        sample: b.sample && { ...b.sample, on: today() },
      });
      await mergeRow(tx, "lot", { id }, version, () => columns, mpn, byOf(ctx).page);
    });
    ctx.status = 204;
  });
  router.delete("/api/lots/:id", async (ctx) => {
    await changeOf(ctx, deps, (tx) => deleteLot(tx, ctx.params.id!));
    ctx.status = 204;
  });
  router.put("/api/runs/:id/reservations", async (ctx) => {
    const b = bodyOf(ctx, reservationBody);
    const runId = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const run = await oneRun(tx, runId);
      change.about({ runId });
      const { free, mpn } = await freeOf(tx, b.lotId, runId);
      if (b.qty > free)
        throw new AppError(
          "OUT_OF_RANGE",
          `${free} of ${mpn} are free in this lot, not ${b.qty}.`,
          "Other runs reserved the rest; free some there, or reserve fewer.",
        );
      change.says(
        b.qty === 0
          ? `${mpn}: reservation for ${run.name} given free`
          : `${b.qty} × ${mpn} reserved for ${run.name}`,
      );
      await putReservation(tx, b.lotId, runId, b.qty);
    });
    ctx.status = 204;
  });
}

/** What lies at a place was counted in one go: all of it is kept, or nothing. */
function countRoute(router: Router, deps: Deps): void {
  router.post("/api/lots/count", async (ctx) => {
    const b = await listBodyOf(ctx, lotCountsBody, "counts", lotCount);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { page } = byOf(ctx);
      let differ = 0;
      // in one order, whoever counts at the same time
      for (const c of [...b.counts].sort((x, y) => (x.id < y.id ? -1 : 1))) {
        const { mpn, qty } = await oneLot(tx, c.id);
        if (qty !== c.qty) differ++;
        await mergeRow(tx, "lot", { id: c.id }, c.version, () => ({ qty: c.qty }), mpn, page);
      }
      const where = b.place ? ` in ${b.place}` : "";
      change.says(
        `${b.counts.length} ${b.counts.length === 1 ? "lot" : "lots"} counted${where}: ${differ === 0 ? "as written" : `${differ} otherwise than written`}${b.because ? `, ${b.because}` : ""}`,
      );
      return { differ };
    });
  });
}

/** Something happened to the dry bag of a lot. */
function airRoute(router: Router, deps: Deps): void {
  router.post("/api/lots/:id/air", async (ctx) => {
    const b = bodyOf(ctx, lotAirBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const lot = await oneLotAir(tx, ctx.params.id!);
      const now = (deps.now?.() ?? new Date()).toISOString();
      const { air, says } = airAfter(lot, b, { now, by: signed(ctx).person });
      change.says(`${lot.mpn}: ${says}`);
      if (air !== lot.air) await updateLotAir(tx, ctx.params.id!, air);
    });
    ctx.status = 204;
  });
}
