import { boardKey } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { type BareKept, isNotBuilt, type RunRecord, tallyOf } from "../document/record.ts";
import { PURPOSES, type SurplusPurpose, surplusPlan } from "../document/surplus.ts";
import type { RunResult } from "../stage/result.ts";

/** Bare boards of one kind that came: how many are built, put by, and without a purpose yet. */
export interface BareLeft {
  readonly item: string;
  /** Pieces that may be used, and those set apart. */
  readonly usable: number;
  readonly apart: number;
  /** Pieces that are built: planned, or begun where that is more. */
  readonly built: number;
  readonly kept: readonly BareKept[];
  /** Pieces without a purpose, of what may be used and of what is set apart. */
  readonly left: number;
  readonly leftApart: number;
  /** What those that may be used could be for: as it was planned at Fab, else as it is usual. */
  readonly proposed: Partial<Record<SurplusPurpose, number>>;
}

/**
 * What became of the bare boards of a run: conserved, usable = built + put by + left, spare ones counting as put by until they
 * are begun.
 *
 * @param isClosed nothing more is built of it: only what was begun counts
 */
export function bareLeft(
  doc: RunDocument,
  r: Pick<RunResult, "start"> & { readonly goes: ReadonlySet<string> },
  record: RunRecord,
  index: number,
  isClosed = false,
): BareLeft {
  const item = boardKey(doc, index);
  const { perProduct } = doc.boards[index]!;
  const sum = (of: readonly { readonly n: number }[]) => of.reduce((n, x) => n + x.n, 0);
  const came = (isApart: boolean) =>
    sum(record.receipts.filter((x) => x.item === item && x.isApart === isApart).map((x) => ({ n: x.qty })));
  const kept = (record.kept ?? []).filter((k) => k.item === item);
  const put = (is: (k: BareKept) => boolean) => sum(kept.filter(is).map((k) => ({ n: k.pieces })));
  const { started } = tallyOf(record.work);
  const [usable, apart] = [came(false), came(true)];
  const built = Math.max(isClosed ? 0 : r.start, started) * perProduct;
  const spare = put((k) => !k.isApart && k.purpose === "spare");
  const other = put(isNotBuilt);
  // what was begun beyond the plan was spare
  const lying = Math.max(0, spare - Math.max(0, started - r.start) * perProduct);
  const left = Math.max(0, usable - built - other - lying);
  return {
    item,
    usable,
    apart,
    built,
    kept,
    left,
    leftApart: Math.max(0, apart - put((k) => k.isApart)),
    proposed: proposed(doc, r, kept, left),
  };
}

/** The plan of Fab, else the usual one, without what is put by already, as far as the boards reach; the rest is spare. */
function proposed(
  doc: RunDocument,
  r: { readonly goes: ReadonlySet<string> },
  kept: readonly BareKept[],
  left: number,
): Partial<Record<SurplusPurpose, number>> {
  const has = kept.reduce((n, k) => n + (k.isApart ? 0 : k.pieces), 0);
  const plan = doc.choices.surplus ?? surplusPlan(left + has, r.goes.has("stencil"));
  const out: Partial<Record<SurplusPurpose, number>> = {};
  let n = left;
  for (const purpose of PURPOSES) {
    const is = kept.reduce((s, k) => s + (k.purpose === purpose ? k.pieces : 0), 0);
    const take = Math.min(n, Math.max(0, (plan[purpose] ?? 0) - is));
    if (take > 0) out[purpose] = take;
    n -= take;
  }
  if (n > 0) out.spare = (out.spare ?? 0) + n;
  return out;
}
