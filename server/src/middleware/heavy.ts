import type { Context } from "koa";
import { createShare } from "../db/share.ts";
import { signed } from "./session.ts";

/** Without taking a byte of a large answer for so long, a reader is let go. */
const STALLED_MS = 30_000;

/** Large answers under way in this process: whole archives lie in memory while they are sent. */
const sending = createShare({ inAll: 8, perShop: 4, perPerson: 3, waitMs: 10_000, mostWaiting: 20 });
/** Uploads that are here whole and are being worked on: their bytes lie in memory then. */
const working = createShare({ inAll: 4, perShop: 2, perPerson: 2, waitMs: 60_000, mostWaiting: 10 });

/**
 * Keeps a turn for a large answer until its last byte is out, or its reader is gone or stands still.
 * @throws AppError BUSY where the turn does not come
 */
export async function sendInTurn(ctx: Context): Promise<void> {
  const release = await sending.take(signed(ctx).workshopId);
  const { socket } = ctx.req;
  const stalled = () => socket.destroy();
  socket.setTimeout(STALLED_MS, stalled);
  ctx.res.once("close", () => {
    socket.removeListener("timeout", stalled);
    socket.setTimeout(0);
    release();
  });
}

/** Does work on an upload in its turn. */
export async function workInTurn<T>(shop: string, work: () => Promise<T>): Promise<T> {
  const release = await working.take(shop);
  try {
    return await work();
  } finally {
    release();
  }
}
