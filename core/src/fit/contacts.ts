import type { Measure } from "../board/measure-document.ts";
import type { Tolerances } from "../fab/tolerances.ts";
import { type FitResult, judgeFit } from "./fit.ts";
import type { FitJudged, FitSpec } from "./row.ts";

const mm = (v: number) => String(Math.round(v * 1000) / 1000);

/**
 * A row of edge contacts in a socket: whether the tab goes in, and how far it can slip sideways in it, so that a contact of
 * the socket leaves its own finger or meets the next one. The tightest of the three is what counts.
 *
 * Slip = (opening − tab) / 2. On its own finger remains (finger + contact) / 2 − slip, to the next one
 * pitch − (finger + contact) / 2 − slip; half of both widths' tolerances and the place of the copper to the edge add up.
 */
export function judgeContacts(
  id: string,
  s: Extract<FitSpec, { kind: "contacts" }>,
  m: Measure,
  t: Required<Tolerances>,
): Omit<FitJudged, "row" | "verdict"> {
  const row = m.edgeContacts?.[s.side];
  if (!row) return { board: "no edge contacts", because: `No edge contacts are found on the ${s.side}.` };
  if (row.tabMm === undefined)
    return {
      board: `${row.count} edge contacts`,
      because: "The tab's width was not measured by the version that read this board: measure it again.",
    };
  const tab = row.tabMm;
  const slip = [
    { mm: s.openingMm / 2, tolMm: s.openingTolMm / 2, sign: -1 },
    { mm: tab / 2, tolMm: t.outlineMm / 2, sign: 1 },
    { mm: 0, tolMm: t.placeMm, sign: 1 },
  ];
  const own = (row.widthMm + s.contactMm) / 2;
  const chain = (terms: readonly object[]): FitResult => judgeFit({ id, kind: "chain", terms });
  const ways = [
    {
      says: "going in is tightest",
      result: chain([
        { mm: s.openingMm, tolMm: s.openingTolMm, sign: 1 },
        { mm: tab, tolMm: t.outlineMm, sign: -1 },
      ]),
      mend: (missing: number) => s.openingMm + missing,
    },
    {
      says: "staying on its own finger is tightest",
      result: chain([{ mm: own, sign: 1 }, ...slip]),
      mend: (missing: number) => s.openingMm - 2 * missing,
    },
    {
      says: "the next finger is tightest",
      result: chain([{ mm: row.pitchMm, sign: 1 }, { mm: own, sign: -1 }, ...slip]),
      mend: (missing: number) => s.openingMm - 2 * missing,
    },
  ];
  const tightest = ways.reduce((a, b) => (b.result.worstMm[0] < a.result.worstMm[0] ? b : a));
  const { missingMm } = tightest.result;
  const most = (s.openingMm + s.openingTolMm - tab + t.outlineMm) / 2;
  const mended = tightest.mend(missingMm);
  // a narrower opening must still take the tab
  const isTaken = mended - s.openingTolMm - tab - t.outlineMm >= -1e-9;
  return {
    result: tightest.result,
    board: `${row.count} fingers of ${mm(row.widthMm)} at ${mm(row.pitchMm)} mm on a tab of ${mm(tab)} mm ± ${mm(t.outlineMm)}, slips up to ${mm(most)} mm each way; ${tightest.says}`,
    ...(isTaken ? { mend: `a socket of ${mm(mended)} mm instead of ${mm(s.openingMm)}` } : {}),
    ...(row.at ? { at: row.at } : {}),
  };
}
