import type { RunSummary } from "@kobbin/contract";
import type { BomLine, Corrections, Measure, Memory, Placement, RunDocument, WireError } from "@kobbin/core";

/** A dropped file as it crosses to a worker. */
export interface DroppedFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** What a worker is asked. */
export type Task =
  | {
      readonly kind: "measure";
      readonly files: readonly DroppedFile[];
      readonly corrections: Corrections;
      readonly memory: Memory;
    }
  | { readonly kind: "summary"; readonly document: RunDocument }
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

export interface Measured {
  readonly kind: "measured";
  readonly measure: Measure;
  /** The corrections in force, what was remembered among them. */
  readonly corrections: Corrections;
  readonly lines: readonly BomLine[];
  readonly placements: readonly Placement[];
}
export interface Summarised {
  readonly kind: "summary";
  readonly summary: RunSummary;
}
export interface Packaged {
  readonly kind: "package";
  readonly zip: Uint8Array;
  readonly manifest: unknown;
}

/** What a worker answers; errors as data, since classes do not cross. */
export type Answer = Measured | Summarised | Packaged | WireError;
