import type { FindingTag, Level } from "./finding-tags.ts";

export type { FindingTag, Level } from "./finding-tags.ts";

/** Something computed about the input, with its place and what to do. Printed as in docs/cli.md. */
export interface Finding {
  readonly tag: FindingTag;
  readonly level: Level;
  readonly file?: string;
  readonly line?: number;
  readonly at?: { readonly layer?: string; readonly x: number; readonly y: number };
  /** Row of a table, counted from 1 as a person would. */
  readonly row?: number;
  readonly about?: readonly string[];
  readonly text: string;
  readonly do?: string;
  /** A correction that would mend it, to be taken or left. */
  readonly offer?: { readonly says: string; readonly file: string; readonly move: Move };
}

/** How a file's content is moved before it is used: mirrored (x becomes −x) first, then shifted. */
export interface Move {
  readonly dxMm: number;
  readonly dyMm: number;
  readonly isMirrored?: boolean;
}

/**
 * Collects findings, at most `max` of one tag and level per file, the rest counted: a broken file must not drown the page,
 * and what is lost not behind what is only odd.
 */
export class FindingList {
  readonly list: Finding[] = [];
  private readonly counts = new Map<string, number>();
  private readonly max: number;

  constructor(max = 5) {
    this.max = max;
  }

  add(finding: Finding): void {
    const key = `${finding.tag}\n${finding.level}\n${finding.file ?? ""}`;
    const n = (this.counts.get(key) ?? 0) + 1;
    this.counts.set(key, n);
    if (n <= this.max) this.list.push(finding);
  }

  /** All findings; where some were cut, one of their level says how many more there are: they weigh no less. */
  done(): Finding[] {
    const cut = [...this.counts].filter(([, n]) => n > this.max);
    return [
      ...this.list,
      ...cut.map(([key, n]): Finding => {
        const [tag, level, file] = key.split("\n") as [FindingTag, Level, string];
        return {
          tag,
          level,
          ...(file ? { file } : {}),
          text: `${n - this.max} more of the same kind.`,
        };
      }),
    ];
  }
}

/** The first of a list for a sentence, and how many more there are. */
export const few = (list: readonly string[], most = 8): string =>
  list.length <= most
    ? list.join(", ")
    : `${list.slice(0, most - 1).join(", ")} and ${list.length - most + 1} more`;
