import type { Stage } from "../stage/stage.ts";
import { rightsNotes } from "./rights-notes.ts";
import { againNotes } from "./typed-again.ts";

export const release: Stage = {
  key: "release",
  notes: (w, add) => {
    rightsNotes(w.doc, add);
    againNotes(w, add);
  },
};
