import { standingNotes } from "../document/standing.ts";
import { pastNotes } from "../ledger/past-notes.ts";
import type { Stage } from "../stage/stage.ts";
import { boardNotes } from "./board-notes.ts";
import { erratumNotes } from "./erratum-notes.ts";
import { fitNotes } from "./fit-notes.ts";
import { lessonNotes } from "./lesson-notes.ts";
import { meetNotes } from "./meet-notes.ts";

export const board: Stage = {
  key: "board",
  notes: (w, add) => {
    const { doc } = w;
    pastNotes(doc, add);
    boardNotes(doc, add);
    standingNotes(doc, add);
    fitNotes(doc, add);
    meetNotes(doc, add);
    erratumNotes(doc, add);
    lessonNotes(w, add);
  },
};
