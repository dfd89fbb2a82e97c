import type { Measure } from "../board/measure-document.ts";
import type { Tolerances } from "../fab/tolerances.ts";
import { type FitResult, judgeFit } from "./fit.ts";
import { type FitJudged, type FitSpec, mmWords as mm } from "./row.ts";

/**
 * A row of edge contacts in a socket: whether the tab goes in, and how far it can slip sideways in it, so that a contact of
 * the socket leaves its own contact of the board or meets the next one. The tightest of the three is what counts.
 *
 * Slip = (opening − tab) / 2. On its own remains half of both widths − slip, to the next one pitch − half of both − slip; half of both widths' tolerances and the place of the copper to the edge add up.
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
  const chain = (terms: readonly object[]): FitResult => judgeFit({ id, kind: "chain", terms });
  const own = (row.widthMm + s.contactMm) / 2;
  const waysIn = (openingMm: number) => {
    const slip = [
      { mm: openingMm / 2, tolMm: s.openingTolMm / 2, sign: -1 },
      { mm: tab / 2, tolMm: t.outlineMm / 2, sign: 1 },
      { mm: 0, tolMm: t.placeMm, sign: 1 },
    ];
    return [
      {
        says: "going in",
        result: chain([
          { mm: openingMm, tolMm: s.openingTolMm, sign: 1 },
          { mm: tab, tolMm: t.outlineMm, sign: -1 },
        ]),
        other: (missing: number) => openingMm + missing,
      },
      {
        says: "staying on its own contact",
        result: chain([{ mm: own, sign: 1 }, ...slip]),
        other: (missing: number) => openingMm - 2 * missing,
      },
      {
        says: "the next contact",
        result: chain([{ mm: row.pitchMm, sign: 1 }, { mm: own, sign: -1 }, ...slip]),
        other: (missing: number) => openingMm - 2 * missing,
      },
    ];
  };
  const tightest = waysIn(s.openingMm).reduce((a, b) => (b.result.worstMm[0] < a.result.worstMm[0] ? b : a));
  // with all that may be off at once: opening, tab, and where the copper lies on it; words and picture say the same
  const most = Math.max(0, (s.openingMm + s.openingTolMm - tab + t.outlineMm) / 2 + t.placeMm);
  // what mends one way may spoil another: only an opening that is right in all of them is named
  const other = Math.round(tightest.other(tightest.result.missingMm) * 1e4) / 1e4;
  const isRight = other > 0 && waysIn(other).every((w) => w.result.worstMm[0] >= -1e-6);
  return {
    result: tightest.result,
    board: `${row.count} contacts of ${mm(row.widthMm)} at ${mm(row.pitchMm)} mm on a tab of ${mm(tab)} mm ± ${mm(t.outlineMm)}, slips up to ${mm(most)} mm each way at worst; ${tightest.says} is tightest`,
    slip: {
      pitchMm: row.pitchMm,
      widthMm: row.widthMm,
      contactMm: s.contactMm,
      mostMm: Math.round(most * 1e4) / 1e4,
    },
    ...(isRight ? { mend: `a socket of ${mm(other)} mm instead of ${mm(s.openingMm)}` } : {}),
    ...(row.at ? { at: row.at } : {}),
  };
}
