import type { FindingList } from "../findings.ts";
import type { Cells } from "./columns.ts";

/** Rows of a list that are read: far above what any board has. */
const MOST_ROWS = 60_000;

/** The rows of a list up to a bound; that there are more is an error. */
export function boundedRows(cells: Cells, file: string, found: FindingList): Cells {
  if (cells.length <= MOST_ROWS) return cells;
  found.add({
    tag: "budget-reached",
    level: "error",
    file,
    row: MOST_ROWS + 1,
    text: `The list has ${cells.length.toLocaleString("en-GB")} rows; it was read up to row ${MOST_ROWS.toLocaleString("en-GB")}, the rest is missing.`,
    do: "Keep only the rows of this board in it and drop it again.",
  });
  return cells.slice(0, MOST_ROWS);
}
