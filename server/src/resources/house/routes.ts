import Router from "@koa/router";
import { houseBody, newHouseBody } from "@kobbin/contract";
import { AppError, contradictions, type House } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import type { Json } from "../../history/merge.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { deleteMadeUp, insertHouse, manyHouses, oneHouse, versionOfHouse } from "./queries.ts";

/** Houses: list, copy, begin, edit. */
export function houseRoutes(deps: Deps): Router {
  const { pool, today } = deps;
  const router = new Router();
  router.get("/api/houses", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyHouses);
  });
  router.post("/api/houses", async (ctx) => {
    const { copyOf, profile, name } = bodyOf(ctx, newHouseBody);
    if ((copyOf === undefined) === (profile === undefined))
      throw new AppError(
        "OUT_OF_RANGE",
        "A new house is either a copy or a profile.",
        "Send one of copyOf and profile; nothing was kept.",
      );
    if (profile) refuseContradictions({ ...(profile as Omit<House, "id">), name });
    ctx.body = await changeOf(ctx, deps, async (tx) => {
      const place = (await manyHouses(tx)).length;
      const begun =
        copyOf === undefined
          ? { checkedOn: today(), ...(profile as Omit<House, "id" | "checkedOn">) }
          : { ...(await copied(tx, copyOf)), checkedOn: today() };
      return oneHouse(tx, await insertHouse(tx, place, { ...begun, name }, copyOf));
    });
    ctx.status = 201;
  });
  router.post("/api/made-up/away", async (ctx) => {
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteMadeUp(tx);
      change.says(`took ${gone.suppliers} made-up suppliers and ${gone.houses} made-up houses away`);
      return gone;
    });
  });
  router.patch("/api/houses/:id", async (ctx) => {
    const { version, ...edited } = bodyOf(ctx, houseBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx) => {
      const old = await oneHouse(tx, id);
      await mergeRow(
        tx,
        "house",
        { id },
        version ?? (await versionOfHouse(tx, id)),
        (base) => {
          const profile = { ...(base.profile as object as House), ...edited, checkedOn: today() };
          refuseContradictions(profile as House);
          return { profile: profile as unknown as Json };
        },
        old.name,
        byOf(ctx).page,
      );
    });
    ctx.body = (await withWorkshop(pool, signed(ctx).workshopId, (tx) => oneHouse(tx, id))) satisfies House;
  });
  return router;
}

/** Refuses a profile whose parts cannot both be true, each named. */
function refuseContradictions(profile: Omit<House, "id">): void {
  const wrong = contradictions(profile);
  if (wrong.length > 0)
    throw new AppError("OUT_OF_RANGE", wrong.join(" "), "Correct the profile; nothing was kept.");
}

async function copied(tx: Tx, of: string): Promise<Omit<House, "id">> {
  const { id: _, ...profile } = await oneHouse(tx, of);
  return { ...profile, about: `copied from ${profile.name}` };
}
