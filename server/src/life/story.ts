import type { BenchAnswer, RunAnswer } from "@kobbin/contract";
import { withWorkshop } from "../db/tx.ts";
import { addRun } from "../demo.ts";
import type { Deps } from "../deps.ts";
import type { By } from "../history/change.ts";
import { computeFigures } from "../jobs/figures.ts";
import { openDoor } from "./door.ts";
import { firstWatches, hasTinOven, ownersWrite, summerTails, summerWatches } from "./past.ts";
import { autumnWatches, comingTails, opensPaste, waitingCards, watchesAtBench } from "./present.ts";
import type { Teller } from "./teller.ts";

/**
 * The life of the demo shop: three runs that are closed, with a claim, a bag that was lost, faults, boards that were
 * worked around and a lesson that caught something, and a run each that waits for its suppliers, whose boards are on
 * their way, and that is at the bench. Told by the same requests a person's pages send.
 */
export async function fillLife(deps: Deps, by: By): Promise<void> {
  // without suppliers nothing can be bought, and nothing was built
  if (!deps.config.standInsUrl) return;
  const door = await openDoor(deps, by, "2026-03-18");
  try {
    const { products } = await door.ask<BenchAnswer>("GET", "/api/bench");
    const revision = (product: string, label: string) =>
      products.find((p) => p.name === product)!.revisions.find((r) => r.label === label)!.id;
    const begin: Teller["begin"] = async (on, revisionId, name, goodBoards, house, assembly) => {
      await door.on(on);
      const id = await addRun(door.deps, by, { revisionId, name, goodBoards }, house, true);
      if (assembly) {
        const { version } = await door.ask<RunAnswer>("GET", `/api/runs/${id}`);
        await door.ask("PATCH", `/api/runs/${id}`, { version, assembly });
      }
      return id;
    };
    const caught = (runId: string) => computeFigures(door.deps, { workshopId: by.workshopId, runId });
    const teller: Teller = { door, revision, begin, caught };
    const today = deps.today();
    const givesUpOven = await hasTinOven(teller);
    const first = await firstWatches(teller);
    await givesUpOven();
    await summerTails(teller);
    const summer = await summerWatches(teller);
    await ownersWrite(teller, first, summer);
    const watches = await autumnWatches(teller, today);
    await opensPaste(teller, today);
    await comingTails(teller, today);
    await waitingCards(teller, today);
    await watchesAtBench(watches, today);
  } finally {
    await door.close();
  }
  // at once, not by a worker: nobody may see the shop before it is whole
  const { rows } = await withWorkshop(deps.pool, by.workshopId, (tx) =>
    tx.query<{ runId: string }>(`select run_id as "runId" from figures_due`),
  );
  for (const { runId } of rows) await computeFigures(deps, { workshopId: by.workshopId, runId });
}
