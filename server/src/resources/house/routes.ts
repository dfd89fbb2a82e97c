import Router from "@koa/router";
import { copyHouseBody } from "@kobbin/contract";
import type { House } from "@kobbin/core";
import { readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import type { Json } from "../../history/merge.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { checkProfile } from "./profile.ts";
import { insertHouse, manyHouses, oneHouse, versionOfHouse } from "./queries.ts";

/** Houses: list, copy, edit. */
export function houseRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.get("/api/houses", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyHouses);
  });
  router.post("/api/houses", async (ctx) => {
    const { copyOf, name } = bodyOf(ctx, copyHouseBody);
    ctx.body = await changeOf(ctx, deps, async (tx) => {
      const { id, ...profile } = await oneHouse(tx, copyOf);
      const all = await manyHouses(tx);
      const copy = { ...profile, name, about: `copied from ${profile.name}`, checkedOn: today() };
      return oneHouse(tx, await insertHouse(tx, all.length, copy, id));
    });
    ctx.status = 201;
  });
  router.patch("/api/houses/:id", async (ctx) => {
    const { version, ...edited } = ((ctx.request as { body?: unknown }).body ?? {}) as Record<
      string,
      unknown
    >;
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx) => {
      const old = await oneHouse(tx, id);
      const seen = Number.isInteger(version) ? (version as number) : await versionOfHouse(tx, id);
      const profile = { ...checkProfile(edited, old), checkedOn: today() };
      await mergeRow(
        tx,
        "house",
        { id },
        seen,
        // what the page does not know of a profile stays
        (base) => ({ profile: { ...(base.profile as object), ...profile } as unknown as Json }),
        old.name,
        byOf(ctx).page,
      );
    });
    ctx.body = (await withWorkshop(pool, signed(ctx).workshopId, (tx) => oneHouse(tx, id))) satisfies House;
  });
  return router;
}
