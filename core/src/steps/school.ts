import { compareRefs } from "../bom/refs.ts";
import type { School, Work, WorkPart } from "./step.ts";

/** What a school is called, and what it is for. */
export const SCHOOL_WORDS: Readonly<Record<School, { readonly label: string; readonly why: string }>> = {
  low: {
    label: "low first",
    why: "tall parts are not in the way, nothing wobbles when the board is turned; heights the library does not say are those usual for the package",
  },
  dense: { label: "dense first", why: "the parts that go wrong most are looked at while the board is empty" },
  cheap: { label: "cheap first, dear last", why: "what is dear goes on when the rest is known to be well" },
  bill: { label: "as the bill has it", why: "line by line, the way the parts lie in the list" },
  path: {
    label: "corner to corner",
    why: "by place, in bands to and fro from one corner to the other; bags are changed more often",
  },
};

/** How parts are ranked: all of a line at once, but for the one that goes by place. */
export function rankParts(work: Work): ReadonlyMap<WorkPart, number> {
  const lines = new Map<string, WorkPart[]>();
  for (const p of work.parts) lines.set(p.line, [...(lines.get(p.line) ?? []), p]);
  const own = new Map((work.own ?? []).map((l, i) => [l, i]));
  const bill = new Map([...lines.keys()].map((l, i) => [l, i]));
  const of = (p: WorkPart) => keyOf(work.school, lines.get(p.line)!);
  const keys = new Map([...lines.values()].map((list) => [list[0]!.line, of(list[0]!)]));
  const byLine = (a: WorkPart, b: WorkPart) =>
    (own.get(a.line) ?? own.size) - (own.get(b.line) ?? own.size) ||
    compareKeys(keys.get(a.line)!, keys.get(b.line)!) ||
    bill.get(a.line)! - bill.get(b.line)! ||
    compareRefs(a.ref, b.ref);
  const along = work.school === "path" ? corners(work.parts) : () => 0;
  const byPlace = (a: WorkPart, b: WorkPart) =>
    (own.get(a.line) ?? own.size) - (own.get(b.line) ?? own.size) || along(a) - along(b) || byLine(a, b);
  return new Map(
    [...work.parts].sort(work.school === "path" ? byPlace : byLine).map((p, i) => [p, i] as const),
  );
}

/** So wide is a band a hand goes along before it turns, mm. */
const BAND_MM = 10;

/**
 * How far along the way each part lies: in bands over the board from its lower left corner, to the right and back by turns,
 * each side of each board for itself. What has no place comes last.
 */
function corners(parts: readonly WorkPart[]): (p: WorkPart) => number {
  const key = (p: WorkPart) => `${p.board} ${p.side}`;
  const box = new Map<string, { x0: number; y0: number; x1: number }>();
  for (const p of parts) {
    if (p.xMm === undefined || p.yMm === undefined) continue;
    const b = box.get(key(p)) ?? { x0: p.xMm, y0: p.yMm, x1: p.xMm };
    box.set(key(p), { x0: Math.min(b.x0, p.xMm), y0: Math.min(b.y0, p.yMm), x1: Math.max(b.x1, p.xMm) });
  }
  return (p) => {
    const b = box.get(key(p));
    if (!b || p.xMm === undefined || p.yMm === undefined) return Number.MAX_VALUE;
    const band = Math.floor((p.yMm - b.y0) / BAND_MM);
    const wide = b.x1 - b.x0;
    return band * (wide + BAND_MM) + (band % 2 === 0 ? p.xMm - b.x0 : b.x1 - p.xMm);
  };
}

/** The lesser first. What is not known counts as the tallest, the densest, the dearest: as the worst would. */
function keyOf(school: School, line: readonly WorkPart[]): number[] {
  const most = (f: (p: WorkPart) => number) => Math.max(...line.map(f));
  switch (school) {
    case "low":
      return [most((p) => p.heightMm ?? Number.MAX_VALUE), most((p) => p.joints)];
    case "dense":
      return [-most((p) => p.defects), -most((p) => p.joints)];
    case "cheap":
      return [most((p) => p.micros)];
    case "bill":
    case "path":
      return [];
  }
}

function compareKeys(a: readonly number[], b: readonly number[]): number {
  const i = a.findIndex((v, k) => v !== b[k]);
  return i < 0 ? 0 : a[i]! - b[i]!;
}
