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
export const receive = later(
  "receive",
  "Receive",
  "Receiving is not built into Kobbin yet. The order package holds what to count against: baskets and the fabrication sheet.",
);
export const build = later(
  "build",
  "Build",
  "Building and testing are not built into Kobbin yet. Own hours and rework are estimated from the model until a record can be kept.",
);
