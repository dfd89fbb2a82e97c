import { isIn } from "../copper/coats.ts";
import type { LayerSolids } from "../copper/copper.ts";
import type { PasteOpening } from "../copper/paste.ts";
import type { StencilVerdict } from "../diff-document.ts";
import { unmatched } from "./diff-drills.ts";
import type { RawPlace } from "./diff-places.ts";
import type { Shift } from "./diff-shift.ts";

/** An opening as numbers: middle, lesser and greater side, mm. */
type Open = readonly [number, number, number, number];

/** An opening no farther off is the same one, mm; within a tenth of its width it still serves. */
const SAME_MM = 0.05;
/** An opening that lies no farther from where it was is the same one, moved, mm. */
const MOVED_MM = 0.5;
/** So many openings that are missing may be filled by hand. */
const BY_HAND = 3;

const listOf = (openings: readonly PasteOpening[], [dx, dy]: Shift): Open[] =>
  openings.map((o) => [o.x + dx, o.y + dy, o.widthMm, o.lengthMm]);
/** What decimals lose on the way through binary, mm. */
const LOST_MM = 1e-6;
const isLike = (a: number, b: number) => Math.abs(a - b) <= Math.max(0.05 * b, 0.025) + LOST_MM;
const sameSize = (p: Open, q: Open) => isLike(p[2], q[2]) && isLike(p[3], q[3]);
const boxOf = (...list: readonly Open[]): RawPlace["box"] => {
  const half = (o: Open) => o[3] / 2;
  return [
    Math.min(...list.map((o) => o[0] - half(o))),
    Math.min(...list.map((o) => o[1] - half(o))),
    Math.max(...list.map((o) => o[0] + half(o))),
    Math.max(...list.map((o) => o[1] + half(o))),
  ];
};

/** Openings of a stencil against those there are now. */
export interface OpeningDiff {
  readonly places: readonly RawPlace[];
  readonly verdict: StencilVerdict;
}

/**
 * Whether a stencil that was cut for another board serves this one (domain.md 2.11): an opening serves where its middle is
 * within 0.05 mm and each side within 5 % or 0.025 mm. What is too many can be taped where bare laminate or mask lies under
 * it; up to three that are missing, and nothing else, can be dispensed by hand.
 *
 * @param isBare whether the place on this board is bare of mask: paste there does harm
 */
export function compareOpenings(
  now: readonly PasteOpening[],
  was: readonly PasteOpening[],
  shift: Shift,
  isBare: (x: number, y: number) => boolean,
): OpeningDiff {
  const places: RawPlace[] = [];
  const first = unmatched(listOf(now, [0, 0]), listOf(was, shift), sameSize, SAME_MM + LOST_MM);
  const matched = now.length - first.a.length;
  const resized = unmatched(
    first.a,
    first.b,
    () => true,
    SAME_MM,
    (p, q) => places.push({ box: boxOf(p, q), kind: "resized", wasMm: q[2], nowMm: p[2] }),
  );
  const moved = unmatched(resized.a, resized.b, sameSize, MOVED_MM, (p, q) =>
    places.push({ box: boxOf(p, q), kind: "moved", byMm: Math.hypot(p[0] - q[0], p[1] - q[1]) }),
  );
  const changed = places.length;
  for (const p of moved.a) places.push({ box: boxOf(p), kind: "added" });
  for (const q of moved.b) places.push({ box: boxOf(q), kind: "gone" });
  const [missing, extra] = [moved.a.length, moved.b.length];
  const harmful = moved.b.filter((q) => isBare(q[0], q[1])).length;
  const says =
    changed > 0 || missing > BY_HAND || harmful > 0
      ? "new"
      : missing > 0
        ? "dispense"
        : extra > 0
          ? "tape"
          : "reuse";
  return { places, verdict: { says, of: now.length, matched, changed, missing, extra, harmful } };
}

/** Whether a place is bare of mask; where no mask is known every place counts as bare. */
export const bareOf =
  (mask: LayerSolids | undefined) =>
  (x: number, y: number): boolean =>
    mask === undefined || isIn(mask, x, y);
