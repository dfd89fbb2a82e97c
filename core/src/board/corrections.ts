import type { Corrections } from "./board-file.ts";

/** What a shop remembers: by the pattern of a file's name. */
export interface Memory {
  readonly roles?: Readonly<Record<string, unknown>>;
  readonly columns?: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

/** A file's name with the numbers left aside, so that the next revision's file is recognised: "board-r2.top" → "board-r#.top". */
export const patternOf = (path: string): string =>
  (path.split("/").pop() ?? path).toLowerCase().replace(/\d+/g, "#");

/** Corrections for the files of a drop: what the person says now, else what the shop remembers of such names. */
export function withMemory(paths: readonly string[], explicit: Corrections, memory: Memory): Corrections {
  const roles: Record<string, unknown> = {};
  const columns: Record<string, Readonly<Record<string, string>>> = {};
  for (const p of paths) {
    const role = explicit.roles?.[p] ?? memory.roles?.[patternOf(p)];
    if (role !== undefined) roles[p] = role;
    const named = explicit.columns?.[p] ?? memory.columns?.[patternOf(p)];
    if (named !== undefined) columns[p] = named;
  }
  // a move is of one export and is not remembered for the next
  return {
    roles: roles as NonNullable<Corrections["roles"]>,
    columns,
    ...(explicit.moves ? { moves: explicit.moves } : {}),
  };
}
