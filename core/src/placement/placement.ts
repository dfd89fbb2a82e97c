import { counted } from "../counted.ts";
import { FindingList } from "../findings.ts";
import type { Cells } from "../table/columns.ts";
import { partedAtBlanks } from "../table/parted.ts";
import { boundedRows } from "../table/rows.ts";
import type { PlacementColumn as Column } from "./column.ts";
import { mendCut } from "./cut.ts";
import { findPlacementHead, headByContent, headOf, type PlacementHead } from "./head.ts";
import type { Placements } from "./placed.ts";
import { RowReader } from "./row-reader.ts";

export type { Placement, Placements } from "./placed.ts";
export type PlacementColumn = Column;

/** A sentence and a rule of dashes have any number of words; a place has numbers. */
const isPlaceRow = (words: readonly string[]) =>
  words.length >= 3 && (words.join("").match(/\d/g) ?? []).length >= 3;
const spread = (cells: Cells) =>
  partedAtBlanks(cells, (rows, row) => headOf(rows, row) !== undefined, isPlaceRow)?.rows ?? cells;

/** A heading by its words alone: what stands below it may have moved. */
const byWords = (rows: Cells, head: PlacementHead, chosen: Partial<Record<PlacementColumn, string>>) =>
  headOf(rows.slice(0, head.row + 1), head.row, chosen) ?? head;

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
  const read = spread(boundedRows(cells, file, found));
  const first = findPlacementHead(read, chosen) ?? headByContent(read);
  const mended = first && first.row >= 0 ? mendCut(read, byWords(read, first, chosen)) : undefined;
  const rows = mended?.rows ?? read;
  const head = mended ? findPlacementHead(rows, chosen) : first;
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
  if (mended) sayMended(mended.mended, file, head.row, found);
  const reader = new RowReader(rows, head, file, found);
  for (let r = head.row + 1; r < rows.length; r++) {
    // a heading that stands there again, as on the next page or over the other side
    const again = headOf(rows, r, chosen);
    if (again && again.told.x === "heading" && !reader.isPlace(r)) reader.begin(again);
    else reader.read(r);
  }
  return reader.done();
}

function sayMended(many: number, file: string, row: number, found: FindingList): void {
  found.add({
    tag: "placement-bad-row",
    level: "warning",
    file,
    row: row + 1,
    text: `Decimal commas part the columns as well: in ${counted(many, "row")} the two halves of each number were put together again, in the only way in which the row is what its headings say.`,
    do: "Look at the places on the picture, or part the columns by semicolons or tabs.",
  });
}
