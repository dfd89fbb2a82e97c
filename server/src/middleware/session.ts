import { createHash, randomBytes } from "node:crypto";
import type { Role } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Context, Middleware } from "koa";
import type { Pool } from "../db/pool.ts";

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
    await next();
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
  ctx.cookies.set(COOKIE, token, {
    httpOnly: true,
    sameSite: "lax",
    secure: ctx.secure,
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

/** Counts a try and refuses beyond `most` in ten minutes. Counted in the database, so several servers count together. */
export async function limitTries(pool: Pool, key: string, most: number): Promise<void> {
  const { rows } = await pool.query<{ n: string }>(
    `with gone as (delete from attempt where at < now() - interval '1 hour')
     select count(*) as n from attempt where key = $1 and at > now() - interval '10 minutes'`,
    [key],
  );
  if (Number(rows[0]!.n) >= most)
    throw new AppError(
      "TOO_MANY_TRIES",
      "Too many tries in a short time.",
      "Wait ten minutes and try again.",
    );
  await pool.query("insert into attempt (key) values ($1)", [key]);
}
