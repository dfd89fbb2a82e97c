import { libraryNotes } from "../library-notes.ts";
import { partNotes } from "../part-notes.ts";
import { sumNotes } from "../sum-notes.ts";
import type { Stage } from "./stage.ts";

export const parts: Stage = {
  key: "parts",
  notes: ({ doc, needs, basket }, add) => {
    partNotes(doc, add);
    libraryNotes(doc, needs, basket, add);
    sumNotes(doc, add);
  },
};
