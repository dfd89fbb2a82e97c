import { AppError } from "@kobbin/core";
import type { Middleware } from "koa";
import type { Pool } from "../db/pool.ts";
import { maybeReplay, requestHash } from "../history/change.ts";
import type { Signed } from "./session.ts";

/**
 * A write whose answer was lost is sent again with the same key: it gets the answer of the first, and is not done
 * twice. Changes of fields need no key, since laying the same over the same changes nothing.
 */
export const replay =
  (pool: Pool): Middleware =>
  async (ctx, next) => {
    const signed = ctx.state.signed as Signed | undefined;
    const key = ctx.get("X-Request-Key");
    if (signed && key && !["GET", "HEAD", "PATCH"].includes(ctx.method)) {
      const before = await maybeReplay(pool, signed.workshopId, key);
      if (before) {
        if (before.hash && !before.hash.equals(requestHash(ctx, signed.accountId)))
          throw new AppError(
            "KEY_REUSED",
            "The key of this request was used for another one.",
            "Nothing was changed. Reload the page and do it again.",
          );
        ctx.set("X-Change", before.id);
        ctx.status = before.result === null ? 204 : 200;
        if (before.result !== null) ctx.body = before.result;
        return;
      }
    }
    await next();
  };
