import type { Place } from "../../board/worst.ts";
import type { LimitCheck } from "../../fab/check.ts";
import type { Finding, Level } from "../../findings.ts";
export type StageKey =
  | "board"
  | "parts"
  | "source"
  | "fab"
  | "panel"
  | "assemble"
  | "cost"
  | "release"
  | "order"
  | "receive"
  | "build";

/** A note for the margin: computed, with its key under which it can be accepted. */
export interface Note {
  readonly key: string;
  readonly stage: StageKey;
  readonly level: Level;
  readonly text: string;
  readonly do?: string;
  readonly at?: Place | { readonly layer?: string; readonly x: number; readonly y: number };
  readonly file?: string;
  readonly line?: number;
  readonly about?: readonly string[];
  /** Id of the board it is about, where a product has several. */
  readonly board?: string;
  /** Line ids the note is tied to. */
  readonly lines?: readonly string[];
  /** A correction of the board's files that would mend it. */
  readonly offer?: NonNullable<Finding["offer"]>;
  /** Blockers that no reason lifts. */
  readonly isFirm?: boolean;
  readonly acceptedBecause?: string;
  /** The key it was accepted under, where that is another. */
  readonly acceptedAs?: string;
}

/** A check of a house's limits, of which board. */
export type BoardCheck = LimitCheck & { readonly board?: string };

/** Takes a note. */
export type Add = (stage: StageKey, key: string, level: Level, text: string, more?: Partial<Note>) => void;
