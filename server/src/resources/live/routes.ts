import { PassThrough } from "node:stream";
import Router from "@koa/router";
import { type LiveMessage, type PresenceRow, presenceBody } from "@kobbin/contract";
import { AppError, shapes } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { tell } from "../../history/change.ts";
import { COOKIE, hashToken, signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";

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
        else {
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
    const beat = setInterval(async () => {
      try {
        // a session that was ended elsewhere, or is in another shop now, ends here too; so does a membership
        const { rows } = await pool.query(
          `select 1 from session as s join member as m on m.account_id = s.account_id and m.workshop_id = s.workshop_id
           where s.token_hash = $1 and s.expires_at > now() and s.workshop_id = $2`,
          [tokenHash, workshopId],
        );
        if (rows.length === 0) return stream.end();
        stream.write(": here\n\n");
        await arrive();
      } catch {
        // the database is away for a moment; the next beat tries again
      }
    }, deps.beatMs ?? BEAT_MS);
    const leave = () => {
      clearInterval(beat);
      unsubscribe();
      const left = (open.get(accountId) ?? 1) - 1;
      if (left > 0) open.set(accountId, left);
      else open.delete(accountId);
      deps.live.delete(stream);
      if (page)
        void withWorkshop(pool, workshopId, async (tx) => {
          await tx.query("delete from presence where page = $1", [page]);
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

/** Who is here now, by page; a page that has not been heard of for three beats is gone. */
async function manyPresent(tx: Tx): Promise<PresenceRow[]> {
  const { rows } = await tx.query<PresenceRow>(
    "select page, person, place from presence where seen_at > now() - interval '45 seconds' order by person, page",
  );
  return rows;
}

async function upsertPresence(
  tx: Tx,
  p: { page: string; accountId: string; person: string; place: string | undefined },
): Promise<boolean> {
  await tx.query("delete from presence where seen_at < now() - interval '2 minutes'");
  const { rows } = await tx.query<{ isNew: boolean }>(
    `insert into presence (page, workshop_id, account_id, person, place) values ($1, current_workshop(), $2, $3, coalesce($4, ''))
     on conflict (workshop_id, page) do update set place = coalesce($4, presence.place), seen_at = now() returning xmax = 0 as "isNew"`,
    [p.page, p.accountId, p.person, p.place ?? null],
  );
  return rows[0]?.isNew ?? false;
}
