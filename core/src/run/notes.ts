import { boardMark } from "./document/boards.ts";
import type { RunDocument } from "./document/document.ts";
import type { Add, Note } from "./document/note.ts";

/** Blockers that no reason lifts. */
const FIRM = new Set([
  "archive-invalid",
  "outline-missing",
  "outline-open",
  "no-copper-layer",
  "lines-uncovered",
  "house-rate-missing",
  "assembly-rate-missing",
]);

/** All notes of a run, those accepted marked with their reason. @param say takes notes, stage by stage */
export function collectNotes(doc: RunDocument, say: (add: Add) => void): Note[] {
  const notes: Note[] = [];
  say((stage, key, level, text, more = {}) => notes.push({ key, stage, level, text, ...more }));
  const accepted = doc.choices.accepted ?? {};
  return notes.map((n) => {
    const isFirm = FIRM.has(n.key.split(" ")[0]!);
    // what was accepted while the first board was the only one stays so when another comes
    const isFirst = n.board !== undefined && n.board === doc.boards[0]?.id;
    const before = isFirst ? n.key.slice(0, -boardMark(doc, n.board).length) : n.key;
    const key = accepted[n.key] === undefined ? before : n.key;
    const reason = isFirm ? undefined : accepted[key];
    return {
      ...n,
      ...(isFirm ? { isFirm } : {}),
      ...(reason ? { acceptedBecause: reason } : {}),
      ...(reason && key !== n.key ? { acceptedAs: key } : {}),
    };
  });
}
