import { fitOptions } from "../../fab/fit-options.ts";
import { type House, makesBoards } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import { tolerancesOf } from "../../fab/tolerances.ts";
import type { FitJudged } from "../../fit/row.ts";
import { judgeRow, type Made } from "../../fit/sheet.ts";
import { boardFor, type RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { standingOn } from "../document/standing.ts";

const thicknessAt = (house: House | undefined, options: Partial<FabOptions>) =>
  house && fitOptions(house, options).thickness;

const made = (
  doc: RunDocument,
  board: RunBoard,
  house: House | undefined,
  options: Partial<FabOptions>,
): Made => {
  const thickness = Number.parseFloat(thicknessAt(house, options) ?? "");
  return {
    measure: board.measure,
    ...(board.places ? { places: board.places } : {}),
    bodies: () => standingOn(doc, board),
    other: (name) => {
      const b = doc.boards.find((o) => o.name === name);
      return b && { measure: b.measure, bodies: standingOn(doc, b) };
    },
    ...(Number.isFinite(thickness) ? { thicknessMm: thickness } : {}),
    ...(house?.tolerances ? { tolerances: house.tolerances } : {}),
    thicknesses: (house?.options.thickness ?? [])
      .map((o) => Number.parseFloat(o.value))
      .filter(Number.isFinite),
  };
};

/** A board as its house would make it, for the thickness that is chosen. */
export const madeAtHouse = (doc: RunDocument, board: RunBoard): Made =>
  made(doc, board, doc.house, doc.options);

/** A row as it stands for the chosen house and thickness, and which other houses would hold it. */
export interface FitStanding extends FitJudged {
  /** Names of houses at which it always fits, where it does not at the chosen one. */
  readonly heldBy: readonly string[];
  /** Its tolerances are the house's own, not those usual elsewhere. */
  readonly isStated: boolean;
}

/** Every row of the product's fit sheet, judged for this run. */
export function judgeFits(doc: RunDocument): FitStanding[] {
  return (doc.fits ?? []).map((row) => {
    const board = boardFor(doc, row);
    const isStated = tolerancesOf(doc.house?.tolerances).isStated;
    if (!board)
      return {
        row,
        verdict: "unknown",
        board: "no such board",
        because: `The product has no board called ${row.board}.`,
        heldBy: [],
        isStated,
      };
    const judged = judgeRow(row, made(doc, board, doc.house, doc.options));
    const isHeld = judged.verdict === "fits" || judged.verdict === "loose" || judged.verdict === "unknown";
    return {
      ...judged,
      isStated,
      heldBy: isHeld
        ? []
        : (doc.houses ?? [])
            .filter((h) => makesBoards(h) && h.id !== doc.house?.id)
            // as it is: a house that would make it of another thickness holds another board
            .filter((h) => thicknessAt(h, doc.options) === thicknessAt(doc.house, doc.options))
            .filter((h) => judgeRow(row, made(doc, board, h, doc.options)).verdict === "fits")
            .map((h) => h.name),
    };
  });
}
