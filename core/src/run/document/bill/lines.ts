import { shapeOf } from "../../../assembly/package-class.ts";
import type { BomLine } from "../../../bom/bom.ts";
import { compareRefs } from "../../../bom/refs.ts";
import type { Placement } from "../../../placement/placement.ts";
import type { Mount, RunLine } from "../document.ts";

type Line = Omit<RunLine, "id">;

/**
 * Lines of a run from a parts list: rows of the same part become one line, and who mounts it is read, not asked.
 *
 * Same part: the same maker and part number; without a part number the same value text and package (domain.md 3.1,
 * keys 1 and 3). Rows that are placed never join rows that are not, nor parts put by machine those put by hand.
 * A reference with a place is put by machine, one without by hand when its package goes through the board or the text
 * says so; a line without references is loose.
 */
export function toRunLines(rows: readonly BomLine[], placements: readonly Placement[]): Line[] {
  const placed = new Set(placements.map((p) => p.ref));
  const groups = new Map<string, Line>();
  for (const row of rows) {
    const line = toLine(row, placed);
    const key = keyOf(line);
    const old = groups.get(key);
    groups.set(key, old ? joined(old, line) : line);
  }
  return [...groups.values()];
}

function toLine(row: BomLine, placed: ReadonlySet<string>): Line {
  const { refs, qty, valueText, package: pkg, mpn, maker, description, dnp } = row;
  const hasPlace = refs.some((r) => placed.has(r));
  const shape = shapeOf(pkg, refs[0], hasPlace);
  const saysHand = /\bby hand\b|\bhand[- ]?solder/i.test(description);
  const byHand = saysHand || (!hasPlace && shape.kind === "through");
  const mount: Mount = refs.length === 0 ? "none" : byHand ? "hand" : "machine";
  return { refs, qty, valueText, package: pkg, mpn, maker, description, dnp, mount };
}

const keyOf = (l: Line): string => {
  const part =
    l.mpn !== ""
      ? `part ${l.maker.toUpperCase()} ${l.mpn.toUpperCase()} ${l.valueText}`
      : `text ${l.valueText} ${l.package} ${l.refs.length === 0 ? l.description : ""}`;
  return [part, l.mount, l.dnp ? "dnp" : ""].join("|");
};

const joined = (a: Line, b: Line): Line => ({
  ...a,
  refs: [...a.refs, ...b.refs].sort(compareRefs),
  qty: a.qty + b.qty,
  package: a.package || b.package,
  description: a.description || b.description,
});
