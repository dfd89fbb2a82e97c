import type { Stage } from "../stage/stage.ts";
import { rightsNotes } from "./rights-notes.ts";

export const release: Stage = { key: "release", notes: ({ doc }, add) => rightsNotes(doc, add) };
