import type { BoardFile, BoardSet } from "../../board/board-file.ts";
import type { Measure } from "../../board/measure-document.ts";
import { pinsOn } from "../../board/pins.ts";
import type { Finding } from "../../findings.ts";
import { readLayer } from "../../gerber/read.ts";
import { plainBytes } from "../../gerber/write.ts";
import type { CorrectionWishes } from "../../stencil/correct.ts";
import { type FoilWork, foilWork } from "../../stencil/foil.ts";
import type { FoilSide } from "../../stencil/reuse.ts";
import { asMade } from "../document/bill/as-made.ts";
import { Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";
import { isForPaste, isMixed } from "../document/ways.ts";
import { leftOffPaste, offOwnFoil } from "../needs/off-paste.ts";
import { chosenFoil } from "./foils.ts";

/** A foil thickness a new plan begins with, mm: the usual one. */
export const USUAL_FOIL_MM = 0.12;

/**
 * How thick the foil is that a side of a board is printed with: that of the foil which is used again, else what is chosen.
 *
 * @param board its id; the only one where left out
 */
export function foilThickness(doc: RunDocument, board: string | undefined, side: FoilSide): number {
  const again = chosenFoil(doc);
  const isOfIt = again && !again.cannot && (board === undefined || again.board?.id === board);
  return isOfIt && again.foil.openings[side] ? again.foil.foilMm : (doc.assembly.foilMm ?? USUAL_FOIL_MM);
}

/**
 * What a board's foil is cut for in this run. Openings as drawn are the layer as it is, with those of parts that are not
 * fitted; whatever is cut otherwise leaves them out. Those of parts that go another way than the foil are never cut.
 *
 * @param board its id; the only one where left out
 */
export function foilWishes(doc: RunDocument, board: string | undefined, side: FoilSide): CorrectionWishes {
  const { openings = "drawn" } = doc.assembly;
  return {
    foilMm: foilThickness(doc, board, side),
    without: openings === "drawn" ? offOwnFoil(doc, board) : leftOffPaste(doc, board),
    isNarrowed: openings === "narrowed" || openings === "corrected",
    isPaned: openings === "paned" || openings === "corrected",
  };
}

/** A paste layer as it is cut in this run, in the place of the one that was drawn. */
export interface CutPaste {
  readonly side: "top" | "bottom";
  /** The layer to cut from, in the published format. */
  readonly text: string;
  readonly file: BoardFile;
  readonly work: FoilWork;
}

/**
 * Paste layers of a board whose openings this run has cut otherwise than drawn; none where they stay as they are.
 *
 * @throws Error where a written layer does not measure as it was meant
 */
export function cutPaste(
  doc: RunDocument,
  board: { readonly id?: string; readonly name: string; readonly measure: Measure },
  set: BoardSet,
): CutPaste[] {
  const isDrawn = (doc.assembly.openings ?? "drawn") === "drawn";
  const here = isMixed(doc) ? ownFoilSides(doc, board.id) : undefined;
  return set.files.flatMap((f): CutPaste[] => {
    if (f.role !== "paste" || !f.layer || (f.side !== "top" && f.side !== "bottom")) return [];
    const { side } = f;
    // what a house prints stays as it was drawn
    if (here && !here.has(side)) return [];
    if (isDrawn && offOwnFoil(doc, board.id).length === 0) return [];
    const work = foilWork(f.layer, side, pinsOn(board.measure, side), foilWishes(doc, board.id, side));
    if (!work.again.agrees)
      throw new Error(
        `the paste layer ${side} of ${board.name}, cut otherwise than drawn, does not measure as meant.`,
      );
    return [{ side, text: work.file, file: { ...f, layer: readLayer(plainBytes(work.file), f.path) }, work }];
  });
}

/** Sides of a board that are printed here, in a run whose parts go several ways. */
function ownFoilSides(given: RunDocument, board: string | undefined): ReadonlySet<string> {
  const doc = asMade(given);
  const places = new Places(doc);
  const own = lineParts(doc).filter(
    (p) =>
      p.method === "stencil" &&
      isForPaste(p) &&
      (p.line.board === undefined || board === undefined || p.line.board === board),
  );
  return new Set(own.flatMap((p) => p.line.refs.map((ref) => places.of(p.line, ref)?.side ?? "top")));
}

/** A board's files with its paste layers as they are cut, and what was done to them. */
export function withCutPaste(
  set: BoardSet,
  cut: readonly CutPaste[],
  name: string,
): { readonly set: BoardSet; readonly said: readonly Finding[] } {
  if (cut.length === 0) return { set, said: [] };
  return {
    set: { ...set, files: set.files.map((f) => cut.find((c) => c.file.path === f.path)?.file ?? f) },
    said: cut.map((c) => ({
      tag: "paste-corrected",
      level: "remark",
      text: `The paste layer ${c.side} of ${name} is cut as Stencil has it: ${cutWords(c.work)}.`,
    })),
  };
}

/** How many openings are cut otherwise than drawn, and how. */
export function cutWords(work: Pick<FoilWork, "openings">): string {
  const of = (kind: FoilWork["openings"][number]["cut"]["kind"]) =>
    work.openings.filter((o) => o.cut.kind === kind).length;
  const parts = (
    [
      ["narrowed", of("narrowed")],
      ["in panes", of("panes")],
      ["left out", of("left out")],
    ] as const
  ).flatMap(([words, n]) => (n > 0 ? [`${n} ${words}`] : []));
  return parts.length > 0
    ? `of ${work.openings.length} openings ${parts.join(", ")}`
    : "every opening as drawn";
}
