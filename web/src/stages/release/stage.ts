import type { WebStage } from "../../run/stages.ts";
import { stateOfNotes } from "../../run/stages.ts";
import { count } from "../../ui/text/format.ts";

export const release: WebStage = {
  key: "release",
  label: "Release",
  says: (_, r, isReleased) =>
    isReleased ? "released" : r.blockers.length > 0 ? count(r.blockers.length, "blocker") : "nothing blocks",
  state: (_, r) => stateOfNotes(r.notes),
  load: async () => ({ Component: (await import("./ReleasePage.tsx")).ReleasePage }),
};
