import { isTooFar, limitText, offWords, pointWords, type TestItem, type UnitLine } from "@kobbin/core";

/** Room above and below the line, and for the words under it. */
const HALF = 30;
const WORDS = 18;

/** Where the points of a line are drawn: across by what is applied, up and down by how far they are off. */
export function graphOf({ line, fit }: UnitLine<TestItem>, wide: number) {
  // from point to point there is nothing to be off
  if (fit?.kind !== "straight") return undefined;
  const applied = fit.points.map((p) => p.applied);
  const [lo, hi] = [Math.min(...applied), Math.max(...applied)];
  const allowed = line.worst === undefined ? undefined : Number(line.worst);
  const most = Math.max(...fit.points.map((p) => Math.abs(p.off)), (allowed ?? 0) * 1.25) || 1;
  const mid = HALF + 6;
  return {
    mid,
    high: 2 * mid + WORDS,
    ...(allowed === undefined ? {} : { band: (HALF * allowed) / most }),
    points: fit.points.map((p, i) => {
      const x = 14 + ((wide - 28) * (p.applied - lo)) / (hi - lo);
      return {
        applied: line.items[i]!.point!.applied,
        off: offWords(p.off, line.worst),
        x,
        y: mid - (HALF * p.off) / most,
        anchor: x < 30 ? ("start" as const) : x > wide - 30 ? ("end" as const) : ("middle" as const),
        isOver: isTooFar(p.off, line.worst),
      };
    }),
  };
}

/** How a line stands, in words. */
export function standWords({ line, fit, stand, off }: UnitLine<TestItem>): string {
  if (off) return off.because;
  if (!fit) return stand === "fail" ? "a point fails" : "not every point is read";
  if (fit.kind === "pieces")
    return `${line.items.length} points, straight between them; beyond them nothing is known`;
  const far = `${offWords(fit.points[fit.worst]!.off, line.worst)} ${line.unit}`;
  return line.items.length === 2
    ? "two points: nothing is known of what is between them"
    : line.worst === undefined
      ? `at most ${far} off, and nobody says what is allowed`
      : `at most ${far} off, ${line.worst} allowed`;
}

/** What an item should come to, in short: its limits, what is applied at a point, yes. */
export const mustBe = (t: TestItem): string =>
  [t.point && pointWords({ ...t.point, most: undefined }), limitText(t)].filter(Boolean).join(": ") ||
  (t.unit === undefined ? "yes" : "");
