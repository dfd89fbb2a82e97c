import Router from "@koa/router";
import { AppError, slug } from "@kobbin/core";
import { sha256Hex } from "@kobbin/formats";
import { one, readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { insertAudit } from "../people/queries.ts";
import { insertBlob, manyBoardFiles, oneBoard } from "../product/queries.ts";
import { buildDocument, manyBoards, oneRun } from "../run/index.ts";

/** Release a run: freeze its document, build its order package, keep both. */
export function releaseRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.post("/api/runs/:id/release", async (ctx) => {
    const { workshopId } = signed(ctx);
    const id = ctx.params.id!;
    const { document, boards, version } = await withWorkshop(pool, workshopId, async (tx) => {
      const run = await oneRun(tx, id);
      if (run.state === "released")
        throw new AppError(
          "NOT_ALLOWED",
          "The run is released already.",
          "Download its package, or start a new run.",
        );
      const list = await manyBoards(tx, run.revisionId);
      const boards = [];
      for (const b of list)
        boards.push({
          name: b.name,
          files: await manyBoardFiles(tx, b.id),
          corrections: (await oneBoard(tx, b.id)).corrections,
        });
      return { ...(await buildDocument(tx, run, today())), boards, version: run.version };
    });
    const createdAt = new Date().toISOString();
    const built = await deps.compute.run({ kind: "package", document, boards, createdAt });
    const sha256 = sha256Hex(built.zip);
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ runId: id });
      change.isFinal();
      await insertBlob(tx, sha256, built.zip);
      // only the state that was packed may be released
      const { rowCount } = await tx.query(
        "update run as r set state = 'released' from fork as f where r.id = $1 and f.run_id = r.id and f.name = 'first' and f.version = $2 and r.state = 'open'",
        [id, version],
      );
      if (rowCount !== 1)
        throw new AppError(
          "STALE_VERSION",
          "The run was changed while it was being packed; it was not released.",
          "Look at the change and release again.",
        );
      await tx.query(
        "insert into release (workshop_id, run_id, document, manifest, sha256, released_at) values (current_workshop(), $1, $2, $3, $4, $5)",
        [id, JSON.stringify(document), JSON.stringify(built.manifest), sha256, createdAt],
      );
      await insertAudit(tx, {
        workshopId,
        person: signed(ctx).person,
        what: `released ${document.product} ${document.name}`,
        address: ctx.ip,
      });
    });
    ctx.status = 201;
    ctx.body = { sha256, manifest: built.manifest };
  });

  router.get("/api/runs/:id/package", async (ctx) => {
    const found = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const run = await oneRun(tx, ctx.params.id!);
      const { rows } = await tx.query<{ bytes: Buffer }>(
        "select b.bytes from release as r join blob as b on b.workshop_id = r.workshop_id and b.sha256 = r.sha256 where r.run_id = $1 order by r.released_at desc limit 1",
        [run.id],
      );
      return { run, bytes: one(rows, "package").bytes };
    });
    ctx.set("Content-Type", "application/zip");
    ctx.set(
      "Content-Disposition",
      `attachment; filename="${slug(`${found.run.product} ${found.run.revision} ${found.run.name}`)}.zip"`,
    );
    ctx.body = found.bytes;
  });

  router.get("/api/runs/:id/manifest", async (ctx) => {
    ctx.body = await readWorkshop(
      pool,
      signed(ctx).workshopId,
      async (tx) =>
        one(
          (
            await tx.query<{ manifest: unknown }>(
              "select manifest from release where run_id = $1 order by released_at desc limit 1",
              [ctx.params.id],
            )
          ).rows,
          "package",
        ).manifest,
    );
  });

  router.get("/api/runs/:id/document", async (ctx) => {
    const { document, run } = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const run = await oneRun(tx, ctx.params.id!);
      return { run, ...(await buildDocument(tx, run, today())) };
    });
    ctx.set("Content-Disposition", `attachment; filename="${slug(`${run.product} ${run.name}`)}.run.json"`);
    ctx.body = document;
  });
  return router;
}
