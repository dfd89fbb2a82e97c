import {
  type BoardSet,
  type Corrections,
  type Entry,
  type Finding,
  kindOf,
  type Memory,
  readBoard,
  withMemory,
} from "@kobbin/core";
import { type FileEntry, readDrop } from "@kobbin/formats";

/** A drop read as a board. */
export interface ReadAsBoard {
  readonly set: BoardSet;
  readonly entries: readonly Entry[];
  /** What it was read under: what was given, and what is remembered of such names. */
  readonly corrections: Corrections;
  /** Why it cannot be read at all. */
  readonly rejected?: string;
}

/** What a drop is read under. */
export interface Under {
  readonly corrections?: Corrections;
  readonly memory?: Memory;
  readonly progress?: (path: string, share: number) => void;
}

/** Files of a drop that is open already as a board: roles, corrections, and what opening it found first. */
export function boardOf(
  entries: readonly Entry[],
  notes: readonly Finding[],
  { corrections: given = {}, memory = {}, progress }: Under = {},
): Pick<ReadAsBoard, "set" | "corrections"> {
  const corrections = withMemory(
    entries.map((e) => e.path),
    given,
    memory,
  );
  const set = readBoard(entries, corrections, progress);
  return { set: { ...set, findings: [...notes, ...set.findings] }, corrections };
}

/** Tables are split into their sheets; everything else stays a file. */
export const isTable = (bytes: Uint8Array): boolean => kindOf(bytes) === "table";

/** Dropped files, archives among them, as a board: the one way of page, server and command line. */
export async function readAsBoard(files: readonly FileEntry[], under: Under = {}): Promise<ReadAsBoard> {
  const opened = await readDrop(files, isTable);
  return {
    ...boardOf(opened.entries, opened.notes, under),
    entries: opened.entries,
    ...(opened.rejected ? { rejected: opened.rejected } : {}),
  };
}
