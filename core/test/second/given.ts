import type { RunDocument, RunLine } from "../../src/run/document/document.ts";

/**
 * A whole run a second time, from the field's formulas and nothing of the roll-up: its tables are typed anew, its searches
 * try everything, its money is exact but for a house's price of boards, which is in cents.
 *
 * Given to it, and so not tried by it: what a package is, how often a line stands in a product, what is bought where and
 * taken from which lots, and the sides that get paste.
 */
export interface Given {
  readonly shapeOf: (line: RunLine) => { kind: string; joints: number; isPolarised: boolean };
  readonly times: ReadonlyMap<string, number>;
  readonly buys: readonly { readonly offer: string; readonly qty: number }[];
  readonly lots: readonly { readonly id: string; readonly qty: number }[];
  /** Sides of each board that get paste. */
  readonly sides: readonly number[];
}

export type Way = "iron" | "stencil" | "house";
export interface Counted {
  readonly line: RunLine;
  readonly kind: string;
  readonly joints: number;
  readonly isPolarised: boolean;
  readonly n: number;
  readonly way: Way;
}

export const placesOf = (currency: string) => (currency === "JPY" ? 0 : 2);

export const houseThatPlaces = (doc: RunDocument) =>
  doc.assembly.method === "house"
    ? (doc.houses?.find((h) => h.id === doc.assembly.house && h.assembly) ??
      doc.houses?.find((h) => h.assembly))
    : undefined;
