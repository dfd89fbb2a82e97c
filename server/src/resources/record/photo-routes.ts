import { createHash } from "node:crypto";
import Router from "@koa/router";
import { type PhotoBody, photoBody, photoChangeBody } from "@kobbin/contract";
import { AppError, type RunDocument } from "@kobbin/core";
import { plainJpeg } from "@kobbin/formats";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { insertBlob, refuseBeyondQuota } from "../product/index.ts";
import { boardNamed, itemOf, partyOf } from "./items.ts";
import { deletePhoto, insertPhoto, onePhotoFile, unitOfDefect, updatePhoto } from "./photo-queries.ts";
import { released } from "./released.ts";

/** Photos of what came, of boards and of what is wrong with them. */
export function photoRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/photos", async (ctx) => {
    const { jpeg, ...b } = bodyOf(ctx, photoBody);
    const id = ctx.params.id!;
    const photo = plainJpeg(new Uint8Array(Buffer.from(jpeg, "base64")));
    if ("wrong" in photo) throw new AppError("OUT_OF_RANGE", photo.wrong, photo.hint);
    const sha256 = createHash("sha256").update(photo.bytes).digest("hex");
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      const { unit, words } = await shownOf(tx, id, document, b);
      change.about({ runId: id });
      change.says(`photo of ${words}${b.note ? `: ${b.note}` : ""}`);
      await refuseBeyondQuota(tx, deps.config.shopQuotaBytes, photo.bytes.length);
      await insertBlob(tx, sha256, photo.bytes);
      const { widthPx, heightPx } = photo;
      return {
        id: await insertPhoto(tx, id, { ...b, unit, widthPx, heightPx, sha256, person: signed(ctx).person }),
      };
    });
    ctx.status = 201;
  });
  router.patch("/api/photos/:id", async (ctx) => {
    const { note } = bodyOf(ctx, photoChangeBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId } = await updatePhoto(tx, ctx.params.id!, note);
      change.about({ runId });
      change.says(note ? `a photo shows ${note}` : "what a photo shows is not said any more");
    });
    ctx.status = 204;
  });
  router.delete("/api/photos/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, unit } = await deletePhoto(tx, ctx.params.id!);
      change.about({ runId });
      change.says(`a photo ${unit === null ? "of what came" : `of board ${unit}`} removed`);
    });
    ctx.status = 204;
  });
  router.get("/api/photos/:id", async (ctx) => {
    const { sha256, bytes } = await readWorkshop(deps.pool, signed(ctx).workshopId, (tx) =>
      onePhotoFile(tx, ctx.params.id!),
    );
    // a photo never changes; who may see it is asked each time
    ctx.set({ "Cache-Control": "private, no-cache", ETag: `"${sha256}"` });
    ctx.type = "image/jpeg";
    ctx.body = bytes;
    if (ctx.fresh) ctx.status = 304;
  });
  return router;
}

/** What a photo shows, in words, and on which board that is. @throws AppError OUT_OF_RANGE, NOT_FOUND */
async function shownOf(
  tx: Tx,
  runId: string,
  document: RunDocument,
  b: Pick<PhotoBody, "order" | "item" | "spot" | "unit" | "defect">,
): Promise<{ unit?: number; words: string }> {
  const isOfOrder = b.order !== undefined && b.item !== undefined;
  if (b.defect !== undefined && !isOfOrder) {
    const unit = await unitOfDefect(tx, runId, b.defect);
    if ((b.unit === undefined || b.unit === unit) && b.spot === undefined)
      return { unit, words: `what is wrong with board ${unit}` };
  } else if (isOfOrder !== (b.unit !== undefined) && b.defect === undefined) {
    // a spot is of a board: the order has it among its items, which is asked here
    if (isOfOrder && b.spot !== undefined) boardNamed(document, b.item!);
    if (isOfOrder)
      return { words: `${itemOf(document, b.order!, b.item!).label} of ${partyOf(document, b.order!).name}` };
    if (b.order === undefined && b.item === undefined && b.spot === undefined)
      return { unit: b.unit!, words: `board ${b.unit}` };
  }
  throw new AppError(
    "OUT_OF_RANGE",
    "A photo shows either what came of an order, or one board.",
    "Take it where it belongs: at a line of a parcel, at a board, or at a fault.",
  );
}
