import type { RunDocument } from "../document/document.ts";
import { type RunRecord, tallyOf } from "../document/record.ts";
import { type BenchUse, benchUse } from "../needs/bench-use.ts";
import { lotsOf, plannedUse } from "../needs/usage.ts";
import type { RunResult } from "../stage/result.ts";

/** A lot on the shelf with what a run took of it. */
export interface LotLeft {
  readonly lot: string;
  readonly mpn: string;
  readonly place: string;
  readonly had: number;
  /** By the boards that were started, loose parts by the good ones, with the usual losses: an estimate until somebody counts, or the bench pressed every piece. */
  readonly used: number;
  readonly stays: number;
  /** All pieces of its purchase went on by the bench's own presses, with those lost there: that is what is used. */
  readonly bench?: BenchUse;
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
 * started, loose parts for the good ones ({@link plannedUse}, to the nearest piece), or, where the bench pressed every piece
 * of it, what went on and was lost there ({@link benchUse}); the shelf's own lots first, then what came, oldest first; never
 * more than lies there or was meant for it.
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
    const bench = benchUse(doc, n, record);
    let open = bench ? bench.on + bench.lost : Math.round(plannedUse(doc, n, tally, r.start));
    return lotsOf(doc, n, record.receipts).flatMap(({ id, meant }) => {
      const lot = now.get(id);
      if (!lot) return [];
      const used = Math.min(open, meant, lot.qty);
      open -= used;
      return [
        {
          lot: id,
          mpn: lot.mpn,
          place: lot.place,
          had: lot.qty,
          used,
          stays: lot.qty - used,
          ...(bench ? { bench } : {}),
        },
      ];
    });
  });
}
