import { boardFor } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";

/**
 * Whether files of a run's boards are still to be read for something that is judged by them: a place that is meant to be
 * something, a lesson, an erratum of another revision. What is asked of the run again will know more.
 */
export function isBeingRead(doc: RunDocument): boolean {
  const fits = (doc.fits ?? []).some((f) => {
    const board = f.spec.kind === "intended" ? boardFor(doc, f) : undefined;
    return board?.measure.outline?.widthMm !== undefined && !board.places?.[f.id];
  });
  const lessons = (doc.lessons ?? []).some(
    (l) => l.check.kind === "place" && doc.boards.some((b) => !b.learned?.[l.id]),
  );
  const errata = (doc.errata ?? []).some((e) => {
    if (e.isHere || (e.spot.at === undefined && e.spot.ref === undefined)) return false;
    const board = boardFor(doc, e.spot);
    return board !== undefined && (!e.before || !board.learned?.[e.id]);
  });
  return fits || lessons || errata;
}
