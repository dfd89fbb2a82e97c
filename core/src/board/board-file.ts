import type { Bom, ListHead } from "../bom/bom.ts";
import type { DrillData } from "../drill/data.ts";
import type { Finding, Move } from "../findings.ts";
import type { LayerImage } from "../gerber/image.ts";
import type { TestPoint } from "../netlist/read.ts";
import type { Placements } from "../placement/placement.ts";
import type { Role, RoleGuess, Side } from "../role/role.ts";
import type { Cells } from "../table/columns.ts";
import type { NamedSheet } from "../table/sheets.ts";
/** A file of a drop, unzipped; cells when it is a table somebody already split. */
export interface Entry {
  readonly path: string;
  readonly bytes: Uint8Array;
  readonly cells?: Cells;
  /** Sheets of a workbook that has several; which holds the list is chosen here. */
  readonly sheets?: readonly NamedSheet[];
}

/** What a person corrected: by path, the role or the columns. */
export interface Corrections {
  readonly roles?: Readonly<
    Record<
      string,
      { readonly role: Role; readonly side?: Side; readonly index?: number; readonly plated?: boolean }
    >
  >;
  readonly columns?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** By path, how its content is moved before it is used. */
  readonly moves?: Readonly<Record<string, Move>>;
}

/** One file with the role it was given. */
export interface BoardFile extends RoleGuess {
  readonly path: string;
  readonly bytes: number;
  readonly layer?: LayerImage;
  readonly drill?: DrillData;
  /** Copper layers a drill file joins, first and last from 1; all where left out. */
  readonly span?: readonly [number, number];
  readonly headers?: readonly string[];
}

/** Everything read out of a drop. */
export interface BoardSet {
  readonly files: readonly BoardFile[];
  readonly bom?: Bom;
  /** Top of the file the bill was read from; none where it comes from attributes of the layers. */
  readonly list?: ListHead;
  readonly placements?: Placements;
  readonly netlist?: { readonly file: string; readonly points: readonly TestPoint[] };
  readonly job?: {
    readonly thicknessMm?: number;
    readonly widthMm?: number;
    readonly heightMm?: number;
    readonly layers?: number;
    readonly name?: string;
    readonly revision?: string;
  };
  readonly findings: readonly Finding[];
}
