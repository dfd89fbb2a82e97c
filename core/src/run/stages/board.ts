import { boardNotes } from "../board-notes.ts";
import { fitNotes } from "../fit-notes.ts";
import type { Stage } from "./stage.ts";

export const board: Stage = {
  key: "board",
  notes: ({ doc }, add) => {
    boardNotes(doc, add);
    fitNotes(doc, add);
  },
};
