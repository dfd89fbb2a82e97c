import type { StencilVerdict } from "../../board/diff-document.ts";
import { FOIL_SIDES, type Foil, type FoilSide, foilServes } from "../../stencil/reuse.ts";
import type { RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { mayGo } from "../document/ways.ts";
import { leftOffPaste } from "../needs/off-paste.ts";

/** A foil held against the board it is for. */
export interface FoilStanding {
  readonly foil: Foil;
  readonly board?: RunBoard;
  readonly sides: readonly { readonly side: FoilSide; readonly verdict?: StencilVerdict }[];
  /** Parts that want paste now and have no openings in it. */
  readonly missingParts: readonly string[];
  /** Why it cannot be taken; nothing where it can. */
  readonly cannot?: string;
}

/** A foil held against the board of its name, side by side. */
export function standingOf(doc: RunDocument, foil: Foil): FoilStanding {
  const board = boardOf(doc, foil);
  const own = FOIL_SIDES.filter((side) => foil.openings[side]);
  if (!board)
    return { foil, sides: [], missingParts: [], cannot: `the product has no board called ${foil.board}` };
  const sides = own.map((side) => {
    const verdict = foilServes(foil, board.measure, side);
    return { side, ...(verdict ? { verdict } : {}) };
  });
  const left = new Set(leftOffPaste(doc, board.id).map((w) => w.ref));
  const missingParts = foil.without.filter((ref) => !left.has(ref));
  const cannot = refusalOf(foil, sides, missingParts);
  return { foil, board, sides, missingParts, ...(cannot ? { cannot } : {}) };
}

/** The board a foil is for: of its name, the only one, or, since revisions rename boards, the one whose openings it serves. */
function boardOf(doc: RunDocument, foil: Foil): RunBoard | undefined {
  const named = doc.boards.find((b) => b.name === foil.board);
  if (named || doc.boards.length === 1) return named ?? doc.boards[0];
  return doc.boards.find((b) =>
    FOIL_SIDES.filter((side) => foil.openings[side]).every((side) => {
      const verdict = foilServes(foil, b.measure, side);
      return verdict && verdict.says !== "new";
    }),
  );
}

function refusalOf(
  foil: Foil,
  sides: FoilStanding["sides"],
  missingParts: readonly string[],
): string | undefined {
  if (foil.state === "gone") return "it was thrown away";
  const blind = sides.find((s) => !s.verdict);
  if (blind) return `the openings of the ${blind.side} are not listed: read the board's files again`;
  const bad = sides.find((s) => s.verdict!.says === "new");
  if (bad) return `the paste layer of the ${bad.side} is another one: ${changeWords(bad.verdict!)}`;
  if (missingParts.length > 0) return `it has no openings for ${missingParts.join(", ")}`;
  return undefined;
}

/** How a foil differs from the openings there are now. */
export function changeWords(v: StencilVerdict): string {
  const n = (k: number, one: string, many: string) => (k === 0 ? [] : [`${k} ${k === 1 ? one : many}`]);
  return (
    [
      ...n(v.changed, "opening moved or of another size", "openings moved or of another size"),
      ...n(v.missing, "missing in it", "missing in it"),
      ...n(v.extra, "too many", "too many"),
    ].join(", ") || "all openings match"
  );
}

/** The foil chosen for this run, where one is; it counts only while it can be taken. */
export function chosenFoil(doc: RunDocument): FoilStanding | undefined {
  const foil = doc.foils?.find((f) => f.id === doc.assembly.foil);
  return foil && standingOf(doc, foil);
}

/** Sides no foil has to be bought for. */
export function coveredSides(doc: RunDocument): number {
  const chosen = chosenFoil(doc);
  return chosen && !chosen.cannot ? chosen.sides.length : 0;
}

/** What is to be said of the foil that is to be used again. */
export function foilNotes(doc: RunDocument, add: Add): void {
  if (!mayGo(doc, "stencil") || !doc.assembly.foil) return;
  const chosen = chosenFoil(doc);
  if (!chosen) {
    add(
      "assemble",
      "foil-missing",
      "error",
      "The foil chosen for this run is not there any more: a new one is counted.",
      {
        do: "Choose another, or a new one.",
      },
    );
    return;
  }
  const { foil } = chosen;
  if (chosen.cannot) {
    add(
      "assemble",
      `foil-refused ${foil.id}`,
      "error",
      `The foil ${foil.name} cannot be used: ${chosen.cannot}. A new one is counted.`,
      {
        do: "Choose a new foil.",
      },
    );
    return;
  }
  const wanted = doc.assembly.foilMm;
  if (wanted !== undefined && Math.abs(wanted - foil.foilMm) > 1e-9)
    add(
      "assemble",
      `foil-thickness ${foil.id}`,
      "warning",
      `The foil ${foil.name} is ${foil.foilMm} mm thick; ${wanted} mm were chosen for this run. What releases and how much paste is printed follow the foil that is there.`,
      { do: "Look at what stays in it and what floods, or buy a new one." },
    );
  if (foil.state === "worn")
    add(
      "assemble",
      `foil-worn ${foil.id}`,
      "warning",
      `The foil ${foil.name} is marked as worn after ${foil.prints} prints.`,
      {
        do: "Look at its edges under a lens before you print.",
      },
    );
  for (const { side, verdict } of chosen.sides)
    if (verdict!.says !== "reuse")
      add(
        "assemble",
        `foil-${verdict!.says} ${foil.id} ${side}`,
        "warning",
        `The foil ${foil.name} serves the ${side} with help: ${changeWords(verdict!)}.`,
        {
          do: verdict!.says === "dispense" ? "Put the missing paste on by hand." : "Tape what is too many.",
        },
      );
}
