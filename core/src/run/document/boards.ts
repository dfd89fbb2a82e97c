import type { RunDocument, RunLine, RunPlacement } from "./document.ts";

/** A product's board in a run's document. */
export type RunBoard = RunDocument["boards"][number];

/** The board a line is on: its own, or the only one there is. */
export const boardOf = (doc: RunDocument, line: Pick<RunLine, "board">): RunBoard | undefined =>
  line.board === undefined
    ? doc.boards.length === 1
      ? doc.boards[0]
      : undefined
    : doc.boards.find((b) => b.id === line.board);

/** The board something is about: by its name, the first where it names none. */
export const boardFor = (
  doc: Pick<RunDocument, "boards">,
  of: { readonly board?: string },
): RunBoard | undefined =>
  of.board === undefined ? doc.boards[0] : doc.boards.find((b) => b.name === of.board);

/** “ of Probe Tail” where a product has several boards, so that R1 of one is not taken for R1 of the other. */
export const ofBoard = (doc: RunDocument, line: Pick<RunLine, "board">): string => {
  const board = doc.boards.length > 1 ? boardOf(doc, line) : undefined;
  return board ? ` of ${board.name}` : "";
};

/** What tells notes about one board from those about another: nothing where there is one. */
export const boardMark = (doc: RunDocument, boardId: string | undefined): string =>
  doc.boards.length > 1 && boardId !== undefined ? ` ${boardId}` : "";

/** The board a note is about, where that must be said. */
export const aboutBoard = (doc: RunDocument, board: string | undefined) =>
  doc.boards.length > 1 && board !== undefined ? { board } : {};

/** Places of a run by board and reference. A line that names no board is looked for on all of them. */
export class Places {
  private readonly all = new Map<string, RunPlacement>();

  constructor(doc: RunDocument) {
    for (const p of doc.placements) {
      const key = `${p.board ?? ""} ${p.ref}`;
      if (!this.all.has(key)) this.all.set(key, p);
      if (!this.all.has(`* ${p.ref}`)) this.all.set(`* ${p.ref}`, p);
    }
  }

  of(line: Pick<RunLine, "board">, ref: string): RunPlacement | undefined {
    if (line.board === undefined) return this.all.get(`* ${ref}`);
    // places of a document from before boards had ids belong to the only one
    return this.all.get(`${line.board} ${ref}`) ?? this.all.get(` ${ref}`);
  }

  has(line: Pick<RunLine, "board">, ref: string): boolean {
    return this.of(line, ref) !== undefined;
  }
}

/** Circuit boards in one product, each design as often as it is in it. */
export const boardsPerProduct = (doc: RunDocument): number =>
  Math.max(
    1,
    doc.boards.reduce((n, b) => n + b.perProduct, 0),
  );

/** What a run counts: boards, or products where several boards make one. */
export const unitOf = (doc: RunDocument): "board" | "product" =>
  boardsPerProduct(doc) > 1 ? "product" : "board";

/** A board's key in the record: its id, or its place in the list where a document gives none. */
export const boardKey = (doc: Pick<RunDocument, "boards">, i: number): string =>
  doc.boards[i]?.id ?? `board ${i}`;
