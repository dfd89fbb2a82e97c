import Router from "@koa/router";
import {
  equipmentBody,
  type MeterBody,
  type MeterReading,
  meterBody,
  newEquipmentBody,
} from "@kobbin/contract";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { askOutside, OutsideError, readAnswer } from "../../outside/index.ts";
import { bodyOf } from "../body.ts";
import {
  deleteEquipment,
  insertEquipment,
  manyEquipment,
  oneAsked,
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
  router.post("/api/equipment/:id/reading", async (ctx) => {
    const b = bodyOf(ctx, meterBody);
    const { asked } = await readWorkshop(deps.pool, signed(ctx).workshopId, (tx) =>
      oneAsked(tx, ctx.params.id!),
    );
    ctx.body = await readingOf(deps, asked, b);
  });
  return router;
}

/** Somebody stands at the bench and waits: longer than that is no answer. */
const METER_PATIENCE_MS = 4000;

/** What a meter shows, or in words why nothing can be had of it. */
async function readingOf(deps: Deps, asked: string | null, b: MeterBody): Promise<MeterReading> {
  const { standInsUrl } = deps.config;
  if (asked === null) return { refused: "It is not said under what name it is asked." };
  if (standInsUrl === "") return { refused: "Nothing is asked over the network here." };
  try {
    const answer = await askOutside(standInsUrl, {
      method: "GET",
      path: ["meters", asked, "reading"],
      query: [["unit", b.unit], ...(b.near === undefined ? [] : [["near", b.near] as const])],
      patienceMs: deps.patienceMs ?? METER_PATIENCE_MS,
    });
    return readAnswer(answer, "meter");
  } catch (error) {
    if (error instanceof OutsideError) return { refused: error.message };
    throw error;
  }
}
