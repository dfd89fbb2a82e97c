import { createHash, randomBytes, timingSafeEqual } from "node:crypto";
import type { Role } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Context, Middleware } from "koa";
import type { Pool } from "../db/pool.ts";
import { person } from "../db/share.ts";
import { client } from "./client.ts";

export const COOKIE = "kobbin_session";
const DAYS = 30;

/** Who is signed in. */
export interface Signed {
  readonly accountId: string;
  readonly workshopId: string;
  readonly person: string;
  readonly role: Role;
}

export const hashToken = (token: string) => createHash("sha256").update(token).digest();

/** Looks the cookie up; leaves ctx.state.signed empty when there is no valid session. */
export const session =
  (pool: Pool): Middleware =>
  async (ctx, next) => {
    const token = ctx.cookies.get(COOKIE);
    if (token && ctx.path.startsWith("/api/")) {
      const tokenHash = hashToken(token);
      const { rows } = await pool.query<Signed & { isOld: boolean }>(
        // a member taken out of the shop is out at once, whatever sessions are left
        `select s.account_id as "accountId", s.workshop_id as "workshopId", a.email as "person", m.role,
                s.seen_at < now() - interval '1 minute' as "isOld"
         from session as s
         join account as a on a.id = s.account_id
         join member as m on m.account_id = s.account_id and m.workshop_id = s.workshop_id
         where s.token_hash = $1 and s.expires_at > now()`,
        [tokenHash],
      );
      ctx.state.signed = rows[0];
      if (rows[0]?.isOld)
        await pool.query("update session set seen_at = now() where token_hash = $1", [tokenHash]);
    }
    // what is shared out per person is counted by this
    const signed = ctx.state.signed as Signed | undefined;
    await (signed ? person.run(signed.accountId, next) : next());
  };

/** Where a request shows that it comes through a door of the server's own. */
export const DOOR_KEY = "X-Door-Key";
/** In the place of {@link session}: whoever shows the key is this person, who needs no membership; anybody else is nobody. */
export const signedAs =
  (who: Signed, key: string): Middleware =>
  async (ctx, next) => {
    if (!timingSafeEqual(hashToken(ctx.get(DOOR_KEY)), hashToken(key))) return next();
    ctx.state.signed = who;
    await person.run(who.accountId, next);
  };

/** Opens a session and sets its cookie: httpOnly, same site, secure behind https. */
export async function openSession(
  pool: Pool,
  ctx: Context,
  accountId: string,
  workshopId: string,
): Promise<void> {
  const token = randomBytes(32).toString("base64url");
  await pool.query(
    "insert into session (token_hash, account_id, workshop_id, expires_at, agent) values ($1, $2, $3, now() + make_interval(days => $4), $5)",
    [hashToken(token), accountId, workshopId, DAYS, ctx.get("User-Agent").slice(0, 300)],
  );
  const secure = client(ctx).origin.startsWith("https:");
  // behind our own proxy the last step is plain; the person's connection is not
  ctx.cookies.secure = secure;
  ctx.cookies.set(COOKIE, token, {
    httpOnly: true,
    sameSite: "lax",
    secure,
    maxAge: DAYS * 86_400_000,
    path: "/",
    overwrite: true,
  });
}

/** The signed-in person. @throws AppError NOT_SIGNED_IN */
export function signed(ctx: Context): Signed {
  const s = ctx.state.signed as Signed | undefined;
  if (!s)
    throw new AppError(
      "NOT_SIGNED_IN",
      "You are not signed in.",
      "Sign in again; what you typed is still on the page.",
    );
  return s;
}

/** A key of tries and how many it may have in ten minutes. */
export type TriesLimit = readonly [key: string, most: number];

/**
 * Counts a try under each key and refuses where one has had its fill in ten minutes. Counted in the database by one
 * statement a key, so that several servers, and many requests at one moment, count together.
 */
export async function countTries(pool: Pool, ...limits: readonly TriesLimit[]): Promise<void> {
  let isOver = false;
  for (const [key, most] of limits) {
    const { rows } = await pool.query<{ n: number }>(
      `insert into tries as t (key, n, since) values ($1, 1, now())
       on conflict (key) do update set
         n = case when t.since < now() - interval '10 minutes' then 1 else least(t.n + 1, 1000000) end,
         since = case when t.since < now() - interval '10 minutes' then now() else t.since end
       returning n`,
      [key.slice(0, 400)],
    );
    isOver ||= rows[0]!.n > most;
  }
  if (isOver)
    throw new AppError(
      "TOO_MANY_TRIES",
      "Too many tries in a short time.",
      "Wait ten minutes and try again.",
    );
}

/** As {@link countTries} for one key. */
export const limitTries = (pool: Pool, key: string, most: number): Promise<void> =>
  countTries(pool, [key, most]);

/** A try that succeeded was no guess: it is taken back, and the person's own count with it. */
export async function forgiveTries(pool: Pool, own: string, ...shared: readonly string[]): Promise<void> {
  await pool.query("delete from tries where key = $1 or since < now() - interval '1 hour'", [own]);
  await pool.query("update tries set n = greatest(n - 1, 0) where key = any($1::text[])", [shared]);
}
