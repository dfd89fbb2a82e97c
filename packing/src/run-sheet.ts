import {
  AppError,
  assemblyHouse,
  type BoardSet,
  cutPaste,
  type Finding,
  isRefusal,
  layoutAt,
  type ProvenSource,
  panelThickness,
  type RunDocument,
  type RunLine,
  sheetBoards,
  specOf,
  type Turns,
  turnFor,
  type WriteMode,
  withCutPaste,
} from "@kobbin/core";
import { designOf, type PackedPanel, packPanel } from "./panel.ts";

/**
 * The sheet a run's boards are ordered on, written from the boards' own files and proven: the one way of page and package.
 * Paste layers are those the run cuts; a guest's are as drawn.
 *
 * @param sets files of all that may lie on it, in the order of `sheetBoards`
 * @throws AppError BLOCKED where it cannot be written
 */
export async function packRunSheet(
  document: RunDocument,
  sets: readonly BoardSet[],
  how: { readonly mode: WriteMode; readonly createdAt: string; readonly isMeasured: boolean },
): Promise<PackedPanel> {
  const { panel: choice } = document.choices;
  if (!choice) throw blocked("none is chosen.");
  const all = sheetBoards(document);
  if (sets.length < all.length) throw blocked("the files of a board on it are missing.");
  const { bevel } = document.options;
  const isBevelled = bevel !== undefined && bevel !== "none";
  const said: Finding[] = [];
  // packages lie in the sheet's places as the house that places them expects
  const turns = assemblyHouse(document)?.assembly.turns;
  const sources = all.map(({ name, measure, guest }, i): ProvenSource => {
    const design = designOf(name, sets[i]!, measure, { isBevelled });
    if ("reason" in design) throw blocked(design.reason);
    const made = withCutPaste(sets[i]!, guest ? [] : pasteOf(document, document.boards[i]!, sets[i]!), name);
    said.push(...made.said);
    return { design, set: guest ? made.set : turnedFor(made.set, turns, linesOf(document, i)), measure };
  });
  const keys = all.map((b) => b.key);
  const thicknessMm = panelThickness(document);
  const layout = layoutAt(
    sources.map((s) => s.design),
    specOf(choice, keys, thicknessMm),
    { ...choice, places: choice.places.map((p, i) => ({ ...p, board: keys.indexOf(p.board), copy: i + 1 })) },
  );
  if (isRefusal(layout)) throw blocked(layout.reason);
  const { product: name, revision } = document;
  const packed = await packPanel(sources, layout, { name, revision, thicknessMm, ...how });
  return { ...packed, findings: [...packed.findings, ...said] };
}

const linesOf = (doc: RunDocument, i: number): readonly RunLine[] =>
  doc.lines.filter((l) => l.board === undefined || l.board === doc.boards[i]!.id);

/** Places of a board turned by what its lines say the packages are. */
function turnedFor(set: BoardSet, turns: Turns | undefined, lines: readonly RunLine[]): BoardSet {
  const { placements } = set;
  if (!turns || !placements) return set;
  const packages = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l.package] as const)));
  const parts = placements.parts.map((p) => ({
    ...p,
    rotationDeg: p.rotationDeg + turnFor(turns, packages.get(p.ref) ?? ""),
  }));
  return { ...set, placements: { ...placements, parts } };
}

/** Paste layers as the run cuts them. @throws AppError BLOCKED where one does not measure as meant */
export function pasteOf(...args: Parameters<typeof cutPaste>): ReturnType<typeof cutPaste> {
  try {
    return cutPaste(...args);
  } catch (error) {
    throw new AppError(
      "BLOCKED",
      `The foil cannot be cut: ${(error as Error).message}`,
      "Take its openings as drawn in Fab, under stencil.",
    );
  }
}

export const blocked = (what: string) =>
  new AppError(
    "BLOCKED",
    `The sheet cannot be ordered: ${what}`,
    "Take a sheet anew in the Panel stage, or order singly.",
  );
