import { AppError, offerChanges } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { countJob } from "../metrics.ts";
import { ofDatabase } from "../middleware/errors.ts";
import { manyPartsFor } from "../resources/library/index.ts";
import { manyLines, oneRun } from "../resources/run/index.ts";
import { oneShop } from "../resources/shop/index.ts";
import {
  type Answered,
  askSupplier,
  manyOffers,
  manySuppliers,
  PATIENCE_MS,
  reasonOf,
  replaceFeedOffers,
  rulesWanted,
  searchSupplier,
  settleAsk,
  supplierTalk,
  wantedOf,
} from "../resources/source/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { answerHouse } from "./houses.ts";
import { followOrder } from "./orders.ts";
import type { DurableQueue } from "./queue.ts";
import { MOST_TRIES, tryAgain } from "./try-again.ts";

/** A question that waits. */
export interface AskDue {
  readonly workshopId: string;
  readonly askId: string;
  /** Whom it is to. */
  readonly to: "supplier" | "house" | "order";
}

/**
 * Questions to suppliers and houses, each by itself: what one answers is stored at once, whatever becomes of the others.
 *
 * @param later called with the milliseconds after which a failed question is due again
 */
export const feedsQueue = (deps: WorkerDeps, later: (inMs: number) => void): DurableQueue<AskDue> => ({
  name: "feeds",
  batchSize: 6,
  isWaiting: true,
  due: async () => {
    const { rows } = await deps.pool.query<AskDue>(
      `select workshop_id as "workshopId", ask_id as "askId", 'supplier' as "to", next_at from feed_due where next_at <= clock_timestamp()
       union all
       select workshop_id, ask_id, 'house', next_at from house_due where next_at <= clock_timestamp()
       union all
       select workshop_id, ask_id, 'order', next_at from order_due where next_at <= clock_timestamp()
       order by next_at limit 200`,
    );
    return rows.map(({ workshopId, askId, to }) => ({ key: askId, data: { workshopId, askId, to } }));
  },
  // a question that was put on the queue before there were others is to a supplier
  work: (data) =>
    data.to === "order"
      ? followOrder(deps, data, later)
      : data.to === "house"
        ? answerHouse(deps, data, later)
        : answerAsk(deps, data, later),
});

/**
 * Asks one supplier and keeps what it says. A supplier that fails is asked again after a while, each time twice as
 * long; its older offers stay until it answers.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one question from its claim to its answer
export async function answerAsk(
  deps: Pick<WorkerDeps, "pool" | "config" | "today" | "patienceMs">,
  { workshopId, askId }: Pick<AskDue, "workshopId" | "askId">,
  later: (inMs: number) => void,
): Promise<void> {
  const { pool, config, today, patienceMs = PATIENCE_MS } = deps;
  const found = await withWorkshop(pool, workshopId, async (tx) => {
    const ask = await supplierTalk.claim(tx, askId, patienceMs * 2);
    if (!ask) return undefined;
    const run = await oneRun(tx, ask.runId);
    const lines = await manyLines(tx, run.revisionId);
    const supplier = (await manySuppliers(tx)).find((s) => s.id === ask.supplierId);
    const { library, alternates } = await manyPartsFor(tx, lines, ask.runId);
    await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
    const { rules } = await oneShop(tx);
    const wanted = wantedOf(lines, library, alternates, rules);
    return { ask, run, lines, supplier, wanted, asked: rulesWanted(lines, rules) };
  });
  if (!found?.supplier) return;
  const { ask, run, lines, supplier, wanted, asked } = found;
  let said: Answered;
  try {
    const patience = AbortSignal.timeout(patienceMs);
    const numbers = await askSupplier(config.standInsUrl, supplier, wanted, today(), patience);
    const any = await searchSupplier(config.standInsUrl, supplier, asked, today(), patience);
    said = { ...numbers, offers: [...numbers.offers, ...any] };
  } catch (error) {
    countJob("failed");
    await tryAgain(deps, workshopId, supplierTalk, ask, reasonOf(error), later);
    return;
  }
  // an answer that cannot be stored is no fault of the supplier's: while the database is away, full or busy the question
  // stays, and is found again by the sweep; what it can never keep is set aside with its reason
  await recordChange(
    pool,
    { workshopId, accountId: ask.accountId, person: ask.person, ...(ask.page ? { page: ask.page } : {}) },
    async (tx, change) => {
      change.about({ runId: run.id, revisionId: run.revisionId });
      change.says(`${supplier.name} answered: ${said.offers.length} offers`);
      // a line may have gone while the supplier was thinking
      const { rows } = await tx.query<{ id: string }>("select id from bom_line where id = any($1::uuid[])", [
        lines.map((l) => l.id),
      ]);
      const there = new Set(rows.map((r) => r.id));
      const offers = said.offers.filter((o) => there.has(o.lineId));
      const before = (await manyOffers(tx, run.revisionId)).filter(
        (o) => o.source === "feed" && o.supplier === supplier.id && there.has(o.line) && !o.candidate,
      );
      await replaceFeedOffers(tx, [...there], [supplier.id], offers);
      // of parts it named itself nothing is news: another list is another list
      const after = offers
        .filter((o) => !o.candidate)
        .map(({ lineId, partId, ...o }) => ({
          ...o,
          line: lineId,
          ...(partId ? { part: partId } : {}),
        }));
      await settleAsk(tx, askId, {
        offers: offers.length,
        notListed: said.notListed.filter((l) => there.has(l)),
        // a line asked for the first time is no news: it is listed now only where it was not before
        changes: offerChanges(before, after).filter(
          (c) => c.kind !== "listed" || ask.notListed.includes(c.line),
        ),
      });
      await tx.query("update run set asked_at = now() where id = $1", [run.id]);
      await tell(tx, { kind: "asking", workshop: workshopId, runId: run.id });
    },
  ).then(
    () => countJob("done"),
    async (error: Error) => {
      countJob("failed");
      const known = error instanceof AppError ? error : ofDatabase(error);
      if (ask.tries < MOST_TRIES || (known && ["DATABASE_AWAY", "STORAGE_FULL", "BUSY"].includes(known.code)))
        throw error;
      const reason = `What it answered cannot be kept: ${(known ?? error).message}`.slice(0, 300);
      await withWorkshop(pool, workshopId, async (tx) => {
        await supplierTalk.end(tx, askId, "failed", reason);
        await tell(tx, { kind: "asking", workshop: workshopId, runId: run.id });
      });
    },
  );
}
