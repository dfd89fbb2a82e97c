import Router from "@koa/router";
import {
  alternateBody,
  lotBody,
  lotCount,
  lotCountsBody,
  newLotBody,
  newPart,
  newPartBody,
  partBody,
  reservationBody,
} from "@kobbin/contract";
import { AppError, lowOf, movesOf, PART_FIELDS } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import type { Json } from "../../history/merge.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf, listBodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { oneRun } from "../run/index.ts";
import {
  deleteLot,
  freeOf,
  insertLot,
  lotAsItIs,
  manyKept,
  manyLotChanges,
  manyLots,
  oneLot,
  putReservation,
} from "./lot-queries.ts";
import {
  deletePart,
  insertParts,
  manyParts,
  manyUnknownNumbers,
  manyUses,
  onePart,
  partFromLine,
  runsOfAlternate,
  upsertAlternate,
} from "./queries.ts";

/** So many rows a list of parts shows; who wants others types a word more. */
const MOST = 60;

/** The shop's parts, what may stand in for what, and the shelf. */
export function libraryRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.get("/api/parts", async (ctx) => {
    const typed = String(ctx.query.q ?? "");
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, (tx) => manyParts(tx, typed, MOST));
  });
  router.get("/api/numbers", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) =>
      (await manyUnknownNumbers(tx)).map(({ uses, ...l }) => ({ ...partFromLine(l), uses })),
    );
  });
  router.get("/api/parts/:id", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const part = await onePart(tx, ctx.params.id!);
      return { part, uses: await manyUses(tx, part.mpn) };
    });
  });
  router.post("/api/parts", async (ctx) => {
    const list = (await listBodyOf(ctx, newPartBody, "parts", newPart)).parts;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { ids, fresh } = await insertParts(tx, list);
      change.says(
        fresh.length === 1
          ? `part ${fresh[0]} taken into the library`
          : `${fresh.length} parts taken into the library`,
      );
      return { ids };
    });
    ctx.status = 201;
  });
  router.patch("/api/parts/:id", async (ctx) => {
    const { version, suspectBecause, ...b } = bodyOf(ctx, partBody);
    const id = ctx.params.id!;
    const { person } = signed(ctx);
    await changeOf(ctx, deps, async (tx, change) => {
      const part = await onePart(tx, id);
      if (suspectBecause !== undefined)
        change.says(
          suspectBecause === ""
            ? `${part.mpn} cleared of suspicion`
            : `${part.mpn} suspected: ${suspectBecause}`,
        );
      const columns = givenColumns(
        Object.fromEntries(
          Object.entries(PART_FIELDS).map(([key, f]) => [f.column, b[key as keyof typeof b]]),
        ),
      );
      const laid: Record<string, Json> = { ...columns };
      if (suspectBecause !== undefined)
        laid.suspect = suspectBecause === "" ? null : { since: today(), because: suspectBecause, by: person };
      await mergeRow(tx, "part", { id }, version ?? part.version, () => laid, part.mpn, byOf(ctx).page);
    });
    ctx.status = 204;
  });
  router.delete("/api/parts/:id", async (ctx) => {
    await changeOf(ctx, deps, (tx) => deletePart(tx, ctx.params.id!));
    ctx.status = 204;
  });
  router.put("/api/alternates", async (ctx) => {
    const b = bodyOf(ctx, alternateBody);
    const { person } = signed(ctx);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const part = await onePart(tx, b.partId);
      const before = await runsOfAlternate(tx, b.original, b.partId);
      const { revisionId } = b.runId ? await oneRun(tx, b.runId) : { revisionId: undefined };
      if (b.runId) change.about({ runId: b.runId, ...(revisionId ? { revisionId } : {}) });
      // approved for one run after another: the list grows; "all runs" takes its place
      const runs =
        b.state !== "approved" || !b.runId || before === null
          ? null
          : [...new Set([...(before ?? []), b.runId])];
      change.says(
        `${part.mpn} ${b.state === "proposed" ? "proposed" : b.state} in the place of ${b.original.replace(/^number /, "").replaceAll("|", " ")}${b.state === "approved" && runs ? " for this run" : ""}`,
      );
      return { id: await upsertAlternate(tx, { ...b, runs, person, at: today() }) };
    });
  });
  router.get("/api/lots", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyLots);
  });
  router.get("/api/lots/:id/moves", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const { qty } = await lotAsItIs(tx, ctx.params.id!);
      return movesOf(await manyLotChanges(tx, ctx.params.id!), qty);
    });
  });
  router.get("/api/low", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => lowOf(await manyKept(tx)));
  });
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
  return router;
}
