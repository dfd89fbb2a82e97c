import type { RunSummary } from "@kobbin/contract";
import type {
  BoardDiff,
  BomLine,
  Corrections,
  FabRequest,
  FactorRow,
  Memory,
  PastRun,
  Placement,
  PlaceReading,
  RunDocument,
  RunRecord,
  WireError,
} from "@kobbin/core";
import type { OpenedBackup } from "../backup/open.ts";
import type { AnswerKind, Incoming, ReadElsewhere } from "../outside/index.ts";

/** A dropped file as it crosses to a worker. */
export interface DroppedFile {
  readonly path: string;
  readonly bytes: Uint8Array;
  /** Where it is known already. */
  readonly sha256?: string;
}

/** A board's files, and the corrections they are read under. */
export interface ReadBoard {
  readonly files: readonly DroppedFile[];
  readonly corrections: Corrections;
}

/** What a worker is asked. */
export type Task =
  | {
      readonly kind: "backup";
      /** Where the archive lies, and a folder for what is in it. */
      readonly archive: string;
      readonly own: string;
    }
  | {
      readonly kind: "measure";
      readonly files: readonly DroppedFile[];
      readonly corrections: Corrections;
      readonly memory: Memory;
    }
  | {
      /** What a board's files have at places, by the row that asks. */
      readonly kind: "places";
      readonly files: readonly DroppedFile[];
      readonly corrections: Corrections;
      readonly places: Readonly<
        Record<string, { readonly at: readonly [number, number]; readonly diameterMm: number }>
      >;
    }
  | {
      /** What one board differs in from another. */
      readonly kind: "difference";
      readonly boards: readonly [now: ReadBoard, against: ReadBoard];
    }
  | {
      /** What somebody outside answered, read by its kind. */
      readonly kind: "answer";
      readonly answer: Incoming;
      readonly as: AnswerKind;
    }
  | { readonly kind: "summary"; readonly document: RunDocument }
  | {
      /** What a house is asked for when the run's boards are ordered there. */
      readonly kind: "request";
      readonly document: RunDocument;
      readonly houseId: string;
    }
  | { readonly kind: "outcome"; readonly document: RunDocument; readonly record: RunRecord }
  | {
      readonly kind: "package";
      readonly document: RunDocument;
      readonly boards: readonly {
        readonly name: string;
        readonly files: readonly DroppedFile[];
        readonly corrections: Corrections;
      }[];
      readonly createdAt: string;
    };

export interface BackupRead {
  readonly kind: "backup";
  readonly backup: OpenedBackup;
}
export interface Measured {
  readonly kind: "measured";
  /** The document `measure/1` as JSON, as it is kept: the main thread only hands it on. */
  readonly measure: string;
  /** The corrections in force, what was remembered among them. */
  readonly corrections: Corrections;
  readonly lines: readonly BomLine[];
  readonly placements: readonly Placement[];
}
export interface Summarised {
  readonly kind: "summary";
  readonly summary: RunSummary;
  /** Lessons that do not hold, accepted or not: id → what was found. */
  readonly broken: Readonly<Record<string, string>>;
}
export interface Ended {
  readonly kind: "outcome";
  readonly outcome: Omit<PastRun, "name" | "closedOn">;
  /** What its faults have in common, for those of all runs together. */
  readonly factors: readonly FactorRow[];
  /** Lots the run counted on, and those that came for it. */
  readonly lots: readonly string[];
}
export interface Requested {
  readonly kind: "request";
  readonly request: FabRequest;
}
export interface AnswerRead extends ReadElsewhere {
  readonly kind: "answer";
}
export interface PlacesRead {
  readonly kind: "places";
  readonly readings: Readonly<Record<string, PlaceReading>>;
}
export interface Differs {
  readonly kind: "difference";
  readonly difference: BoardDiff;
}
export interface Packaged {
  readonly kind: "package";
  readonly zip: Uint8Array;
  readonly manifest: unknown;
}

/** What a worker answers; errors as data, since classes do not cross. */
export type Answer =
  | AnswerRead
  | BackupRead
  | Differs
  | Ended
  | Measured
  | Summarised
  | Packaged
  | PlacesRead
  | Requested
  | WireError;
