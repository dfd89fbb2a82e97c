import {
  AppError,
  type BoardSet,
  cutPaste,
  type Finding,
  isRefusal,
  layoutAt,
  type ProvenSource,
  panelThickness,
  partsOfRun,
  type RunDocument,
  runDesigns,
  sheetBoards,
  specOf,
  type WriteMode,
  withCutPaste,
  withoutParts,
} from "@kobbin/core";
import { exactRings, type PackedPanel, packPanel } from "./panel.ts";

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
  // what may not be cut hangs on the run's bill and its library, as on the page, not on the lists that were dropped
  const designs = runDesigns(document, sets.map(exactRings));
  const said: Finding[] = [];
  const sources = all.map(({ name, measure, guest }, i): ProvenSource => {
    const design = designs[i]!;
    if ("reason" in design) throw blocked(design.reason);
    const made = withCutPaste(sets[i]!, guest ? [] : pasteOf(document, document.boards[i]!, sets[i]!), name);
    said.push(...made.said);
    if (guest)
      said.push({
        tag: "guest-without-parts",
        level: "remark",
        text: `Parts of ${name} stand in no list of this sheet: they are ${guest.product}'s own.`,
      });
    const set = guest ? withoutParts(made.set) : partsOfRun(made.set, document, i);
    return { design, set, measure };
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
