import { boardNotes } from "../board-notes.ts";
import { fitNotes } from "../fit-notes.ts";
import { pastNotes } from "../past-notes.ts";
import { standingNotes } from "../standing.ts";
import type { Stage } from "./stage.ts";

export const board: Stage = {
  key: "board",
  notes: ({ doc }, add) => {
    pastNotes(doc, add);
    boardNotes(doc, add);
    standingNotes(doc, add);
    fitNotes(doc, add);
  },
};
