import { PassThrough } from "node:stream";
import Router from "@koa/router";
import { type LiveMessage, presenceBody } from "@kobbin/contract";
import { AppError, shapes } from "@kobbin/core";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { tell } from "../../history/change.ts";
import { COOKIE, hashToken, signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { deletePresence, isStillIn, manyPresent, upsertPresence } from "./queries.ts";

const BEAT_MS = 15_000;
/** Pages one person may have open at a time in this process. */
const MOST_OPEN = 40;
/** Bytes a page may leave unread. */
const MOST_UNREAD = 512 * 1024;

/** Server-sent events: changes of others, new figures, who is where. */
export function liveRoutes(deps: Deps): Router {
  const { pool, hub } = deps;
  const router = new Router();
  const open = new Map<string, number>();
  router.get("/api/live", async (ctx) => {
    const { workshopId, accountId, person } = signed(ctx);
    const already = open.get(accountId) ?? 0;
    if (already >= MOST_OPEN)
      throw new AppError(
        "TOO_MANY_TRIES",
        `There are ${MOST_OPEN} pages of yours open already.`,
        "Close some; this page works, but shows what others do only when it is loaded again.",
      );
    open.set(accountId, already + 1);
    const asked = String(ctx.query.page ?? "");
    const page = shapes.UUID.test(asked) ? asked : undefined;
    const tokenHash = hashToken(ctx.cookies.get(COOKIE)!);
    ctx.set({ "Content-Type": "text/event-stream", "Cache-Control": "no-store", "X-Accel-Buffering": "no" });
    const stream = new PassThrough();
    ctx.body = stream;
    ctx.req.socket.setTimeout(0);
    const send = (message: LiveMessage) => {
      // who does not read is let go: the page comes back and looks for itself
      if (stream.writableLength + stream.readableLength > MOST_UNREAD) stream.destroy();
      else stream.write(`data: ${JSON.stringify(message)}\n\n`);
    };
    const sendHere = async () => {
      const here = await withWorkshop(pool, workshopId, manyPresent).catch(() => []);
      send({ kind: "presence", here: here.filter((p) => p.page !== page) });
    };
    const unsubscribe = hub.subscribe((event) => {
      if (event.kind === "resync") send({ kind: "resync" });
      else if (event.kind === "left") {
        // who is taken out of the shop hears nothing more of it
        if (event.workshop === workshopId && event.account === accountId) stream.end();
      } else if (event.workshop === workshopId) {
        if (event.kind === "presence") void sendHere();
        // how far a page's own work is, is told to that page
        else if (event.kind !== "restoring" || event.page === page) {
          const { workshop: _, ...message } = event;
          send(message as unknown as LiveMessage);
        }
      }
    });
    const arrive = async () => {
      if (page)
        await withWorkshop(pool, workshopId, async (tx) => {
          // keeps the place the page told meanwhile
          const isNew = await upsertPresence(tx, { page, accountId, person, place: undefined });
          if (isNew) await tell(tx, { kind: "presence", workshop: workshopId });
        }).catch(() => undefined);
    };
    let isBeating = false;
    const beat = setInterval(async () => {
      // one that is still waiting for the database is enough
      if (isBeating) return;
      isBeating = true;
      try {
        // a session that was ended elsewhere, or is in another shop now, ends here too; so does a membership
        if (!(await isStillIn(pool, tokenHash, workshopId))) return stream.end();
        stream.write(": here\n\n");
        await arrive();
      } catch {
        // the database is away for a moment; the next beat tries again
      } finally {
        isBeating = false;
      }
    }, deps.beatMs ?? BEAT_MS);
    const leave = () => {
      clearInterval(beat);
      unsubscribe();
      const left = open.get(accountId)! - 1;
      if (left > 0) open.set(accountId, left);
      else open.delete(accountId);
      deps.live.delete(stream);
      if (page)
        void withWorkshop(pool, workshopId, async (tx) => {
          await deletePresence(tx, page);
          await tell(tx, { kind: "presence", workshop: workshopId });
        }).catch(() => undefined);
    };
    stream.on("close", leave);
    ctx.req.on("close", () => stream.destroy());
    deps.live.add(stream);
    stream.write(`retry: 1000\n\n`);
    await arrive();
    await sendHere();
  });

  router.put("/api/presence", async (ctx) => {
    const { page, place } = bodyOf(ctx, presenceBody);
    const { workshopId, accountId, person } = signed(ctx);
    await withWorkshop(pool, workshopId, async (tx) => {
      await upsertPresence(tx, { page, accountId, person, place });
      await tell(tx, { kind: "presence", workshop: workshopId });
    });
    ctx.status = 204;
  });
  return router;
}
