import { INTENDED } from "../../fit/intended.ts";
import { type FitJudged, mmWords } from "../../fit/row.ts";
import { missChance } from "../../fit/together.ts";
import { capital } from "../../words.ts";
import { aboutBoard, boardFor } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { judgeFits } from "../stage/fits.ts";

/** One in so many that do not go in is a blocker; fewer are a caution. */
const OFTEN = 0.05;

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
  const room = `${capital(f.board)}: room from ${mm(r.worstMm[0])} to ${mm(r.worstMm[1])} mm`;
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
    // what was accepted of one verdict does not cover another
    add(
      "board",
      `fit ${f.row.id} ${f.result?.doubt ? "doubt" : f.verdict}`,
      fails ? "error" : "warning",
      text,
      {
        ...(ways.length > 0 ? { do: capital(`${ways.join("; ")}.`) } : {}),
        ...(f.at ? { at: f.at } : {}),
        ...aboutBoard(doc, boardFor(doc, f.row)?.id),
      },
    );
  }
}
