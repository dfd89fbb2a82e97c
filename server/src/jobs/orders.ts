import type { HouseOrder, HouseOrderAnswer } from "@kobbin/contract";
import {
  inTime,
  isOrderOf,
  isSentWith,
  isTold,
  type OrderStep,
  orderOf,
  orderStand,
  STEP_WORDS,
} from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import { lockRun } from "../db/lock.ts";
import type { Tx } from "../db/pool.ts";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { askOutside, OutsideError } from "../outside/index.ts";
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
import { asking, NoLongerAsked, readerFor, type Waiting } from "./asking.ts";
import type { WorkerDeps } from "./deps.ts";

/** A parcel of files takes longer than a question. */
const PATIENCE_MS = 30_000;

type OrderDeps = Pick<WorkerDeps, "pool" | "config" | "compute" | "today" | "log">;

/** Steps of a run's orders that are kept; an order that goes well has seven. */
const MOST_STEPS = 500;

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
export const followOrder = (deps: OrderDeps, due: Waiting, later: (inMs: number) => void): Promise<boolean> =>
  asking(
    deps,
    due,
    orderTalk,
    (ask) => follow(deps, due.workshopId, ask, later),
    PATIENCE_MS * 2,
    later,
    deps.config.orderLookMs,
  );

async function follow(
  deps: OrderDeps,
  workshopId: string,
  ask: OrderAsked,
  later: (inMs: number) => void,
): Promise<void> {
  const { pool, config } = deps;
  const read = readerFor(deps.compute, workshopId);
  const known = await withWorkshop(pool, workshopId, (tx) => knownOf(tx, ask));
  const { key, steps, release } = known;
  if (key === undefined || !release) throw new NoLongerAsked("It can no longer be asked.");
  const since = steps.findLastIndex((s) => s.state === "sent");
  const reference = `${ask.runId}-${orderOf(ask.order).kind}-${timesSent(steps)}`;
  const path = ["houses", key, "orders", reference];
  const told = steps
    .slice(Math.max(0, since))
    .filter((s) => s.source === "" && isTold(s.state))
    .map(({ state, on, words }) => ({ state, on, words }));
  // what it has is asked first, always: whether it was sent before, nobody may have heard
  const answer = await askOutside(config.standInsUrl, {
    method: "POST",
    path: [...path, "told"],
    body: { told },
    patienceMs: PATIENCE_MS,
  });
  if (answer.status !== 404) return kept(deps, workshopId, known, await read(answer, "order"), later);
  if (ask.number === "") {
    const sent = await askOutside(config.standInsUrl, {
      method: "PUT",
      path,
      onceUnder: reference,
      body: { ...(await sentOrder(deps, workshopId, known)), told },
      patienceMs: PATIENCE_MS,
    });
    return kept(deps, workshopId, known, await read(sent, "order"), later);
  }
  // the same order under the same reference: sent again it is no second one
  await withWorkshop(pool, workshopId, async (tx) => {
    await updateOrderNumber(tx, ask.id, "");
    await orderTalk.putOff(tx, ask.id, "It did not know the order any more; its files go there again.", 0);
  });
  later(0);
}

/** What was taken back and sent again is another order at the house: the first, the second. */
const timesSent = (steps: readonly OrderStep[]): number => steps.filter((s) => s.state === "sent").length;

async function knownOf(tx: Tx, ask: OrderAsked): Promise<Known> {
  const release = await maybeRelease(tx, ask.runId);
  return {
    ask,
    key: await maybeHouseKey(tx, ask.houseId),
    steps: inTime((await manySteps(tx, ask.runId)).filter((s) => s.order === ask.order)),
    release,
    ...(release && ask.number === "" ? { zip: await onePackage(tx, ask.runId) } : {}),
  };
}

/** The order as its house is sent it: what is asked for, and the files of the released package it needs: nothing of prices, baskets and the run itself. */
async function sentOrder(
  { compute }: Pick<WorkerDeps, "compute">,
  workshopId: string,
  { ask, steps, release, zip }: Known,
): Promise<Omit<HouseOrder, "told">> {
  const isBoards = isOrderOf("boards", ask.order);
  const files = unpackZip(zip!).filter((f) => isSentWith(f.path, isBoards ? "boards" : "assembly"));
  const kind = isBoards ? "fab" : "assembly";
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
  deps: OrderDeps,
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
  await recordChange(pool, by, async (tx, change) => {
    change.about({ runId: ask.runId });
    // another's word is not taken back
    change.isFinal();
    // whoever writes a step down holds the run: it stands among these, or comes after and makes the order due again
    await lockRun(tx, ask.runId);
    const stored = await manySteps(tx, ask.runId);
    const there = new Set(stored.map((s) => `${s.order} ${s.source}`));
    // a house may call its order otherwise tomorrow; which sending it is of stays
    const sourceOf = (key: string) => `${timesSent(steps)} ${key}`;
    const news = said.said.filter((s) => !there.has(`${ask.order} ${sourceOf(s.key)}`));
    if (stored.length + news.length > MOST_STEPS)
      throw new OutsideError(`It says more of this order than is kept: ${MOST_STEPS} steps.`);
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
  if (isBehind) later(0);
}

const wordsOf = (s: HouseOrderAnswer["said"][number]): string =>
  `${STEP_WORDS[s.state]}${s.words ? `: ${s.words}` : ""}`;
