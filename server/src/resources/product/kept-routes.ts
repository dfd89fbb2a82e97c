import { createHash } from "node:crypto";
import type Router from "@koa/router";
import { boardPictureBody } from "@kobbin/contract";
import { AppError, type BoardDiff, shapes } from "@kobbin/core";
import { readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { maybeDifference, maybePicture, putDifference, putPicture } from "./kept-queries.ts";
import { manyBoardFiles, oneBoard } from "./queries.ts";

const KEY = /^[0-9a-f]{64}$/;
/** How a PNG begins: its mark, then its header with width and height. */
const PNG = Buffer.from("89504e470d0a1a0a0000000d49484452", "hex");
/** No small picture has more pixels along a side; a page that opens one is not asked for memory without end. */
const MOST_PIXELS = 2048;

/** Whether bytes begin as a PNG that is small on the screen as well. */
function isSmallPng(bytes: Buffer): boolean {
  if (bytes.length < 33 || !bytes.subarray(0, PNG.length).equals(PNG)) return false;
  const sides = [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
  return sides.every((px) => px >= 1 && px <= MOST_PIXELS);
}

/** What is worked out of a board's files once and kept: pages ask for it before they read the files themselves. */
export function keptRoutes(router: Router, deps: Deps): void {
  const { pool } = deps;
  // nothing kept is no error: the page paints it, and brings it
  router.get("/api/boards/:id/picture", async (ctx) => {
    const key = String(ctx.query.key ?? "");
    const found = await readWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      await oneBoard(tx, ctx.params.id!);
      return KEY.test(key) ? await maybePicture(tx, ctx.params.id!, key) : undefined;
    });
    // who may see it is asked each time
    ctx.set("Cache-Control", "private, no-cache");
    if (!found) {
      ctx.status = 204;
      return;
    }
    ctx.set({ ETag: `"${key}"`, "X-Box": JSON.stringify(found.box) });
    ctx.type = "image/png";
    ctx.body = found.png;
    if (ctx.fresh) ctx.status = 304;
  });
  router.put("/api/boards/:id/picture", async (ctx) => {
    const { key, box, png, under } = bodyOf(ctx, boardPictureBody);
    const bytes = Buffer.from(png, "base64");
    if (!isSmallPng(bytes))
      throw new AppError("OUT_OF_RANGE", "That is no small picture.", "Reload the page; it paints it again.");
    // it changes nothing anybody decided, so it is in no history
    await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      await oneBoard(tx, ctx.params.id!);
      await putPicture(tx, ctx.params.id!, key, { box, png: bytes }, under);
    });
    ctx.status = 204;
  });

  router.get("/api/boards/:id/difference", async (ctx) => {
    const against = String(ctx.query.against ?? "");
    ctx.set("Cache-Control", "private, no-cache");
    await readWorkshop(pool, signed(ctx).workshopId, (tx) => oneBoard(tx, ctx.params.id!));
    if (shapes.UUID.test(against))
      ctx.body = await differenceOf(deps, signed(ctx).workshopId, ctx.params.id!, against);
    else ctx.status = 204;
  });
}

/** Differences that are being worked out: asked for twice at once, it is done once. */
const underWay = new Map<string, Promise<BoardDiff>>();

async function differenceOf(
  { pool, compute }: Deps,
  workshopId: string,
  boardId: string,
  againstId: string,
): Promise<BoardDiff> {
  const { readOf, known } = await readWorkshop(pool, workshopId, async (tx) => {
    const [now, against] = [await oneBoard(tx, boardId), await oneBoard(tx, againstId)];
    const readOf = createHash("sha256")
      .update(JSON.stringify([now.corrections, against.corrections]))
      .digest("hex");
    return { readOf, known: await maybeDifference(tx, boardId, againstId, readOf) };
  });
  if (known) return known;
  const key = [workshopId, boardId, againstId, readOf].join(" ");
  const before = underWay.get(key);
  if (before) return before;
  const work = (async () => {
    const boards = await readWorkshop(pool, workshopId, async (tx) => {
      const read = async (id: string) => ({
        files: await manyBoardFiles(tx, id),
        corrections: (await oneBoard(tx, id)).corrections,
      });
      return [await read(boardId), await read(againstId)] as const;
    });
    const { difference } = await compute.run({ kind: "difference", boards }, workshopId);
    await withWorkshop(pool, workshopId, (tx) => putDifference(tx, boardId, againstId, readOf, difference));
    return difference;
  })().finally(() => underWay.delete(key));
  underWay.set(key, work);
  return work;
}
