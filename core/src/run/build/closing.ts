import type { RunDocument } from "../document/document.ts";
import { type RunRecord, tallyOf } from "../document/record.ts";
import { lotsOf, plannedUse } from "../needs/usage.ts";
import type { RunResult } from "../stage/result.ts";

/** A lot on the shelf with what a run took of it. */
export interface LotLeft {
  readonly lot: string;
  readonly mpn: string;
  readonly place: string;
  readonly had: number;
  /** By the boards that were started, loose parts by the good ones, with the usual losses: an estimate until somebody counts. */
  readonly used: number;
  readonly stays: number;
}

/** A lot as it lies on the shelf now. */
export interface LotNow {
  readonly id: string;
  readonly mpn: string;
  readonly place: string;
  readonly qty: number;
}

/**
 * What a run leaves of the lots it counted on and of those that came for it: each purchase used its pieces for the boards
 * started, loose parts for the good ones ({@link plannedUse}, to the nearest piece), the shelf's own lots first, then what
 * came, oldest first; never more than lies there or was meant for it.
 */
export function leftOnShelf(
  doc: RunDocument,
  r: Pick<RunResult, "needs" | "start">,
  record: RunRecord,
  shelf: readonly LotNow[],
): LotLeft[] {
  const now = new Map(shelf.map((l) => [l.id, l]));
  const tally = tallyOf(record.work);
  return r.needs.flatMap((n) => {
    let open = Math.round(plannedUse(doc, n, tally, r.start));
    return lotsOf(doc, n, record.receipts).flatMap(({ id, meant }) => {
      const lot = now.get(id);
      if (!lot) return [];
      const used = Math.min(open, meant, lot.qty);
      open -= used;
      return [{ lot: id, mpn: lot.mpn, place: lot.place, had: lot.qty, used, stays: lot.qty - used }];
    });
  });
}
