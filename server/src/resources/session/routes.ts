import Router from "@koa/router";
import { newShopBody, type SessionAnswer, signInBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { hash, verify } from "@node-rs/argon2";
import type { Context } from "koa";
import { withTransaction, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { COOKIE, hashToken, limitTries, openSession } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { createShop, fetchStandIns } from "../shop/create.ts";
import { oneShop } from "../shop/queries.ts";

const isLoopback = (ctx: Context) => /^(127\.|::1$|::ffff:127\.)/.test(ctx.req.socket.remoteAddress ?? "");

/** Sign in, sign out, start a shop, enter the demo. */
export function sessionRoutes(deps: Deps): Router {
  const { pool, config } = deps;
  const router = new Router();
  const demoShop = async () =>
    config.hasDemo
      ? (
          await pool.query<{ workshopId: string; accountId: string }>(
            `select m.workshop_id as "workshopId", m.account_id as "accountId" from account as a join member as m on m.account_id = a.id where a.email = 'demo@ashglaze' limit 1`,
          )
        ).rows[0]
      : undefined;

  router.get("/api/session", async (ctx) => {
    const s = ctx.state.signed as { workshopId: string; person: string } | undefined;
    const demo = isLoopback(ctx) && (await demoShop()) !== undefined;
    const answer: SessionAnswer = s
      ? { shop: await withWorkshop(pool, s.workshopId, oneShop), person: s.person, demo }
      : { demo };
    ctx.body = answer;
  });

  router.post("/api/session", async (ctx) => {
    const { email, password } = bodyOf(ctx, signInBody);
    await limitTries(pool, `sign-in ${ctx.ip} ${email}`, 10);
    await limitTries(pool, `sign-in ${ctx.ip}`, 40);
    const { rows } = await pool.query<{ id: string; hash: string | null; workshopId: string }>(
      `select a.id, a.password_hash as "hash", m.workshop_id as "workshopId" from account as a join member as m on m.account_id = a.id where a.email = $1`,
      [email],
    );
    // the same work whether the name is known or not
    const stored =
      rows[0]?.hash ??
      "$argon2id$v=19$m=19456,t=2,p=1$c29tZXNhbHRzb21lc2FsdA$Xb1pVZkX6wL1k6m7J1yQmQ2Qw3o1r5m3m3H2v0w0XxU";
    const fits = await verify(stored, password).catch(() => false);
    if (!rows[0]?.hash || !fits)
      throw new AppError(
        "WRONG_PASSWORD",
        "Name and password do not fit together.",
        "Check both and try again.",
      );
    // who got in is no guesser: only failed tries add up
    await pool.query("delete from attempt where key = $1", [`sign-in ${ctx.ip} ${email}`]);
    await openSession(pool, ctx, rows[0].id, rows[0].workshopId);
    ctx.status = 204;
  });

  router.post("/api/session/demo", async (ctx) => {
    const demo = isLoopback(ctx) ? await demoShop() : undefined;
    if (!demo)
      throw new AppError(
        "NOT_ALLOWED",
        "The demo shop is not open here.",
        "Start your own shop, or run Kobbin on your own machine with demo data.",
      );
    await openSession(pool, ctx, demo.accountId, demo.workshopId);
    ctx.status = 204;
  });

  router.delete("/api/session", async (ctx) => {
    const token = ctx.cookies.get(COOKIE);
    if (token) await pool.query("delete from session where token_hash = $1", [hashToken(token)]);
    ctx.cookies.set(COOKIE, null, { path: "/" });
    ctx.status = 204;
  });

  router.post("/api/shops", async (ctx) => {
    const body = bodyOf(ctx, newShopBody);
    await limitTries(pool, `new shop ${ctx.ip}`, 30);
    const [passwordHash, standIns] = await Promise.all([
      hash(body.password),
      fetchStandIns(config.standInsUrl),
    ]);
    const { accountId, workshopId } = await withTransaction(pool, async (tx) => {
      const shop = await createShop(
        tx,
        { name: body.name, currency: body.currency, hourlyRate: body.hourlyRate, isDemo: false },
        standIns,
      );
      const { rows } = await tx.query<{ id: string }>(
        "insert into account (email, password_hash) values ($1, $2) returning id",
        [body.email, passwordHash],
      );
      await tx.query("insert into member (workshop_id, account_id) values ($1, $2)", [shop, rows[0]!.id]);
      return { accountId: rows[0]!.id, workshopId: shop };
    });
    await openSession(pool, ctx, accountId, workshopId);
    ctx.status = 201;
    ctx.body = { shopId: workshopId };
  });
  return router;
}
