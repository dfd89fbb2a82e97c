import type { ReactNode } from "react";

/** A column: what it shows of a row, how wide, and how it is edited. */
export interface GridColumn<R> {
  readonly key: string;
  readonly label: string;
  readonly width: number;
  readonly align?: "right";
  readonly isMono?: boolean;
  /** What stands in the cell, as it is copied and edited. */
  readonly text: (row: R) => string;
  /** What a screen reader calls the cell: "Value of R1". */
  readonly name: (row: R) => string;
  /** "flag" is yes or no; "choice" one of the options. */
  readonly kind: "text" | "choice" | "flag";
  readonly options?: readonly (readonly [string, string])[];
  readonly canEdit: (row: R) => boolean;
  /** A press, or Enter, does this instead of editing. */
  readonly onPress?: (row: R) => void;
  /** Drawn instead of the text. */
  readonly draw?: (row: R) => ReactNode;
}

/** Height of a row, px. */
export const ROW_HEIGHT = 31;
