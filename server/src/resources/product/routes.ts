import Router from "@koa/router";
import {
  type BenchAnswer,
  boardBody,
  correctionsBody,
  productForm,
  type RevisionAnswer,
} from "@kobbin/contract";
import { AppError, type Corrections, slug } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { sendInTurn } from "../../middleware/heavy.ts";
import { signed } from "../../middleware/session.ts";
import { zipOf } from "../../zip.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { manyWaiting } from "../record/index.ts";
import { manyBoardNames, manyBoards, manyLines, manyRuns } from "../run/index.ts";
import { addBoard, addRevision, correctBoard, refuseSameName } from "./add.ts";
import { keptRoutes } from "./kept-routes.ts";
import {
  deleteBoard,
  lockRevision,
  manyBoardFiles,
  manyKnownBoards,
  manyProducts,
  oneBoard,
  oneRevision,
  readMemory,
} from "./queries.ts";
import { bytesOf, withUpload } from "./upload.ts";

/** @throws AppError DOCUMENT_INVALID where what came with an upload are no corrections */
function sentCorrections(fields: ReadonlyMap<string, string>): Corrections {
  try {
    return correctionsBody.validateSync(JSON.parse(fields.get("corrections") ?? "{}"), {
      stripUnknown: true,
    }) as Corrections;
  } catch {
    throw new AppError(
      "DOCUMENT_INVALID",
      "The corrections are not valid.",
      "Reload the page and drop the files again.",
    );
  }
}

/** The bench, products and their boards. */
export function productRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/bench", async (ctx) => {
    const [products, runs, waiting] = await readWorkshop(pool, signed(ctx).workshopId, (tx) =>
      Promise.all([manyProducts(tx), manyRuns(tx), manyWaiting(tx, deps.today())]),
    );
    const withWaits = runs.map((r) => {
      const waits = waiting.get(r.id);
      return waits ? { ...r, waits } : r;
    });
    ctx.body = { products, runs: withWaits } satisfies BenchAnswer;
  });

  router.get("/api/corrections", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, readMemory);
  });

  router.get("/api/boards/known", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyKnownBoards);
  });

  router.post("/api/products", async (ctx) => {
    const done = await withUpload(ctx, async (upload) => {
      const { productId, name, revision } = productForm.validateSync(
        { productId: undefined, ...Object.fromEntries(upload.fields) },
        { abortEarly: false, stripUnknown: true },
      );
      if (!productId && !name)
        throw new AppError("OUT_OF_RANGE", "The product has no name.", "Give it a name and keep it again.");
      return addRevision(deps, byOf(ctx), {
        ...(productId ? { productId } : { productName: name! }),
        label: revision || "A",
        files: await bytesOf(upload),
        corrections: sentCorrections(upload.fields),
      });
    });
    if (done.changeId) ctx.set("X-Change", done.changeId);
    ctx.body = done.value;
    ctx.status = 201;
  });

  router.get("/api/revisions/:id", async (ctx) => {
    const answer: RevisionAnswer = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const revision = await oneRevision(tx, ctx.params.id!);
      const boards = await manyBoards(tx, revision.id);
      return {
        ...revision,
        boards: boards.map(({ placements: _, ...b }) => b),
        lines: await manyLines(tx, revision.id),
      };
    });
    ctx.body = answer;
  });

  router.post("/api/revisions/:id/boards", async (ctx) => {
    const done = await withUpload(ctx, async (upload) => {
      const { name, perProduct } = boardBody.validateSync(
        { name: upload.fields.get("name") ?? "", perProduct: Number(upload.fields.get("perProduct") ?? 1) },
        { abortEarly: false },
      );
      return addBoard(deps, byOf(ctx), {
        revisionId: ctx.params.id!,
        name: name!,
        perProduct: perProduct ?? 1,
        files: await bytesOf(upload),
        corrections: sentCorrections(upload.fields),
      });
    });
    if (done.changeId) ctx.set("X-Change", done.changeId);
    ctx.body = done.value;
    ctx.status = 201;
  });

  router.patch("/api/boards/:id", async (ctx) => {
    const b = bodyOf(ctx, boardBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const board = await oneBoard(tx, id);
      change.about({ revisionId: board.revisionId });
      await lockRevision(tx, board.revisionId);
      if (b.name !== undefined) await refuseSameName(tx, board.revisionId, b.name, id);
      const columns = givenColumns({ name: b.name, per_product: b.perProduct });
      await mergeRow(
        tx,
        "board",
        { id },
        b.version ?? board.version,
        () => columns,
        board.name,
        byOf(ctx).page,
      );
    });
    ctx.status = 204;
  });

  router.delete("/api/boards/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const board = await oneBoard(tx, id);
      await lockRevision(tx, board.revisionId);
      if ((await manyBoardNames(tx, board.revisionId)).length === 1)
        throw new AppError(
          "NOT_ALLOWED",
          `${board.name} is the product's only board; it was not removed.`,
          "Add the other board first, or start a new revision.",
        );
      change.about({ revisionId: board.revisionId });
      change.says(`the board ${board.name} was removed with its lines`);
      await deleteBoard(tx, id);
    });
    ctx.status = 204;
  });

  router.post("/api/boards/:id/corrections", async (ctx) => {
    const wanted = bodyOf(ctx, correctionsBody) as Corrections;
    const done = await correctBoard(deps, byOf(ctx), ctx.params.id!, wanted);
    if (done.changeId) ctx.set("X-Change", done.changeId);
    ctx.status = 204;
  });

  keptRoutes(router, deps);
  // the files as they were dropped: one archive as it is, loose files packed together
  router.get("/api/boards/:id/files", async (ctx) => {
    await sendInTurn(ctx);
    const { files, name, corrections } = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => ({
      files: await manyBoardFiles(tx, ctx.params.id!),
      ...(await oneBoard(tx, ctx.params.id!)),
    }));
    const single = files.length === 1 && /\.zip$/i.test(files[0]!.path) ? files[0]! : undefined;
    const bytes = single ? single.bytes : await zipOf(files, new Date("2026-01-01T00:00:00Z"));
    ctx.set("Content-Type", "application/zip");
    ctx.set("Content-Disposition", `attachment; filename="${slug(name)}.zip"`);
    ctx.set("X-Corrections", encodeURIComponent(JSON.stringify(corrections)));
    ctx.set("Cache-Control", "private, no-cache");
    ctx.body = Buffer.from(bytes);
  });
  return router;
}
