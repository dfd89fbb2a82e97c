import type { RunDocument } from "../../src/run/document/document.ts";
import type { Counted, Given } from "./given.ts";

// joints per million, iron / stencil / house; minutes to mend one
export const DPMO: Record<string, [number, number, number, number]> = {
  chip: [400, 250, 40, 3],
  chip0402: [900, 500, 60, 3],
  chip0201: [3000, 1500, 100, 3],
  diode: [400, 250, 40, 3],
  small: [500, 300, 50, 5],
  tab: [500, 300, 50, 5],
  gull: [500, 300, 50, 5],
  gullFine: [1500, 900, 120, 5],
  leadless: [3000, 1200, 150, 12],
  ball: [10000, 1500, 80, 40],
  connector: [800, 600, 120, 5],
  through: [400, 400, 200, 3],
};
// seconds to place on paste; by iron a fixed part and one a joint
const SECONDS: Record<string, [place: number, iron: number, perJoint: number]> = {
  chip: [6, 25, 0],
  chip0402: [9, 40, 0],
  chip0201: [18, 90, 0],
  diode: [6, 25, 0],
  small: [8, 30, 0],
  tab: [8, 30, 0],
  gull: [12, 20, 3],
  gullFine: [20, 40, 3.5],
  leadless: [20, 120, 0],
  ball: [30, 240, 0],
  connector: [15, 30, 4],
  through: [0, 8, 7],
};

/** Own minutes of a run: set-up, kitting, and each product with its rework, test and packing. */
export function minutesOf(
  doc: RunDocument,
  fitted: readonly Counted[],
  lines: number,
  given: Given,
  start: number,
  rework: number,
): number {
  const boards = Math.max(
    1,
    doc.boards.reduce((n, b) => n + b.perProduct, 0),
  );
  const designs = Math.max(1, doc.boards.length);
  const sides = given.sides.reduce((a, b) => a + b, 0) || 1;
  const sidesEach = doc.boards.reduce((n, b, i) => n + b.perProduct * given.sides[i]!, 0) || 1;
  const own = fitted.filter((p) => p.way !== "house");
  let seconds = 0;
  const pasted = own.some((p) => p.way === "stencil" && p.kind !== "through");
  for (const p of own) {
    const [place, iron, perJoint] = SECONDS[p.kind]!;
    const more = p.isPolarised && p.kind !== "through" ? 2 : 0;
    seconds +=
      p.n * (p.way === "stencil" && p.kind !== "through" ? place + more : iron + perJoint * p.joints + more);
  }
  if (pasted)
    seconds +=
      sidesEach * (60 + 360 / doc.assembly.perLoad) +
      20 * boards +
      0.6 * own.reduce((n, p) => n + p.n * p.joints, 0);
  const setup = { iron: 15 * designs, stencil: 35 * sides, house: 30 * designs }[doc.assembly.method];
  const each =
    seconds / 60 +
    (doc.assembly.method === "house" ? 0 : rework) +
    doc.assembly.testMinutes +
    doc.assembly.packMinutes;
  return setup + 0.75 * lines + start * each;
}
