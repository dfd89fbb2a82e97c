import { fabRequest } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { askOutside } from "../outside/index.ts";
import { maybeHouseKey } from "../resources/house/index.ts";
import { buildDocument, type HouseAsked, houseTalk, oneRun, upsertQuote } from "../resources/run/index.ts";
import { PATIENCE_MS } from "../resources/source/index.ts";
import { asking, NoLongerAsked, readerFor, type Waiting } from "./asking.ts";
import type { WorkerDeps } from "./deps.ts";

type HouseDeps = Pick<WorkerDeps, "pool" | "config" | "compute" | "today" | "patienceMs" | "log">;

/**
 * Asks one house for the boards of a run and keeps its answer as a quotation for just what was asked. One that fails is
 * asked again after a while, each time twice as long; an earlier quotation stays until it answers.
 */
export const answerHouse = (deps: HouseDeps, due: Waiting, later: (inMs: number) => void): Promise<boolean> =>
  asking(
    deps,
    due,
    houseTalk,
    (ask) => askAndKeep(deps, due.workshopId, ask),
    (deps.patienceMs ?? PATIENCE_MS) * 2,
    later,
  );

async function askAndKeep(
  { pool, config, compute, today, patienceMs = PATIENCE_MS }: HouseDeps,
  workshopId: string,
  ask: HouseAsked,
): Promise<void> {
  const { key, document } = await withWorkshop(pool, workshopId, async (tx) => {
    const { document } = await buildDocument(tx, await oneRun(tx, ask.runId), today());
    return { key: await maybeHouseKey(tx, ask.houseId), document };
  });
  const house = document.houses?.find((h) => h.id === ask.houseId);
  if (!house || key === undefined) throw new NoLongerAsked("It can no longer be asked.");
  const { boards, options, basis } = fabRequest(document, house, ask.start);
  const answer = await askOutside(config.standInsUrl, {
    method: "POST",
    path: ["houses", key, "quote"],
    body: { boards, options },
    patienceMs,
  });
  const said = await readerFor(compute, workshopId)(answer, "quote");
  await recordChange(
    pool,
    { workshopId, accountId: ask.accountId, person: ask.person, ...(ask.page ? { page: ask.page } : {}) },
    async (tx, change) => {
      change.about({ runId: ask.runId });
      change.says(`${house.name} quotes ${said.total} ${said.currency}, ${said.days} days`);
      await upsertQuote(tx, ask.runId, {
        ...said,
        houseId: house.id,
        kind: "fab",
        capturedOn: today(),
        basis,
      });
      await houseTalk.end(tx, ask.id, "answered", "");
      await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    },
  );
}
