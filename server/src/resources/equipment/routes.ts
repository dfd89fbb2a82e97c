import Router from "@koa/router";
import { equipmentBody, newEquipmentBody } from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import {
  deleteEquipment,
  insertEquipment,
  manyEquipment,
  oneEquipmentName,
  updateEquipment,
} from "./queries.ts";

/** Machines and tools of the shop: the order of work is judged by what they can. */
export function equipmentRoutes(deps: Deps): Router {
  const router = new Router();
  router.get("/api/equipment", async (ctx) => {
    ctx.body = { equipment: await readWorkshop(deps.pool, signed(ctx).workshopId, manyEquipment) };
  });
  router.post("/api/equipment", async (ctx) => {
    const b = bodyOf(ctx, newEquipmentBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      change.says(`${b.name} is in the shop`);
      return { id: await insertEquipment(tx, b) };
    });
    ctx.status = 201;
  });
  router.patch("/api/equipment/:id", async (ctx) => {
    const b = bodyOf(ctx, equipmentBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const name = await oneEquipmentName(tx, id);
      if (b.state === "broken") change.says(`${name} is out of order`);
      await updateEquipment(tx, id, b);
    });
    ctx.status = 204;
  });
  router.delete("/api/equipment/:id", async (ctx) => {
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      change.says(`${await oneEquipmentName(tx, id)} is no longer in the shop`);
      await deleteEquipment(tx, id);
    });
    ctx.status = 204;
  });
  return router;
}
