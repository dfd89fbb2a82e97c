import { FindingList } from "../findings.ts";
import type { Cells } from "../table/columns.ts";
import { partedAtBlanks } from "../table/parted.ts";
import { boundedRows } from "../table/rows.ts";
import type { PlacementColumn as Column } from "./column.ts";
import { findPlacementHead, headByContent, headOf } from "./head.ts";
import type { Placements } from "./placed.ts";
import { RowReader } from "./row-reader.ts";

export type { Placement, Placements } from "./placed.ts";
export type PlacementColumn = Column;

/** A sentence and a rule of dashes have any number of words; a place has numbers. */
const isPlaceRow = (words: readonly string[]) =>
  words.length >= 3 && (words.join("").match(/\d/g) ?? []).length >= 3;
const spread = (cells: Cells) =>
  partedAtBlanks(cells, (rows, row) => headOf(rows, row) !== undefined, isPlaceRow)?.rows ?? cells;

/** True when a table has a reference, X and Y column, or holds nothing but places without a heading. */
export function looksLikePlacement(cells: Cells): boolean {
  const rows = spread(cells);
  return findPlacementHead(rows) !== undefined || headByContent(rows) !== undefined;
}

/**
 * Reads a placement file. The unit of a coordinate is that of its cell, else of its row, else of its heading, else of a
 * remark above or below, else millimetres, which is said; a rotation in what its heading says, else in what its numbers
 * can be, normalised to [0, 360) and counter-clockwise. A row that cannot be read whole is an error, and none of it is
 * taken for 0; the rest is kept.
 */
export function readPlacement(
  cells: Cells,
  file: string,
  chosen: Partial<Record<PlacementColumn, string>> = {},
): Placements {
  const found = new FindingList(20);
  const rows = spread(boundedRows(cells, file, found));
  const head = findPlacementHead(rows, chosen) ?? headByContent(rows);
  if (!head) {
    found.add({
      tag: "placement-header-missing",
      level: "error",
      file,
      text: "No row names columns of reference, X and Y.",
      do: "Say which columns they are.",
    });
    return { unit: "mm", parts: [], findings: found.done() };
  }
  const reader = new RowReader(rows, head, file, found);
  for (let r = head.row + 1; r < rows.length; r++) {
    // a heading that stands there again, as on the next page or over the other side
    const again = headOf(rows, r, chosen);
    if (again && again.told.x === "heading" && !reader.isPlace(r)) reader.begin(again);
    else reader.read(r);
  }
  return reader.done();
}
