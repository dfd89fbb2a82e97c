import Router from "@koa/router";
import { orderStepBody, sendOrderBody } from "@kobbin/contract";
import {
  AppError,
  isTold,
  type OrderState,
  orderOf,
  type RunDocument,
  refuseStep,
  STEP_WORDS,
  stepWords,
} from "@kobbin/core";
import { lockRun } from "../../db/lock.ts";
import type { Tx } from "../../db/pool.ts";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf, tell } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { maybeHouseKey } from "../house/index.ts";
import { partyOf } from "./items.ts";
import {
  deleteStep,
  fillPurchaseDates,
  insertOrderAsk,
  insertStep,
  isTalkedAbout,
  lookAgain,
  manySteps,
} from "./order-queries.ts";
import { upsertPurchase } from "./queries.ts";
import { released } from "./released.ts";

/** What becomes of orders at houses: written down, or sent and asked over the network. */
export function orderRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/order-steps", async (ctx) => {
    const b = bodyOf(ctx, orderStepBody);
    const id = ctx.params.id!;
    const { workshopId, person } = signed(ctx);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      change.about({ runId: id });
      const step = await written(tx, id, document, { ...b, person });
      change.says(
        `order at ${step.name}: ${stepWords(b.state, orderOf(b.order).kind)}${b.words ? `: ${b.words}` : ""}`,
      );
      if (isTold(b.state) && (await lookAgain(tx, id, b.order))) {
        change.isFinal();
        await tell(tx, { kind: "asking", workshop: workshopId, runId: id });
      }
      return { id: step.id };
    });
    ctx.status = 201;
  });

  router.delete("/api/order-steps/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const gone = await deleteStep(tx, ctx.params.id!);
      if ((gone.state === "sent" || isTold(gone.state)) && (await isTalkedAbout(tx, gone)))
        throw new AppError(
          "NOT_ALLOWED",
          `${gone.label} was told already.`,
          "Take the order back instead, and send it again.",
        );
      change.about({ runId: gone.runId });
      change.says(
        `order at ${gone.label}: “${stepWords(gone.state, orderOf(gone.order).kind) ?? STEP_WORDS[gone.state]}” is taken out`,
      );
    });
    ctx.status = 204;
  });
  networkRoutes(router, deps);
  return router;
}

/** An order that goes to its house over the network, and how it stands there. */
function networkRoutes(router: Router, deps: Deps): void {
  router.post("/api/runs/:id/send-order", async (ctx) => {
    const { order } = bodyOf(ctx, sendOrderBody);
    const id = ctx.params.id!;
    const by = byOf(ctx);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      change.about({ runId: id });
      const { kind, party: houseId } = orderOf(order);
      if (kind === "parts" || (await maybeHouseKey(tx, houseId)) === undefined)
        throw new AppError(
          "NOT_ALLOWED",
          `${partyOf(document, order).name} does not take orders over the network.`,
          "Send it the package, then write down that it is sent.",
        );
      const step = await written(tx, id, document, {
        order,
        state: "sent",
        on: deps.today(),
        words: "",
        person: by.person,
      });
      change.says(`order at ${step.name}: ${STEP_WORDS.sent}`);
      change.isFinal();
      await insertOrderAsk(tx, id, order, houseId, by);
      await tell(tx, { kind: "asking", workshop: by.workshopId, runId: id });
      return { id: step.id };
    });
    ctx.status = 202;
  });

  router.post("/api/runs/:id/look-order", async (ctx) => {
    const { order } = bodyOf(ctx, sendOrderBody);
    const id = ctx.params.id!;
    const { workshopId } = signed(ctx);
    await withWorkshop(deps.pool, workshopId, async (tx) => {
      await released(tx, id);
      if (!(await lookAgain(tx, id, order)))
        throw new AppError("NOT_FOUND", "That order was not sent over the network.", "Reload the page.");
      await tell(tx, { kind: "asking", workshop: workshopId, runId: id });
    });
    ctx.status = 202;
  });
}

/** Writes a step down beside those before it; what is sent is ordered. @throws AppError where it does not follow */
async function written(
  tx: Tx,
  runId: string,
  document: RunDocument,
  s: { order: string; state: OrderState; on: string; words: string; person: string },
): Promise<{ id: string; name: string }> {
  const { name, currencies } = partyOf(document, s.order);
  // two pages that send at once are one after the other here
  await lockRun(tx, runId);
  refuseStep(
    (await manySteps(tx, runId)).filter((x) => x.order === s.order),
    s.state,
    orderOf(s.order).kind,
  );
  if (s.state === "sent") {
    const row = await upsertPurchase(tx, runId, { order: s.order, label: name, currency: currencies[0]! });
    await fillPurchaseDates(tx, row.id, { orderedOn: s.on });
  }
  return { id: await insertStep(tx, runId, { ...s, label: name }), name };
}
