import { shapeOf } from "../assembly/package-class.ts";
import type { BomLine } from "../bom/bom.ts";
import type { Placement } from "../placement/placement.ts";
import type { Mount, RunLine } from "./document.ts";

/**
 * Lines of a run from a parts list: who mounts a part is read, not asked. A reference with a place is put by machine,
 * one without by hand when its package goes through the board or the text says so; a line without references is loose.
 */
export function toRunLines(
  lines: readonly BomLine[],
  placements: readonly Placement[],
): Omit<RunLine, "id">[] {
  const placed = new Set(placements.map((p) => p.ref));
  return lines.map(({ refs, qty, valueText, package: pkg, mpn, maker, description, dnp }) => {
    const hasPlace = refs.some((r) => placed.has(r));
    const shape = shapeOf(pkg, refs[0], hasPlace);
    const saysHand = /\bby hand\b|\bhand[- ]?solder/i.test(description);
    const mount: Mount =
      refs.length === 0 ? "none" : saysHand || (!hasPlace && shape.kind === "through") ? "hand" : "machine";
    return { refs, qty, valueText, package: pkg, mpn, maker, description, dnp, mount };
  });
}
