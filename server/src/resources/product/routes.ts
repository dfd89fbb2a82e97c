import Router from "@koa/router";
import { type BenchAnswer, correctionsBody, type RevisionAnswer } from "@kobbin/contract";
import { AppError, type Corrections, slug } from "@kobbin/core";
import { packZip } from "@kobbin/formats";
import { one, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { manyBoards, manyLines, manyRuns } from "../run/index.ts";
import { addRevision, correctBoard } from "./add.ts";
import { manyBoardFiles, manyProducts, oneBoard, readMemory } from "./queries.ts";
import { readUpload } from "./upload.ts";

/** The bench, products and their boards. */
export function productRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/bench", async (ctx) => {
    const answer: BenchAnswer = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => ({
      products: await manyProducts(tx),
      runs: await manyRuns(tx),
    }));
    ctx.body = answer;
  });

  router.get("/api/corrections", async (ctx) => {
    ctx.body = await withWorkshop(pool, signed(ctx).workshopId, readMemory);
  });

  router.post("/api/products", async (ctx) => {
    const { files, fields } = await readUpload(ctx);
    const name = (fields.name ?? "").trim();
    const label = (fields.revision ?? "").trim() || "A";
    if (!fields.productId && name === "")
      throw new AppError("OUT_OF_RANGE", "The product has no name.", "Give it a name and keep it again.");
    let corrections: Corrections;
    try {
      corrections = correctionsBody.validateSync(JSON.parse(fields.corrections ?? "{}"), {
        stripUnknown: true,
      }) as Corrections;
    } catch {
      throw new AppError(
        "DOCUMENT_INVALID",
        "The corrections are not valid.",
        "Reload the page and drop the files again.",
      );
    }
    const done = await addRevision(deps, byOf(ctx), {
      ...(fields.productId ? { productId: fields.productId } : { productName: name.slice(0, 120) }),
      label: label.slice(0, 40),
      files,
      corrections,
    });
    if (done.changeId) ctx.set("X-Change", done.changeId);
    ctx.body = done.value;
    ctx.status = 201;
  });

  router.get("/api/revisions/:id", async (ctx) => {
    const answer: RevisionAnswer = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const { rows } = await tx.query<{ id: string; label: string; productId: string; product: string }>(
        `select v.id, v.label, p.id as "productId", p.name as product from revision as v join product as p on p.id = v.product_id where v.id = $1`,
        [ctx.params.id],
      );
      const revision = one(rows, "revision");
      const board = one(await manyBoards(tx, revision.id), "board");
      return {
        ...revision,
        board: { id: board.id, name: board.name, measure: board.measure },
        lines: await manyLines(tx, revision.id),
      };
    });
    ctx.body = answer;
  });

  router.post("/api/boards/:id/corrections", async (ctx) => {
    const wanted = bodyOf(ctx, correctionsBody) as Corrections;
    const done = await correctBoard(deps, byOf(ctx), ctx.params.id!, wanted);
    if (done.changeId) ctx.set("X-Change", done.changeId);
    ctx.status = 204;
  });

  // the files as they were dropped: one archive as it is, loose files packed together
  router.get("/api/boards/:id/files", async (ctx) => {
    const { files, name, corrections } = await withWorkshop(pool, signed(ctx).workshopId, async (tx) => ({
      files: await manyBoardFiles(tx, ctx.params.id!),
      ...(await oneBoard(tx, ctx.params.id!)),
    }));
    const single = files.length === 1 && /\.zip$/i.test(files[0]!.path) ? files[0]! : undefined;
    const bytes = single ? single.bytes : packZip(files, new Date("2026-01-01T00:00:00Z"));
    ctx.set("Content-Type", "application/zip");
    ctx.set("Content-Disposition", `attachment; filename="${slug(name)}.zip"`);
    ctx.set("X-Corrections", encodeURIComponent(JSON.stringify(corrections)));
    ctx.set("Cache-Control", "private, no-cache");
    ctx.body = Buffer.from(bytes);
  });
  return router;
}
