import Router from "@koa/router";
import { alternateBody, newPart, newPartBody, partBody } from "@kobbin/contract";
import { PART_FIELDS } from "@kobbin/core";
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
import { shelfRoutes } from "./shelf-routes.ts";

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
  shelfRoutes(router, deps);
  return router;
}
