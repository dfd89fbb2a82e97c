import Router from "@koa/router";
import type { FoundRow } from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { manyFound } from "./queries.ts";

/** What the command box finds: products, runs, parts. */
export function findRoutes({ pool }: Deps): Router {
  const router = new Router();
  router.get("/api/find", async (ctx) => {
    const words = String(ctx.query.q ?? "")
      .toLowerCase()
      .split(/\s+/)
      .filter((w) => w !== "")
      .slice(0, 6)
      .map((w) => `%${w.slice(0, 60).replace(/[\\%_]/g, "\\$&")}%`);
    const found: FoundRow[] =
      words.length === 0
        ? []
        : await readWorkshop(pool, signed(ctx).workshopId, (tx) => manyFound(tx, words));
    ctx.body = found;
  });
  return router;
}
