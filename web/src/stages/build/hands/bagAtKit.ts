import type { LotRow } from "@kobbin/contract";
import {
  bagCode,
  type KitLine,
  numberKey,
  type PieceMark,
  type RunDocument,
  type RunRecord,
} from "@kobbin/core";

/** What a scanned label of a lot is to the kit: a kind it lays out, or why it lays out none. */
export type BagAtKit =
  | { readonly kind: KitLine; readonly lot: LotRow; readonly isAgain: boolean }
  | { readonly wrong: string };

/**
 * Holds a bag in the hand against what is to be laid out: of the part, come for the line, to be used, and not somebody else's.
 *
 * @param kit nothing where another step is at hand
 * @param marks of the kit's pieces
 */
export function bagAtKit(
  number: number,
  lots: readonly LotRow[],
  kit: readonly KitLine[],
  { doc, record, runId }: { readonly doc: RunDocument; readonly record: RunRecord; readonly runId: string },
  marks: Readonly<Record<string, PieceMark>>,
): BagAtKit {
  const lot = lots.find((l) => l.number === number);
  const code = bagCode(number);
  if (!lot) return { wrong: `${code} lies nowhere on the shelf.` };
  const what = `${code} is ${lot.mpn}`;
  if (kit.length === 0) return { wrong: `${what}: nothing is laid out at this step.` };
  const came = record.receipts.filter((r) => r.lot === lot.id).map((r) => r.item);
  const lines = new Set(doc.offers.filter((o) => came.includes(o.id)).map((o) => o.line));
  const key = numberKey(lot.mpn);
  const kind = kit.find(
    (k) => lines.has(k.line) || numberKey(doc.lines.find((l) => l.id === k.line)?.mpn ?? "") === key,
  );
  if (!kind) return { wrong: `${what}: this run has none of it.` };
  if (lot.condition === "quarantine") return { wrong: `${what}, set apart: it is not to be used.` };
  const others = lot.reserved.filter((r) => r.runId !== runId);
  if (lot.qty <= others.reduce((n, r) => n + r.qty, 0))
    return {
      wrong:
        lot.qty === 0
          ? `${what}: it is empty.`
          : `${what}, all of it kept for ${others.map((r) => r.run).join(", ")}.`,
    };
  return { kind, lot, isAgain: marks[kind.name] === "done" };
}
