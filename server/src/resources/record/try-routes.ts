import Router from "@koa/router";
import { type TryBody, tryBody } from "@kobbin/contract";
import { AppError, judgeTry, limitsOf, type TestItem, type TryVerdict } from "@kobbin/core";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { released } from "./released.ts";
import { deleteTry, insertTry } from "./try-queries.ts";

const CAME_TO: Readonly<Record<TryVerdict, string>> = {
  pass: "passed",
  fail: "failed",
  error: "nothing could be read",
};

/** Tries of the test plan: held against the limits that were released, whatever the page thinks of them. */
export function tryRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/tries", async (ctx) => {
    const b = bodyOf(ctx, tryBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      const item = document.assembly.tests?.find((t) => t.id === b.item);
      if (!item)
        throw new AppError(
          "NOT_FOUND",
          "The released test plan has no such item.",
          "Reload the page; it shows what was released.",
        );
      const verdict = judgeTry(item, b);
      change.about({ runId: id });
      change.says(sentence(b, item, verdict));
      return {
        id: await insertTry(tx, id, {
          unit: b.unit,
          item: item.id,
          name: item.name,
          on: b.on,
          ...(b.value === undefined ? {} : { value: b.value }),
          ...(b.value !== undefined && b.bound ? { bound: b.bound } : {}),
          limits: limitsOf(item),
          verdict,
          words: b.words,
          person: signed(ctx).person,
        }),
        verdict,
      };
    });
    ctx.status = 201;
  });
  router.delete("/api/tries/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteTry(tx, ctx.params.id!);
      change.about({ runId: gone.runId });
      change.says(`board ${gone.unit}, ${gone.name}: a try taken back`);
    });
    ctx.status = 204;
  });
  return router;
}

/** @example "board 3, V33 volts: 3.31 V, passed" */
const sentence = (b: TryBody, item: TestItem, verdict: TryVerdict): string =>
  `board ${b.unit}, ${item.name}: ${b.value === undefined ? "" : `${b.bound ?? ""}${b.value} ${item.unit}, `}${CAME_TO[verdict]}`;
