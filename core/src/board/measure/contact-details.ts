import type { EdgeContacts } from "../measure-document.ts";
import { r6 } from "../worst.ts";

/** A pad beside an edge, as it may be one of a row of contacts. */
export interface Candidate {
  readonly x: number;
  readonly y: number;
  readonly along: number;
  readonly width: number;
  readonly length: number;
  readonly setback: number;
}

/** How a row of contacts lies, and what is asked of its surroundings. */
export interface RowOfContacts {
  /** In the order along the edge. */
  readonly row: readonly Candidate[];
  /** Every pad along the same edge, those of other sizes among them. */
  readonly along: readonly Candidate[];
  readonly pitch: number;
  readonly isVertical: boolean;
  /** Which way the edge lies from the contacts: 1 towards larger coordinates. */
  readonly outward: 1 | -1;
  /** Whether the mask is open at a point; left out without a mask layer. */
  readonly isOpen: ((x: number, y: number) => boolean) | undefined;
  /** Whether copper lies at a point. */
  readonly isCopper: (x: number, y: number) => boolean;
}

/** Contacts may differ so much and still be equal, mm. */
const EQUAL_MM = 0.05;

/**
 * What a row of edge contacts is like beside its sizes: its ends, the place that is left free for a key, contacts of another size
 * or set-back among them, mask between neighbours, and copper that runs on to the edge (tie bars of plated gold, which the
 * bevel cuts).
 */
export function contactDetails(
  r: RowOfContacts,
): Pick<EdgeContacts, "from" | "to" | "freeAt" | "odd" | "maskBetween" | "tieBars"> {
  const { row, pitch, isVertical } = r;
  const [first, last] = [row[0]!, row.at(-1)!];
  const spot = (along: number, across: number) =>
    isVertical ? { x: r6(across), y: r6(along) } : { x: r6(along), y: r6(across) };
  const across = (c: Candidate) => (isVertical ? c.x : c.y);
  const before = row.findIndex((c, i) => i > 0 && c.along - row[i - 1]!.along > 1.5 * pitch);
  const free = before > 0 ? (row[before]!.along + row[before - 1]!.along) / 2 : undefined;
  const place = (c: Candidate) => Math.round((c.along - first.along) / pitch);
  const taken = new Set(row.map(place));
  // on a place of the row, or of the next beyond its ends, that none of it takes
  const odd = r.along.filter(
    (c) =>
      !taken.has(place(c)) &&
      c.along > first.along - 1.5 * pitch &&
      c.along < last.along + 1.5 * pitch &&
      Math.abs(c.along - first.along - place(c) * pitch) < EQUAL_MM,
  );
  return {
    from: spot(first.along, across(first)),
    to: spot(last.along, across(last)),
    ...(free === undefined ? {} : { freeAt: spot(free, across(first)) }),
    ...(odd.length > 0 ? { odd: odd.map((c) => spot(c.along, across(c))) } : {}),
    ...maskBetween(r, across),
    tieBars: row.filter((c) => runsOn(r, c, across(c))).length,
  };
}

/** Gaps between neighbours that are covered by mask, at the middle and at the outer end of the contacts. */
function maskBetween(
  { row, pitch, isVertical, isOpen }: RowOfContacts,
  across: (c: Candidate) => number,
): { maskBetween?: number } {
  if (!isOpen) return {};
  let covered = 0;
  for (let i = 1; i < row.length; i++) {
    const [a, b] = [row[i - 1]!, row[i]!];
    if (b.along - a.along > 1.5 * pitch) continue;
    const along = (a.along + b.along) / 2;
    if (!(isVertical ? isOpen(across(a), along) : isOpen(along, across(a)))) covered++;
  }
  return { maskBetween: covered };
}

/** Copper between a contact's outer end and the edge, looked for at half the way. A contact that reaches the edge has no way. */
function runsOn({ isVertical, outward, isCopper }: RowOfContacts, c: Candidate, across: number): boolean {
  if (c.setback < 0.1) return false;
  const at = across + outward * (c.length / 2 + c.setback / 2);
  const steps = [-0.4, -0.2, 0, 0.2, 0.4].map((s) => c.along + s * c.width);
  return steps.some((along) => (isVertical ? isCopper(at, along) : isCopper(along, at)));
}
