import { PassThrough } from "node:stream";
import Router from "@koa/router";
import { AppError, slug } from "@kobbin/core";
import { openBackup, restoreBackup } from "../../backup/read.ts";
import { writeBackup } from "../../backup/write.ts";
import { withTransaction, withWorkshop } from "../../db/tx.ts";
import { resetDemo } from "../../demo.ts";
import type { Deps } from "../../deps.ts";
import { COOKIE, hashToken, limitTries, signed } from "../../middleware/session.ts";
import { insertAudit, manyShopsOf } from "../people/queries.ts";
import { readUpload } from "../product/upload.ts";
import { oneShop } from "../shop/queries.ts";

/** The whole workshop out and in; the demo shop as it was. */
export function backupRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/backup", async (ctx) => {
    const { workshopId, person } = signed(ctx);
    const { name } = await withWorkshop(pool, workshopId, oneShop);
    await insertAudit(pool, { workshopId, person, what: "took a backup", address: ctx.ip });
    const now = new Date();
    const out = new PassThrough();
    ctx.set("Content-Type", "application/zip");
    ctx.set(
      "Content-Disposition",
      `attachment; filename="${slug(name)}-${now.toISOString().slice(0, 10)}.kobbin.zip"`,
    );
    ctx.body = out;
    void writeBackup(
      pool,
      workshopId,
      async (chunk) => {
        if (!out.write(chunk)) await new Promise((done) => out.once("drain", done).once("close", done));
        if (out.destroyed) throw new Error("the reader went away");
      },
      now,
    ).then(
      () => out.end(),
      // a broken stream, not a short archive that looks whole
      (error: Error) => out.destroy(error),
    );
    out.on("error", (error) => deps.log({ level: "warning", message: `backup broke off: ${error.message}` }));
  });

  router.post("/api/restore", async (ctx) => {
    const { accountId, person } = signed(ctx);
    await limitTries(pool, `restore ${accountId}`, 20);
    const { files } = await readUpload(ctx, 1024 * 1024 * 1024);
    if (!files[0])
      throw new AppError("ARCHIVE_INVALID", "No file was sent.", "Choose the backup and try again.");
    const backup = openBackup(files[0].bytes);
    const names = [];
    for (const { id } of await manyShopsOf(pool, accountId))
      names.push((await withWorkshop(pool, id, oneShop)).name);
    const { shop } = backup.manifest;
    const name = names.includes(shop) ? `${shop.slice(0, 90)}, restored ${deps.today()}` : shop;
    const shopId = await withTransaction(pool, async (tx) => {
      const id = await restoreBackup(tx, backup, name);
      await tx.query("insert into member (workshop_id, account_id, role) values ($1, $2, 'owner')", [
        id,
        accountId,
      ]);
      await insertAudit(tx, {
        workshopId: id,
        person,
        what: `restored a backup of ${backup.manifest.createdAt.slice(0, 10)}`,
        address: ctx.ip,
      });
      await tx.query("update session set workshop_id = $2 where token_hash = $1", [
        hashToken(ctx.cookies.get(COOKIE)!),
        id,
      ]);
      await tx.query("select pg_notify('kobbin', $1)", [JSON.stringify({ kind: "change", workshop: id })]);
      return id;
    });
    ctx.status = 201;
    ctx.body = { shopId, name };
  });

  router.post("/api/demo/reset", async (ctx) => {
    const { workshopId } = signed(ctx);
    const shop = await withWorkshop(pool, workshopId, oneShop);
    if (!shop.isDemo)
      throw new AppError(
        "NOT_ALLOWED",
        "Only the demo shop can be reset.",
        "Take back changes in the history instead.",
      );
    await limitTries(pool, `demo reset ${ctx.ip}`, 20);
    await resetDemo(deps, workshopId);
    ctx.status = 204;
  });
  return router;
}
