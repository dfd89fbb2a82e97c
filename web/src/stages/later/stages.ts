import type { WebStage } from "../../run/stages.ts";

const later = (key: string, label: string, words: string): WebStage => ({
  key,
  label,
  says: () => "later",
  later: words,
});

/** Stages whose place is kept, with what stands there until they are built. */
export const panel = later(
  "panel",
  "Panel",
  "Panels are not built into Kobbin yet. Boards are ordered singly; a house that makes the panel itself can be told so in its notes.",
);
