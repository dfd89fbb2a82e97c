import { timingSafeEqual } from "node:crypto";
import Router from "@koa/router";
import { newShopBody, type SessionAnswer, signInBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { hash } from "@node-rs/argon2";
import type { Context } from "koa";
import type { Pool, Tx } from "../../db/pool.ts";
import { readWorkshop, withTransaction } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { client, networkOf } from "../../middleware/client.ts";
import {
  COOKIE,
  countTries,
  forgiveTries,
  hashToken,
  limitTries,
  openSession,
  type Signed,
} from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import {
  checkNewPassword,
  checkPassword,
  insertAccount,
  insertAudit,
  insertMember,
  manyShopsOf,
} from "../people/index.ts";
import { createShop, fetchStandIns, oneShop } from "../shop/index.ts";
import { deleteSessionOf, hasOwners, lockFirstOwner, maybeDemoShop, maybeSigningIn } from "./queries.ts";

const isCode = (given: string, code: string) => {
  const [a, b] = [hashToken(given), hashToken(code)];
  return code !== "" && timingSafeEqual(a, b);
};

const notFreely = () =>
  new AppError(
    "NOT_ALLOWED",
    "Shops are not started freely here.",
    "Ask an owner of the shop for an invitation link.",
  );

/** Sign in, sign out, start a shop, enter the demo. */
export function sessionRoutes(deps: Deps): Router {
  const { pool, config } = deps;
  const router = new Router();
  const demoShop = async () => (config.hasDemo ? maybeDemoShop(pool) : undefined);

  /** Who may start a shop: anybody, nobody, or the first one, who has the code or sits at this machine. */
  const mayStart = async (ctx: Context, db: Pool | Tx = pool): Promise<"yes" | "code" | "no"> => {
    if (config.signUp === "open") return "yes";
    if (config.signUp === "closed" || (await hasOwners(db))) return "no";
    return client(ctx).isHere ? "yes" : "code";
  };

  router.get("/api/session", async (ctx) => {
    const s = ctx.state.signed as Signed | undefined;
    const demo = client(ctx).isHere && (await demoShop()) !== undefined;
    if (!s) {
      const answer: SessionAnswer = { demo, mayStart: await mayStart(ctx) };
      ctx.body = answer;
      return;
    }
    const shops = [];
    for (const { id, role } of await manyShopsOf(pool, s.accountId))
      shops.push({ id, role, name: (await readWorkshop(pool, id, oneShop)).name });
    const answer: SessionAnswer = {
      shop: await readWorkshop(pool, s.workshopId, oneShop),
      person: s.person,
      role: s.role,
      shops,
      demo,
    };
    ctx.body = answer;
  });

  router.post("/api/session", async (ctx) => {
    const { email, password } = bodyOf(ctx, signInBody);
    const network = networkOf(client(ctx).address);
    const [own, from, at] = [`sign-in ${network} ${email}`, `sign-in from ${network}`, `sign-in as ${email}`];
    await countTries(pool, [own, 10], [from, 40], [at, 60]);
    const known = await maybeSigningIn(pool, email);
    try {
      await checkPassword(known?.hash, password);
    } catch (error) {
      await insertAudit(pool, {
        workshopId: known?.workshopId ?? null,
        person: email,
        what: "was refused: wrong password",
        address: client(ctx).address,
      });
      throw error;
    }
    // a password that fits is somebody's
    const { id, workshopId } = known!;
    // who got in is no guesser: only failed tries add up
    await forgiveTries(pool, own, from, at);
    await openSession(pool, ctx, id, workshopId);
    await insertAudit(pool, {
      workshopId,
      person: email,
      what: "signed in",
      address: client(ctx).address,
    });
    ctx.status = 204;
  });

  router.post("/api/session/demo", async (ctx) => {
    const demo = client(ctx).isHere ? await demoShop() : undefined;
    if (!demo)
      throw new AppError(
        "NOT_ALLOWED",
        "The demo shop is not open here.",
        "Start your own shop, or run Kobbin on your own machine with demo data.",
      );
    await openSession(pool, ctx, demo.accountId, demo.workshopId);
    await insertAudit(pool, {
      workshopId: demo.workshopId,
      person: "demo@ashglaze",
      what: "entered the demo shop",
      address: client(ctx).address,
    });
    ctx.status = 204;
  });

  router.delete("/api/session", async (ctx) => {
    const token = ctx.cookies.get(COOKIE);
    if (token) await deleteSessionOf(pool, hashToken(token));
    ctx.cookies.set(COOKIE, null, { path: "/" });
    ctx.status = 204;
  });

  router.post("/api/shops", async (ctx) => {
    const body = bodyOf(ctx, newShopBody);
    checkNewPassword(body.password, [body.email, body.name]);
    await limitTries(pool, `new shop ${networkOf(client(ctx).address)}`, config.newShops);
    const may = await mayStart(ctx);
    if (may === "no") throw notFreely();
    if (may === "code" && !isCode(body.code ?? "", config.setUpCode))
      throw new AppError(
        "NOT_ALLOWED",
        "The set-up code does not fit.",
        "The server printed it when it started; whoever runs it can read it there.",
      );
    const [passwordHash, standIns] = await Promise.all([
      hash(body.password),
      fetchStandIns(body.partners === "none" ? "" : config.standInsUrl),
    ]);
    const { accountId, workshopId } = await withTransaction(pool, async (tx) => {
      // of several first owners at one moment one wins
      if (config.signUp !== "open") {
        await lockFirstOwner(tx);
        if ((await mayStart(ctx, tx)) === "no") throw notFreely();
      }
      const shop = await createShop(
        tx,
        { name: body.name, currency: body.currency, hourlyRate: body.hourlyRate, isDemo: false },
        standIns,
      );
      const accountId = await insertAccount(tx, body.email, passwordHash);
      await insertMember(tx, shop, accountId, "owner");
      await insertAudit(tx, {
        workshopId: shop,
        person: body.email,
        what: "started the shop",
        address: client(ctx).address,
      });
      return { accountId, workshopId: shop };
    });
    await openSession(pool, ctx, accountId, workshopId);
    ctx.status = 201;
    ctx.body = { shopId: workshopId };
  });
  return router;
}
