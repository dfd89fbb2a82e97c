import { createReadStream, createWriteStream } from "node:fs";
import { mkdtemp, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import Router from "@koa/router";
import { AppError, shapes, slug } from "@kobbin/core";
import type { Context } from "koa";
import { refuse } from "../../backup/format.ts";
import { type OnWay, onWay } from "../../backup/on-way.ts";
import { BACKUP_LIMITS, type OpenedBackup } from "../../backup/open.ts";
import { type OnRows, restoreBackup } from "../../backup/restore.ts";
import { writeBackup } from "../../backup/write.ts";
import type { Tx } from "../../db/pool.ts";
import { withWorkshop } from "../../db/tx.ts";
import { resetDemo } from "../../demo.ts";
import type { Deps } from "../../deps.ts";
import { tell } from "../../history/change.ts";
import { client, networkOf } from "../../middleware/client.ts";
import { sendInTurn } from "../../middleware/heavy.ts";
import { COOKIE, hashToken, limitTries, signed } from "../../middleware/session.ts";
import { insertAudit, insertMember, manyShopsOf, updateSessionShop } from "../people/index.ts";
import { refuseBeyondQuota, spoolFolder, withUpload } from "../product/index.ts";
import { buildDocument, oneRun } from "../run/index.ts";
import { oneShop } from "../shop/index.ts";
import { manyOpenRuns } from "./queries.ts";

/** The whole workshop out and in; the demo shop as it was. */
export function backupRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/backup", async (ctx) => {
    const { workshopId, accountId, person } = signed(ctx);
    await limitTries(pool, `backup ${accountId}`, 20);
    await sendInTurn(ctx);
    const { name } = await withWorkshop(pool, workshopId, oneShop);
    await insertAudit(pool, {
      workshopId,
      person,
      what: "took a backup",
      address: client(ctx).address,
    });
    const now = new Date();
    // onto the disk first: the database is read at its own pace, and a slow reader holds nothing of it
    const own = await mkdtemp(join(spoolFolder(), "b-"));
    ctx.res.once("close", () => void rm(own, { recursive: true, force: true }).catch(() => undefined));
    const path = join(own, "backup");
    const file = createWriteStream(path, { mode: 0o600 });
    const write = (chunk: Uint8Array) =>
      new Promise<void>((done, fail) => file.write(chunk, (e) => (e ? fail(e) : done())));
    await writeBackup(pool, workshopId, write, now);
    await new Promise<void>((done, fail) => file.end((e?: Error | null) => (e ? fail(e) : done())));
    await readBack(path, own, workshopId);
    ctx.set("Content-Type", "application/zip");
    ctx.set(
      "Content-Disposition",
      `attachment; filename="${slug(name)}-${now.toISOString().slice(0, 10)}.kobbin.zip"`,
    );
    ctx.length = (await stat(path)).size;
    ctx.body = createReadStream(path);
  });

  router.post("/api/restore", async (ctx) => {
    const { accountId, person, workshopId } = signed(ctx);
    await limitTries(pool, `restore ${accountId}`, 20);
    const done = await withUpload(
      ctx,
      async ({ files }) => {
        const [file] = files;
        if (!file)
          throw new AppError("ARCHIVE_INVALID", "No file was sent.", "Choose the backup and try again.");
        const own = await mkdtemp(`${file.file}-`);
        const { backup } = await deps.compute.run({ kind: "backup", archive: file.file, own }, workshopId);
        return restoreFor(backup, accountId, person, ctx);
      },
      { maxBytes: BACKUP_LIMITS.archiveBytes, maxFiles: 1 },
    );
    ctx.status = 201;
    ctx.body = done;
  });

  /** What is handed out as a backup was read as one: whoever needs it finds out now, not on the day it is needed. */
  async function readBack(archive: string, folder: string, shop: string): Promise<void> {
    const own = await mkdtemp(join(folder, "r-"));
    try {
      await deps.compute.run({ kind: "backup", archive, own }, shop);
    } catch (error) {
      if (!(error instanceof AppError) || error.code === "BUSY") throw error;
      throw new AppError(
        error.code,
        `The backup was made, and could not be read back: ${error.message}`,
        "Nothing of the shop is lost. Change what it names and take the backup again; until then copy the database itself.",
        { cause: error },
      );
    }
  }

  async function restoreFor(
    backup: OpenedBackup,
    accountId: string,
    person: string,
    ctx: Context,
  ): Promise<{ shopId: string; name: string }> {
    const names = [];
    for (const { id } of await manyShopsOf(pool, accountId))
      names.push((await withWorkshop(pool, id, oneShop)).name);
    const { shop } = backup.manifest;
    const name = names.includes(shop) ? `${shop.slice(0, 90)}, restored ${deps.today()}` : shop;
    const bytes = backup.files.reduce((n, f) => n + f.size, 0);
    const say = telling(ctx);
    const shopId = await withWorkshop(pool, backup.workshopId, async (tx) => {
      await refuseBeyondQuota(tx, deps.config.shopQuotaBytes, bytes);
      const id = await restoreBackup(tx, backup, name, (done, of) => say("rows", done, of));
      await refuseUncomputable(tx, id, (done, of) => say("runs", done, of));
      await insertMember(tx, id, accountId, "owner");
      await insertAudit(tx, {
        workshopId: id,
        person,
        what: `restored a backup of ${backup.manifest.createdAt.slice(0, 10)}`,
        address: client(ctx).address,
      });
      await updateSessionShop(tx, hashToken(ctx.cookies.get(COOKIE)!), id);
      await tell(tx, { kind: "change", workshop: id });
      return id;
    });
    return { shopId, name };
  }

  /** Says to the page that asked how far it is. */
  function telling(ctx: Context): OnWay {
    const { workshopId } = signed(ctx);
    const page = ctx.get("X-Page");
    return onWay((what, done, of) => {
      if (shapes.UUID.test(page))
        tell(pool, { kind: "restoring", workshop: workshopId, page, what, done, of }).catch(() => undefined);
    });
  }

  /** Rows may be right one by one and make no sense together: every open run is computed before anything stands. */
  async function refuseUncomputable(tx: Tx, shop: string, onRuns: OnRows): Promise<void> {
    const runs = await manyOpenRuns(tx);
    for (const [i, r] of runs.entries()) {
      onRuns(i, runs.length);
      const { document } = await buildDocument(tx, await oneRun(tx, r.id), deps.today());
      try {
        await deps.compute.run({ kind: "summary", document }, shop);
      } catch (error) {
        // what a person can mend on the page is no reason to refuse; what breaks the computation is
        if (error instanceof AppError && error.code !== "TOO_MUCH_WORK") continue;
        throw refuse(`its run “${r.name}” cannot be computed`);
      }
    }
  }

  router.post("/api/demo/reset", async (ctx) => {
    const { workshopId } = signed(ctx);
    const shop = await withWorkshop(pool, workshopId, oneShop);
    if (!shop.isDemo)
      throw new AppError(
        "NOT_ALLOWED",
        "Only the demo shop can be reset.",
        "Take back changes in the history instead.",
      );
    await limitTries(pool, `demo reset ${networkOf(client(ctx).address)}`, 20);
    await resetDemo(deps, workshopId);
    ctx.status = 204;
  });
  return router;
}
