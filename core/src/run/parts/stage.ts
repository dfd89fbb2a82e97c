import type { Stage } from "../stage/stage.ts";
import { libraryNotes } from "./library-notes.ts";
import { partNotes } from "./part-notes.ts";
import { sumNotes } from "./sum-notes.ts";

export const parts: Stage = {
  key: "parts",
  notes: ({ doc, needs, basket }, add) => {
    partNotes(doc, add);
    libraryNotes(doc, needs, basket, add);
    sumNotes(doc, add);
  },
};
