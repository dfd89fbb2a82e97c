import type { HouseOrder, HouseOrderAnswer } from "@kobbin/contract";
import {
  AppError,
  inTime,
  isTold,
  type OrderState,
  type OrderStep,
  orderStand,
  STEP_WORDS,
  shapes,
} from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import type { Tx } from "../db/pool.ts";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { countJob } from "../metrics.ts";
import { maybeHouseKey } from "../resources/house/index.ts";
import {
  fillPurchaseDates,
  insertStep,
  isOrderOver,
  manySteps,
  type OrderAsked,
  orderTalk,
  updateOrderNumber,
  upsertPurchase,
} from "../resources/record/index.ts";
import { onePackage } from "../resources/release/index.ts";
import { maybeRelease } from "../resources/run/index.ts";
import { reasonOf } from "../resources/source/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { MOST_TRIES, tryAgain } from "./try-again.ts";

/** A parcel of files takes longer than a question. */
const PATIENCE_MS = 30_000;

/** What a house may say of an order. */
const SAYS = ["asked", "accepted", "made", "shipped", "withdrawn"] as const satisfies readonly OrderState[];

/** What a house's word on an order must hold, before any of it is written down. */
const ANSWER = shapes.fields({
  number: shapes.text(60, 1),
  expectedOn: shapes.maybe(shapes.day),
  said: shapes.list(
    shapes.fields({
      key: shapes.text(80, 1),
      state: shapes.oneOf(...SAYS),
      on: shapes.day,
      words: shapes.text(2000),
    }),
    200,
  ),
});

/** What a house needs of the package: nothing of prices, baskets and the run itself. */
const NEEDS = {
  boards: /^(fabrication\/|sheets\/fabrication-)/,
  assembly: /^(assembly|fabrication)\/|^sheets\/assembly-/,
};

/** What is known of an order when its house is asked. */
interface Known {
  readonly ask: OrderAsked;
  readonly key: string | undefined;
  readonly steps: readonly OrderStep[];
  readonly release: NonNullable<Awaited<ReturnType<typeof maybeRelease>>> | undefined;
  /** Only where the house has no files yet. */
  readonly zip?: Uint8Array;
}

/**
 * Sends an order to its house, tells it what it was answered and that it is paid, and writes down what it says. It is asked
 * again after a while until the parcel is on its way or the order was taken back.
 */
export async function followOrder(
  deps: Pick<WorkerDeps, "pool" | "config" | "compute" | "today">,
  { workshopId, askId }: { readonly workshopId: string; readonly askId: string },
  later: (inMs: number) => void,
): Promise<void> {
  const { pool, config } = deps;
  const known = await withWorkshop(pool, workshopId, (tx) => taken(tx, workshopId, askId));
  if (!known) return;
  const { ask, key, steps, release } = known;
  if (key === undefined || !release)
    return withWorkshop(pool, workshopId, async (tx) => {
      await orderTalk.end(tx, askId, "failed", "It can no longer be asked.");
      await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    });
  const times = timesSent(steps);
  const since = steps.findLastIndex((s) => s.state === "sent");
  const at = `${config.standInsUrl}/houses/${key}/orders/${ask.runId}-${ask.order.split(" ")[0]}-${times}`;
  let said: HouseOrderAnswer;
  try {
    const told = steps
      .slice(Math.max(0, since))
      .filter((s) => s.source === "" && isTold(s.state))
      .map(({ state, on, words }) => ({ state, on, words }));
    if (ask.number === "") {
      const sent = await orderOf(deps, workshopId, known);
      said = await call(`${at}`, "PUT", { ...sent, told });
    } else {
      const answer = await call(`${at}/told`, "POST", { told }, true);
      if (!answer) {
        // the same order under the same reference: sent again it is no second one
        await withWorkshop(pool, workshopId, async (tx) => {
          await updateOrderNumber(tx, askId, "");
          await orderTalk.putOff(
            tx,
            askId,
            "It did not know the order any more; its files go there again.",
            0,
          );
        });
        return later(0);
      }
      said = answer;
    }
  } catch (error) {
    countJob("failed");
    return tryAgain(deps, workshopId, orderTalk, ask, reasonOf(error), later, config.orderLookMs);
  }
  await kept(deps, workshopId, known, said, later);
}

/** What was taken back and sent again is another order at the house: the first, the second. */
const timesSent = (steps: readonly OrderStep[]): number => steps.filter((s) => s.state === "sent").length;

async function taken(tx: Tx, workshopId: string, askId: string): Promise<Known | undefined> {
  const ask = await orderTalk.claim(tx, askId, PATIENCE_MS * 2);
  if (!ask) return undefined;
  const release = await maybeRelease(tx, ask.runId);
  await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
  return {
    ask,
    key: await maybeHouseKey(tx, ask.houseId),
    steps: inTime((await manySteps(tx, ask.runId)).filter((s) => s.order === ask.order)),
    release,
    ...(release && ask.number === "" ? { zip: await onePackage(tx, ask.runId) } : {}),
  };
}

/** The order as its house is sent it: what is asked for, and the files of the released package it needs. */
async function orderOf(
  { compute }: Pick<WorkerDeps, "compute">,
  workshopId: string,
  { ask, steps, release, zip }: Known,
): Promise<Omit<HouseOrder, "told">> {
  const needs = ask.order.startsWith("boards ") ? NEEDS.boards : NEEDS.assembly;
  const files = unpackZip(zip!).filter((f) => needs.test(f.path));
  const kind = ask.order.startsWith("boards ") ? "fab" : "assembly";
  const quoted = release!.document.quotes.find((q) => q.house === ask.houseId && q.kind === kind);
  const { request } = await compute.run(
    { kind: "request", document: release!.document, houseId: ask.houseId },
    workshopId,
  );
  return {
    boards: request.boards,
    options: request.options,
    ...(quoted?.question && quoted.answer
      ? { known: { question: quoted.question, answer: quoted.answer } }
      : {}),
    sentOn: steps.findLast((s) => s.state === "sent")?.on ?? "",
    files: files.map((f) => ({
      path: f.path,
      sha256: sha256Hex(f.bytes),
      base64: Buffer.from(f.bytes).toString("base64"),
    })),
  };
}

/** Writes down what a house said that was not known, and when it is asked again. */
async function kept(
  deps: Pick<WorkerDeps, "pool" | "config" | "today">,
  workshopId: string,
  { ask, steps, release }: Known,
  said: HouseOrderAnswer,
  later: (inMs: number) => void,
): Promise<void> {
  const { pool, config, today } = deps;
  const house = release!.document.houses?.find((h) => h.id === ask.houseId)?.name ?? "the house";
  const by = {
    workshopId,
    accountId: ask.accountId,
    person: ask.person,
    ...(ask.page ? { page: ask.page } : {}),
  };
  let isBehind = false;
  try {
    await recordChange(pool, by, async (tx, change) => {
      change.about({ runId: ask.runId });
      // another's word is not taken back
      change.isFinal();
      const stored = await manySteps(tx, ask.runId);
      const there = new Set(stored.map((s) => `${s.order} ${s.source}`));
      // a house may call its order otherwise tomorrow; which sending it is of stays
      const sourceOf = (key: string) => `${timesSent(steps)} ${key}`;
      const news = said.said.filter((s) => !there.has(`${ask.order} ${sourceOf(s.key)}`));
      for (const { key, ...s } of news)
        await insertStep(tx, ask.runId, {
          ...s,
          order: ask.order,
          label: house,
          person: house,
          source: sourceOf(key),
        });
      const promisedOn = said.expectedOn;
      if (promisedOn && news.length > 0) {
        const currency = release!.document.houses?.find((h) => h.id === ask.houseId)?.currency ?? "EUR";
        const row = await upsertPurchase(tx, ask.runId, { order: ask.order, label: house, currency });
        await fillPurchaseDates(tx, row.id, { promisedOn });
      }
      if (news.length > 0) change.says(`${house} on its order ${said.number}: ${wordsOf(news.at(-1)!)}`);
      await updateOrderNumber(tx, ask.id, said.number);
      const all = [
        ...steps,
        ...news.map((s): OrderStep => ({ ...s, id: "", order: ask.order, person: house, source: s.key })),
      ];
      const { waits } = orderStand(all, { today: today(), isHere: false });
      const isOver =
        waits === undefined || waits.on === "carrier" || (await isOrderOver(tx, ask.runId, ask.order));
      // something was written down for it while it was talked to: it hears that at once
      const own = (list: readonly OrderStep[]) =>
        list.filter((s) => s.order === ask.order && s.source === "").length;
      isBehind = own(stored) > own(steps);
      await orderTalk.end(tx, ask.id, "answered", "", isBehind ? 0 : isOver ? undefined : config.orderLookMs);
      await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    });
    countJob("done");
    if (isBehind) later(0);
  } catch (error) {
    countJob("failed");
    // a run that was closed meanwhile takes no more; other troubles pass and are tried again
    if (!(error instanceof AppError)) throw error;
    return tryAgain(deps, workshopId, orderTalk, { ...ask, tries: MOST_TRIES }, error.message, later);
  }
}

const wordsOf = (s: HouseOrderAnswer["said"][number]): string =>
  `${STEP_WORDS[s.state]}${s.words ? `: ${s.words}` : ""}`;

/**
 * @param maybe it may not know the order
 * @throws Error in words for the person: what went wrong
 */
async function call(url: string, method: "PUT", body: object): Promise<HouseOrderAnswer>;
async function call(
  url: string,
  method: "POST",
  body: object,
  maybe: true,
): Promise<HouseOrderAnswer | undefined>;
async function call(url: string, method: string, body: object, maybe = false) {
  const response = await fetch(url, {
    method,
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  if (maybe && response.status === 404) return undefined;
  const answer = (await response.json().catch(() => ({}))) as HouseOrderAnswer & { message?: string };
  if (!response.ok) throw new Error(answer.message ?? `It answered ${response.status}.`);
  const wrong = ANSWER(answer, "");
  if (wrong) throw new Error(`What it says of the order cannot be read: ${wrong}.`);
  return answer;
}
