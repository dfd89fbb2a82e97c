import type { Measure } from "../../board/measure-document.ts";
import { boardKey } from "../document/boards.ts";
import type { RunDocument, RunGuest } from "../document/document.ts";

/** A board that may lie on a run's sheet. */
export interface SheetBoard {
  /** As the places of a sheet name it. */
  readonly key: string;
  readonly name: string;
  readonly measure: Measure;
  /** Of the run's own boards how often one product has it; none of a guest. */
  readonly perProduct: number;
  readonly guest?: RunGuest;
}

/** Everything that may lie on a run's sheets: its own boards in the order of the document, then its guests. */
export const sheetBoards = (doc: RunDocument): SheetBoard[] => [
  ...doc.boards.map((b, i) => ({
    key: boardKey(doc, i),
    name: b.name,
    measure: b.measure,
    perProduct: b.perProduct,
  })),
  ...(doc.guests ?? []).map((guest) => ({
    key: guest.id,
    name: guest.name,
    measure: guest.measure,
    perProduct: 0,
    guest,
  })),
];

/** Boards of a guest that are wanted; none where it was not said. */
export const wantedOf = (doc: RunDocument, guest: string): number =>
  doc.choices.guests?.find((g) => g.board === guest)?.boards ?? 0;

/** Boards wanted of each that may lie on the sheets, for so many products. */
export const demandFor = (doc: RunDocument, products: number): number[] =>
  sheetBoards(doc).map((b) => (b.guest ? wantedOf(doc, b.key) : products * b.perProduct));
