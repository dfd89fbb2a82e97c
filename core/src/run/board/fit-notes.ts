import { fitOptions } from "../../fab/fit-options.ts";
import { type House, makesBoards } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import { tolerancesOf } from "../../fab/tolerances.ts";
import { INTENDED } from "../../fit/intended.ts";
import { type FitJudged, type FitRow, mmWords } from "../../fit/row.ts";
import { judgeRow, type Made } from "../../fit/sheet.ts";
import { missChance } from "../../fit/together.ts";
import type { RunBoard } from "../document/boards.ts";
import { aboutBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { standingOn } from "../document/standing.ts";

/** One in so many that do not go in is a blocker; fewer are a caution. */
const OFTEN = 0.05;

/** The board a row is about: by its name, the first where it names none. */
function boardFor(doc: RunDocument, row: FitRow): RunDocument["boards"][number] | undefined {
  return row.board === undefined ? doc.boards[0] : doc.boards.find((b) => b.name === row.board);
}

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

const mm = (v: number) => mmWords(v).replace("-", "−");
const percent = (p: number) => (p < 0.001 ? "under 0.1 %" : `${Math.round(p * 1000) / 10} %`);

/** A row of the fit sheet in words: what is left at worst and at best, and how often it does not go together. */
export function fitWords(f: FitJudged): string {
  const { result: r, row } = f;
  if (row.spec.kind === "intended" && f.verdict !== "unknown")
    return f.verdict === "fits"
      ? `${row.label} is ${INTENDED[row.spec.what]}, as it is meant to be.`
      : `${row.label} is not ${INTENDED[row.spec.what]}, as it is meant to be. ${f.because}`;
  if (!r) return `${row.label} cannot be judged: ${f.because}`;
  const room = `${f.board.replace(/^./, (c) => c.toUpperCase())}: room from ${mm(r.worstMm[0])} to ${mm(r.worstMm[1])} mm`;
  if (f.verdict === "does-not-fit") return `${row.label} does not fit. ${room}.`;
  if (f.verdict === "may-not-fit")
    return `${row.label} does not always fit: ${mm(r.missingMm)} mm are missing at worst, ${percent(missChance(r))} do not go together. ${room}.`;
  if (f.verdict === "loose")
    return `${row.label} fits, but with up to ${mm(r.worstMm[1])} mm of play where ${mm(row.playMm!)} mm are wanted. ${room}.`;
  return `${row.label} fits. ${room}.`;
}

/** What of the fit sheet does not hold: a blocker where it fails often, else a caution. */
export function fitNotes(doc: RunDocument, add: Add): void {
  for (const f of judgeFits(doc)) {
    if (f.verdict === "fits" && !f.result?.doubt) continue;
    const fails = f.verdict === "does-not-fit" || (f.result ? missChance(f.result) : 0) >= OFTEN;
    const ways = [
      f.mend && `order ${f.mend}`,
      f.heldBy.length > 0 && `${f.heldBy.join(" or ")} ${f.heldBy.length === 1 ? "holds" : "hold"} it`,
    ].filter(Boolean);
    const text = f.result?.doubt
      ? `${fitWords(f)} The readings lie between two thicknesses that are sold.`
      : fitWords(f);
    add("board", `fit ${f.row.id}`, fails ? "error" : "warning", text, {
      ...(ways.length > 0 ? { do: `${ways.join("; ")}.`.replace(/^./, (c) => c.toUpperCase()) } : {}),
      ...(f.at ? { at: f.at } : {}),
      ...aboutBoard(doc, boardFor(doc, f.row)?.id),
    });
  }
}
