import { createHash } from "node:crypto";
import Router from "@koa/router";
import { AppError, slug } from "@kobbin/core";
import { unpackZip } from "@kobbin/formats";
import { lockRun } from "../../db/lock.ts";
import type { Tx } from "../../db/pool.ts";
import { one, readWorkshop, withMoment } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { client } from "../../middleware/client.ts";
import { sendInTurn } from "../../middleware/heavy.ts";
import { signed } from "../../middleware/session.ts";
import { insertAudit } from "../people/index.ts";
import { insertBlob, manyBoardFiles, refuseBeyondQuota } from "../product/index.ts";
import { buildDocument, oneRun, type StoredRun } from "../run/index.ts";
import {
  begunOf,
  deleteRelease,
  insertRelease,
  manyPackedBoards,
  oneManifest,
  onePackage,
} from "./queries.ts";

/** Release a run: freeze its document, build its order package, keep both. */
export function releaseRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.post("/api/runs/:id/release", async (ctx) => {
    const { workshopId } = signed(ctx);
    const id = ctx.params.id!;
    const now = today();
    const seen = await withMoment(pool, workshopId, async (tx) => {
      const run = await oneRun(tx, id);
      if (run.state === "released") throw releasedAlready();
      const what = await whatIsPacked(tx, run, now);
      const boards = [];
      for (const b of what.boards)
        boards.push({ name: b.name, files: await manyBoardFiles(tx, b.id), corrections: b.corrections });
      return { document: what.document, boards, print: fingerprint(what) };
    });
    const { document } = seen;
    const createdAt = (deps.now?.() ?? new Date()).toISOString();
    const built = await deps.compute.run(
      { kind: "package", document, boards: seen.boards, createdAt },
      workshopId,
    );
    const sha256 = createHash("sha256").update(built.zip).digest("hex");
    ctx.body = await changeOf(
      ctx,
      deps,
      async (tx, change) => {
        change.about({ runId: id });
        change.isFinal();
        // only what was packed may be released: everything it was packed from is looked at once more, from one moment
        const run = await heldRun(tx, id);
        if (run.state === "released") throw releasedAlready();
        if (fingerprint(await whatIsPacked(tx, run, now)) !== seen.print)
          throw new AppError(
            "STALE_VERSION",
            "Something that goes into the package was changed while it was being packed; it was not released.",
            "Look at the change and release again.",
          );
        await refuseBeyondQuota(tx, deps.config.shopQuotaBytes, built.zip.length);
        await insertBlob(tx, sha256, built.zip);
        await insertRelease(tx, id, { document, manifest: built.manifest, sha256, createdAt });
        await insertAudit(tx, {
          workshopId,
          person: signed(ctx).person,
          what: `released ${document.product} ${document.name}`,
          address: client(ctx).address,
        });
        return { sha256, manifest: built.manifest };
      },
      true,
    );
    ctx.status = 201;
  });

  router.delete("/api/runs/:id/release", async (ctx) => {
    const { workshopId, person } = signed(ctx);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ runId: id });
      change.isFinal();
      const run = await heldRun(tx, id);
      if (run.state !== "released")
        throw new AppError("NOT_ALLOWED", "The run is not released.", "There is nothing to take back.");
      const begun = await begunOf(tx, id);
      if (begun.length > 0)
        throw new AppError(
          "NOT_ALLOWED",
          `The release cannot be taken back any more: ${begun.join(", ")}.`,
          "Take that back first, or begin a new run with what has changed.",
        );
      const sha256 = await deleteRelease(tx, id);
      await insertAudit(tx, {
        workshopId,
        person,
        what: `took back the release of ${run.product} ${run.name}, package ${sha256.slice(0, 12)}`,
        address: client(ctx).address,
      });
    });
    ctx.status = 204;
  });

  router.get("/api/runs/:id/package", async (ctx) => {
    await sendInTurn(ctx);
    const found = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const run = await oneRun(tx, ctx.params.id!);
      return { run, bytes: await onePackage(tx, run.id) };
    });
    ctx.set("Content-Type", "application/zip");
    ctx.set(
      "Content-Disposition",
      `attachment; filename="${slug(`${found.run.product} ${found.run.revision} ${found.run.name}`)}.zip"`,
    );
    ctx.body = found.bytes;
  });

  router.get("/api/runs/:id/manifest", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, (tx) => oneManifest(tx, ctx.params.id!));
  });

  router.get("/api/runs/:id/document", async (ctx) => {
    const { body, run } = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const run = await oneRun(tx, ctx.params.id!);
      const zip = run.state === "released" ? await onePackage(tx, run.id) : undefined;
      return { run, body: zip ? runOfPackage(zip) : (await buildDocument(tx, run, today())).document };
    });
    ctx.set("Content-Disposition", `attachment; filename="${slug(`${run.product} ${run.name}`)}.run.json"`);
    ctx.type = "application/json";
    ctx.body = body;
  });
  return router;
}

/** A released run as it was released, byte for byte: what went into its package. */
const runOfPackage = (zip: Uint8Array): Buffer =>
  Buffer.from(
    one(
      unpackZip(zip).filter((f) => f.path === "run.json"),
      "run",
    ).bytes,
  );

const releasedAlready = () =>
  new AppError("NOT_ALLOWED", "The run is released already.", "Download its package, or start a new run.");

/** Everything a package is made of: the whole document, and of each board how its files are read, and their hashes. */
async function whatIsPacked(tx: Tx, run: StoredRun, today: string) {
  const { document, guestIds } = await buildDocument(tx, run, today);
  return { document, boards: await manyPackedBoards(tx, run.revisionId, guestIds) };
}

/** What must not change while it is packed. Which other runs count on the same lots is said of them, and decides nothing. */
function fingerprint(what: Awaited<ReturnType<typeof whatIsPacked>>): string {
  const { lots, ...document } = what.document;
  const own = { ...what, document, lots: lots?.map(({ alsoIn: _, ...lot }) => lot) };
  return createHash("sha256").update(JSON.stringify(own)).digest("hex");
}

/** The run, held until the transaction ends. */
async function heldRun(tx: Tx, id: string): Promise<StoredRun> {
  await lockRun(tx, id);
  return oneRun(tx, id);
}
