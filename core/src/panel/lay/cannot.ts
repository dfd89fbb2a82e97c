import type { PanelDesign, PanelSpec, Separation } from "../spec.ts";
import { partingsOf, railSets, roomOf } from "./candidates.ts";
import { turnedSize } from "./grid.ts";

/**
 * Whether it is certain that boards do not go on a sheet, however they are laid: one of them is larger than the room in
 * every turn, or all of them, each grown by half the gap, have more area than the room grown by as much.
 *
 * A shape of area A grown by r has at least (√A + r√π)² (Brunn and Minkowski), whatever its form.
 *
 * @param ways to part that may be taken
 * @param counts of each design
 */
export function cannotGo(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  ways: readonly Separation[],
  counts: readonly number[],
): boolean {
  const rooms = ways.flatMap((w) =>
    partingsOf(w, spec).flatMap(([across, along]) =>
      railSets(spec, designs).map((sides) => ({
        ...roomOf(spec, sides, across, along),
        gx: across === "tabs" ? spec.gapMm : 0,
        gy: along === "tabs" ? spec.gapMm : 0,
      })),
    ),
  );
  return rooms.every(({ widthMm, heightMm, gx, gy }) => {
    if (widthMm <= 0 || heightMm <= 0) return true;
    const r = Math.min(gx, gy) / 2;
    const least = designs.reduce(
      (sum, d, i) => sum + counts[i]! * (Math.sqrt(d.areaMm2) + r * Math.sqrt(Math.PI)) ** 2,
      0,
    );
    if (least > (widthMm + gx) * (heightMm + gy) + 1e-6) return true;
    return designs.some((d, i) =>
      spec.turns[i]!.every((t) => {
        const [w, h] = turnedSize(d, t);
        return w > widthMm + 1e-6 || h > heightMm + 1e-6;
      }),
    );
  });
}
