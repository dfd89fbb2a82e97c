import { counted } from "../counted.ts";
import { ALLOY_WORDS, type Alloy, WINDOWS } from "../heat/window.ts";
import { boardsOn, brokenWords, type Equipment, mindWords, type ToolVerdict } from "./equipment.ts";

/** What is to be melted. */
export interface HeatPiece {
  /** Of what is heated at once: a board, or the sheet it is part of. */
  readonly sizeMm: readonly [number, number];
  readonly word: "board" | "sheet";
  /** Tallest that stands on it; left out where some height is not known. */
  readonly heightMm?: number;
  readonly alloy: Alloy;
  /** Pieces a load is set to. */
  readonly perLoad: number;
}

/**
 * Whether a heater melts such boards: how hot it gets against the least peak of the alloy on the joint (domain.md 7.8), how
 * many lie in it, how high they stand, and who leads its heat. What is not said of it decides nothing and is said.
 */
export function heaterVerdict(e: Equipment, piece: HeatPiece): ToolVerdict {
  const no: string[] = [];
  const open: string[] = [];
  const fine: string[] = [];
  const needs = WINDOWS[piece.alloy].peakC[0];
  const { mostC, spaceMm, heightMm, control } = e.facts;
  if (mostC === undefined) open.push("how hot it gets is not said");
  else if (mostC < needs)
    no.push(`gets ${mostC} °C, the joints of ${ALLOY_WORDS[piece.alloy]} need ${needs} °C`);
  if (e.kind !== "air") {
    if (spaceMm === undefined) open.push("its room is not said");
    else {
      const takes = boardsOn(spaceMm, piece.sizeMm);
      const size = piece.sizeMm.map((v) => Math.round(v * 10) / 10).join(" × ");
      if (takes === 0) no.push(`a ${piece.word} of ${size} mm does not lie on its ${spaceMm.join(" × ")} mm`);
      else if (takes < piece.perLoad)
        no.push(`takes ${counted(takes, piece.word)} of ${size} mm, a load is set to ${piece.perLoad}`);
      else fine.push(`takes ${counted(takes, piece.word)} at once`);
    }
  }
  if (e.kind === "oven") {
    if (heightMm === undefined) open.push("the room above is not said");
    else if (piece.heightMm === undefined) open.push("some part's height is not known");
    else if (piece.heightMm > heightMm)
      no.push(`has ${heightMm} mm above the ${piece.word}, the tallest part stands ${piece.heightMm} mm`);
  }
  const led =
    control === "eye"
      ? ["its heat is led by eye: a probe on the board and its log tell whether it was right"]
      : control === "thermostat"
        ? ["holds one temperature: the stages are led by hand"]
        : [];
  no.push(...brokenWords(e));
  return {
    name: e.name,
    can: no.length > 0 ? "no" : open.length > 0 ? "unknown" : "yes",
    words: [...no, ...open, ...fine, ...led, ...mindWords(e)],
  };
}
