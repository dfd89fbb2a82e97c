import type { Finding } from "../../findings.ts";
import { aboutBoard, boardMark } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, Note } from "../document/note.ts";

/** Findings about the list and the places belong to the bill, unless they show a place on the board. */
const PART_TAGS = /^(bom|placement)-/;

/** What reading and measuring each board found. */
export function boardNotes(doc: RunDocument, add: Add): void {
  for (const b of doc.boards)
    for (const f of b.measure.findings)
      add(
        PART_TAGS.test(f.tag) && !f.at ? "parts" : "board",
        keyOf(f) + boardMark(doc, b.id),
        f.level,
        doc.boards.length > 1 ? `${b.name}: ${f.text}` : f.text,
        { ...pick(f), ...aboutBoard(doc, b.id) },
      );
}

const keyOf = (f: Finding) => [f.tag, f.file ?? "", f.about?.[0] ?? f.line ?? f.row ?? ""].join(" ").trim();
const pick = (f: Finding): Partial<Note> => ({
  ...(f.do ? { do: f.do } : {}),
  ...(f.at ? { at: f.at } : {}),
  ...(f.file ? { file: f.file } : {}),
  ...(f.line ? { line: f.line } : {}),
  ...(f.about ? { about: f.about } : {}),
  ...(f.offer ? { offer: f.offer } : {}),
});
