import { counted, type OfferChange, offerChanges, type RunOffer } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { manyPartsFor } from "../resources/library/index.ts";
import { manyLines, oneRun } from "../resources/run/index.ts";
import { oneShop } from "../resources/shop/index.ts";
import {
  type Answered,
  type Asked,
  askSupplier,
  deleteNeedlessFound,
  manyOffers,
  manySuppliers,
  PATIENCE_MS,
  replaceFeedOffers,
  rulesWanted,
  searchSupplier,
  settleAsk,
  supplierTalk,
  wantedOf,
} from "../resources/source/index.ts";
import { asking, NoLongerAsked, readerFor, type Waiting } from "./asking.ts";
import { createBeside } from "./beside.ts";
import type { WorkerDeps } from "./deps.ts";
import { answerHouse } from "./houses.ts";
import { followOrder } from "./orders.ts";
import type { DurableQueue } from "./queue.ts";

/** A question that waits. */
export interface AskDue extends Waiting {
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
  batchSize: 20,
  beside: {
    room: createBeside({ inAll: 24, perShop: 6 }),
    of: ({ askId, workshopId }) => ({ key: askId, shop: workshopId }),
  },
  // of each shop the first: one that asks hundreds does not fill the list for the others
  due: async () => {
    const { rows } = await deps.pool.query<AskDue>(
      `select "workshopId", "askId", "to" from (
         select *, row_number() over (partition by "workshopId" order by next_at) as turn from (
           select workshop_id as "workshopId", ask_id as "askId", 'supplier' as "to", next_at from feed_due
           union all
           select workshop_id, ask_id, 'house', next_at from house_due
           union all
           select workshop_id, ask_id, 'order', next_at from order_due
         ) as every where next_at <= clock_timestamp()
       ) as due where turn <= 12 order by turn, next_at limit 400`,
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
export const answerAsk = (
  deps: Pick<WorkerDeps, "pool" | "config" | "compute" | "today" | "patienceMs" | "log">,
  due: Waiting,
  later: (inMs: number) => void,
): Promise<boolean> =>
  asking(
    deps,
    due,
    supplierTalk,
    (ask) => askAndKeep(deps, due.workshopId, ask),
    (deps.patienceMs ?? PATIENCE_MS) * 2,
    later,
  );

async function askAndKeep(
  { pool, config, compute, today, patienceMs = PATIENCE_MS }: Parameters<typeof answerAsk>[0],
  workshopId: string,
  ask: Asked,
): Promise<void> {
  const { run, lines, supplier, wanted, rules, sold } = await withWorkshop(pool, workshopId, async (tx) => {
    const run = await oneRun(tx, ask.runId);
    const lines = await manyLines(tx, run.revisionId);
    const supplier = (await manySuppliers(tx)).find((s) => s.id === ask.supplierId);
    const { library, alternates } = await manyPartsFor(tx, lines, ask.runId);
    const { rules } = await oneShop(tx);
    const wanted = wantedOf(lines, library, alternates, rules);
    const known = await manyOffers(tx, run.revisionId);
    const sold = new Set(known.flatMap((o) => (o.part === undefined && !o.candidate ? [o.line] : [])));
    return { run, lines, supplier, wanted, rules, sold };
  });
  if (!supplier?.feedKey) throw new NoLongerAsked("It can no longer be asked.");
  const until = performance.now() + patienceMs;
  const read = readerFor(compute, workshopId);
  const numbers = await askSupplier(config.standInsUrl, supplier, wanted, today(), patienceMs, read);
  const left = Math.max(1, until - performance.now());
  const unsold = numbers.notListed.filter((l) => !sold.has(l));
  const asked = rulesWanted(lines, rules, new Set(unsold));
  const any = await searchSupplier(config.standInsUrl, supplier, asked, today(), left, read);
  const said: Answered = { ...numbers, offers: [...numbers.offers, ...any] };
  await recordChange(
    pool,
    { workshopId, accountId: ask.accountId, person: ask.person, ...(ask.page ? { page: ask.page } : {}) },
    async (tx, change) => {
      change.about({ runId: run.id, revisionId: run.revisionId });
      change.says(`${supplier.name} answered: ${counted(said.offers.length, "offer")}`);
      // one answer after the other: what one lists makes needless what another named in its place
      await tx.query("update run set asked_at = now() where id = $1", [run.id]);
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
      await deleteNeedlessFound(tx, [...there]);
      await settleAsk(tx, ask.id, {
        offers: offers.length,
        notListed: said.notListed.filter((l) => there.has(l)),
        changes: newsOf(ask, before, offers),
      });
      await tell(tx, { kind: "asking", workshop: workshopId, runId: run.id });
    },
  );
}

/** What moved since it was asked before; of parts it named itself nothing is news: another list is another list. */
function newsOf(ask: Asked, before: readonly RunOffer[], offers: Answered["offers"]): OfferChange[] {
  const after = offers
    .filter((o) => !o.candidate)
    .map(({ lineId, partId, ...o }) => ({ ...o, line: lineId, ...(partId ? { part: partId } : {}) }));
  // a line asked for the first time is no news: it is listed now only where it was not before
  return offerChanges(before, after).filter((c) => c.kind !== "listed" || ask.notListed.includes(c.line));
}
