import { AppError } from "@kobbin/core";
import type { Middleware } from "koa";
import { client, networkOf } from "./client.ts";
import type { Signed } from "./session.ts";

/** A burst, then so many a second. */
export interface RequestLimits {
  readonly read: { readonly burst: number; readonly perSecond: number };
  readonly write: { readonly burst: number; readonly perSecond: number };
}

/** Reads and writes a person, or a network without a session, may send. */
const LIMITS: RequestLimits = { read: { burst: 400, perSecond: 60 }, write: { burst: 150, perSecond: 15 } };

interface Bucket {
  left: number;
  at: number;
}

/**
 * Bounds how fast one person may ask, so that one page gone wild does not take the server from the others. It protects
 * this process and is counted in it; tries at passwords are counted in the database.
 */
export function limitRequests(
  limits: RequestLimits = LIMITS,
  now: () => number = () => performance.now(),
): Middleware {
  const buckets = new Map<string, Bucket>();
  return async (ctx, next) => {
    if (!ctx.path.startsWith("/api/")) return next();
    const kind = ["GET", "HEAD"].includes(ctx.method) ? "read" : "write";
    const signed = ctx.state.signed as Signed | undefined;
    const key = `${kind} ${signed?.accountId ?? networkOf(client(ctx).address)}`;
    const { burst, perSecond } = limits[kind];
    const t = now();
    const b = buckets.get(key) ?? { left: burst, at: t };
    b.left = Math.min(burst, b.left + ((t - b.at) / 1000) * perSecond);
    b.at = t;
    buckets.set(key, b);
    if (buckets.size > 5000) for (const [k, x] of buckets) if (t - x.at > 60_000) buckets.delete(k);
    if (b.left < 1)
      throw new AppError(
        "TOO_MANY_TRIES",
        "This page sends more than the server answers.",
        "Nothing was lost; wait a few seconds, it goes on by itself.",
      );
    b.left -= 1;
    await next();
  };
}
