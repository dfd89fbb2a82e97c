import {
  type BareKept,
  isOrderOf,
  type RunReceipt,
  refuseMiscount,
  refuseOverKept,
  tallyOf,
  usableProducts,
} from "@kobbin/core";
import { lockCounts } from "../db/lock.ts";
import type { Tx } from "../db/pool.ts";
import type { ChangedRow } from "./sentence.ts";

const COUNTED: ReadonlySet<string> = new Set(["work", "receipt", "bare_kept"]);

/**
 * Boards are conserved whoever writes what in whichever order, undo among them: after every change of what came, was put by or built
 * the run's sums are held against each other. The run is held meanwhile, so that two people count one after the other.
 *
 * @throws AppError OUT_OF_RANGE with the numbers; nothing is kept then
 */
export async function refuseMiscounts(
  tx: Tx,
  changed: readonly ChangedRow[],
  runId: string | undefined,
): Promise<void> {
  if (!runId || !changed.some((r) => COUNTED.has(r.table))) return;
  await lockCounts(tx, runId);
  const { rows: work } = await tx.query<{
    started: number;
    good: number;
    reworked: number;
    scrapped: number;
  }>("select started, good, reworked, scrapped from work where run_id = $1", [runId]);
  const { rows: receipts } = await tx.query<Pick<RunReceipt, "order" | "item" | "qty" | "isApart">>(
    `select order_key as "order", item, qty, is_apart as "isApart" from receipt where run_id = $1`,
    [runId],
  );
  const { rows: boards } = await tx.query<{ item: string; perProduct: number }>(
    `select coalesce(b ->> 'id', 'board ' || n - 1) as item, (b ->> 'perProduct')::int as "perProduct"
     from release as r, jsonb_array_elements(r.document -> 'boards') with ordinality as x (b, n)
     where r.run_id = $1`,
    [runId],
  );
  const { rows: kept } = await tx.query<Pick<BareKept, "item" | "isApart" | "purpose" | "pieces">>(
    `select item, is_apart as "isApart", purpose, pieces from bare_kept where run_id = $1`,
    [runId],
  );
  const full = { id: "", on: "", minutes: 0 };
  const came = receipts.map((r) => ({ ...r, id: "", arrivedOn: "", because: "" }));
  // where boards were written down as come and are taken back, none are there
  const areGone = changed.some(
    (r) => r.table === "receipt" && r.op === "delete" && isOrderOf("boards", String(r.was?.order_key)),
  );
  refuseOverKept(
    { receipts: came, kept },
    boards.map((b) => b.item),
  );
  refuseMiscount(
    tallyOf(work.map((w) => ({ ...full, ...w }))),
    usableProducts({ receipts: came, kept }, boards) ?? (areGone ? 0 : undefined),
  );
}
