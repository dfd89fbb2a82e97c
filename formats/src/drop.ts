import { type ArchiveNote, type FileEntry, openDrop } from "./archive.ts";
import { BudgetError, DropBudget } from "./budget.ts";
import { type NamedTable, readTables, type TableCells } from "./table.ts";

/** A file of a drop; of a table the cells with it. */
export interface DropEntry extends FileEntry {
  readonly cells?: TableCells;
  /** Of a workbook with several sheets, or rows that look otherwise than the rest, all that hold something. */
  readonly sheets?: readonly NamedTable[];
}

/** A drop that was opened, with its tables split. */
export interface ReadDrop {
  readonly entries: readonly DropEntry[];
  readonly notes: readonly ArchiveNote[];
  readonly rejected?: string;
}

/**
 * Opens a drop and splits its tables; everything against one budget.
 * @param isTable whether a file's bytes are those of a table
 */
export async function readDrop(
  files: readonly FileEntry[],
  isTable: (bytes: Uint8Array) => boolean,
  budget: DropBudget = new DropBudget(),
): Promise<ReadDrop> {
  const opened = openDrop(files, budget);
  const { entries, notes } = await splitTables(opened.files, isTable, budget);
  return {
    entries,
    notes: [...opened.notes, ...notes],
    ...(opened.rejected ? { rejected: opened.rejected } : {}),
  };
}

/** Splits the tables of an opened drop; one that asks for more than a drop may is left out with an error. */
export async function splitTables(
  files: readonly FileEntry[],
  isTable: (bytes: Uint8Array) => boolean,
  budget: DropBudget = new DropBudget(),
): Promise<{ entries: DropEntry[]; notes: ArchiveNote[] }> {
  const entries: DropEntry[] = [];
  const notes: ArchiveNote[] = [];
  for (const f of files) {
    try {
      const tables = isTable(f.bytes) ? await readTables(f.bytes, budget) : undefined;
      const first = tables?.find((t) => !t.isHidden) ?? tables?.[0];
      entries.push({
        ...f,
        ...(first ? { cells: first.cells } : {}),
        ...(tables && (tables.length > 1 || tables[0]?.looks) ? { sheets: tables } : {}),
      });
    } catch (error) {
      if (!(error instanceof BudgetError)) throw error;
      notes.push({
        tag: "budget-reached",
        level: "error",
        file: f.path,
        text: `${error.message} The table was not read.`,
        do: "Keep only the parts list in it, save it as CSV and drop it again.",
      });
      entries.push(f);
    }
  }
  return { entries, notes };
}
