import type { HouseQuote } from "@kobbin/contract";
import { AppError, fabRequest, shapes } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { countJob } from "../metrics.ts";
import { maybeHouseKey } from "../resources/house/index.ts";
import { buildDocument, houseTalk, oneRun, upsertQuote } from "../resources/run/index.ts";
import { PATIENCE_MS, reasonOf } from "../resources/source/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { tryAgain } from "./try-again.ts";

/** What a house's answer must hold, before it counts as a quotation. */
const ANSWER = shapes.fields({
  total: shapes.money,
  currency: shapes.currency,
  days: shapes.whole(0, 1000),
  validUntil: shapes.day,
  question: shapes.maybe(shapes.text(500)),
});

/**
 * Asks one house for the boards of a run and keeps its answer as a quotation for just what was asked. One that fails is
 * asked again after a while, each time twice as long; an earlier quotation stays until it answers.
 */
export async function answerHouse(
  deps: Pick<WorkerDeps, "pool" | "config" | "today" | "patienceMs">,
  { workshopId, askId }: { readonly workshopId: string; readonly askId: string },
  later: (inMs: number) => void,
): Promise<void> {
  const { pool, config, today, patienceMs = PATIENCE_MS } = deps;
  const found = await withWorkshop(pool, workshopId, async (tx) => {
    const ask = await houseTalk.claim(tx, askId, patienceMs * 2);
    if (!ask) return undefined;
    const run = await oneRun(tx, ask.runId);
    const key = await maybeHouseKey(tx, ask.houseId);
    const { document } = await buildDocument(tx, run, today());
    await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    return { ask, key, document, house: document.houses?.find((h) => h.id === ask.houseId) };
  });
  if (!found) return;
  const { ask, key, document, house } = found;
  const end = (state: "answered" | "failed", reason: string) =>
    withWorkshop(pool, workshopId, async (tx) => {
      await houseTalk.end(tx, askId, state, reason);
      await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    });
  if (!house || key === undefined) return end("failed", "It can no longer be asked.");
  const request = fabRequest(document, house, ask.start);
  let said: HouseQuote;
  try {
    said = await askHouse(config.standInsUrl, key, request, AbortSignal.timeout(patienceMs));
  } catch (error) {
    countJob("failed");
    return tryAgain(deps, workshopId, houseTalk, ask, reasonOf(error), later);
  }
  try {
    await recordChange(
      pool,
      { workshopId, accountId: ask.accountId, person: ask.person, ...(ask.page ? { page: ask.page } : {}) },
      async (tx, change) => {
        change.about({ runId: ask.runId });
        change.says(`${house.name} quotes ${said.total} ${said.currency}, ${said.days} days`);
        await upsertQuote(tx, ask.runId, {
          houseId: house.id,
          kind: "fab",
          ...said,
          capturedOn: today(),
          basis: request.basis,
        });
        await houseTalk.end(tx, askId, "answered", "");
        await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
      },
    );
    countJob("done");
  } catch (error) {
    countJob("failed");
    // a run that was released meanwhile keeps what it was released with; other troubles pass and are tried again
    if (!(error instanceof AppError)) throw error;
    await end("failed", error.message);
  }
}

/** @throws Error in words for the person: what went wrong */
async function askHouse(
  url: string,
  key: string,
  { boards, options }: ReturnType<typeof fabRequest>,
  signal: AbortSignal,
): Promise<HouseQuote> {
  const response = await fetch(`${url}/houses/${key}/quote`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ boards, options }),
    signal,
  });
  const body = (await response.json().catch(() => ({}))) as HouseQuote & { message?: string };
  if (!response.ok) throw new Error(body.message ?? `It answered ${response.status}.`);
  const wrong = ANSWER(body, "");
  if (wrong) throw new Error(`Its answer is no quotation: ${wrong}.`);
  return body;
}
