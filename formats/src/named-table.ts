/** Cells of a table as text. */
export type TableCells = string[][];

/** A sheet of a workbook, or the one table of a text. */
export interface NamedTable {
  readonly name: string;
  readonly isHidden: boolean;
  readonly cells: TableCells;
  /** What a sheet shows beside its text. */
  readonly looks?: SheetLooks;
}

/** Rows of a sheet that look otherwise than the rest, from 1: somebody may have meant something by it. */
export interface SheetLooks {
  /** Struck through, as a whole or in one of their cells. */
  readonly struck: readonly number[];
  readonly hidden: readonly number[];
  readonly coloured: readonly number[];
  readonly hiddenColumns: readonly number[];
}
