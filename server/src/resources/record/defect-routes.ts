import Router from "@koa/router";
import { defectBody, defectChangeBody } from "@kobbin/contract";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { deleteDefect, insertDefect, updateDefect } from "./defect-queries.ts";
import { released } from "./released.ts";

/** What is found wrong at the bench, and what becomes of it. */
export function defectRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/defects", async (ctx) => {
    const b = bodyOf(ctx, defectBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await released(tx, id);
      change.about({ runId: id });
      change.says(`${told(b)}${b.isMended ? ", mended" : ""}`);
      return { id: await insertDefect(tx, id, { ...b, person: signed(ctx).person }) };
    });
    ctx.status = 201;
  });
  router.patch("/api/defects/:id", async (ctx) => {
    const b = bodyOf(ctx, defectChangeBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const d = await updateDefect(tx, ctx.params.id!, b);
      change.about({ runId: d.runId });
      if (b.isMended !== undefined)
        change.says(`${told(d)}: ${b.isMended ? "mended" : "not mended after all"}`);
    });
    ctx.status = 204;
  });
  router.delete("/api/defects/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const d = await deleteDefect(tx, ctx.params.id!);
      change.about({ runId: d.runId });
      change.says(`${told(d)}: no fault after all`);
    });
    ctx.status = 204;
  });
  return router;
}

/** @example "board 3, U1.4: bridge" */
const told = (d: { readonly unit: number; readonly at: string; readonly code: string }): string =>
  `board ${d.unit}${d.at ? `, ${d.at}` : ""}: ${d.code}`;
