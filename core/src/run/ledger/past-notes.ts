import { sentence } from "../../words.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/** What closed runs of the product left to be remembered: a caution until somebody says that it is taken care of. */
export function pastNotes(doc: RunDocument, add: Add): void {
  const past = doc.past ?? [];
  for (const p of past)
    if (p.lesson)
      add(
        "board",
        `lesson ${p.closedOn} ${p.name}`,
        "warning",
        `“${p.name}”, ${p === past.at(-1) ? "the run before" : `closed on ${p.closedOn}`}, left this to be remembered: ${sentence(p.lesson)}`,
        { do: "See that it is taken care of in this run, and accept it then." },
      );
}
