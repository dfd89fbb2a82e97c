import { tallyOf } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";

export const build: WebStage = {
  key: "build",
  label: "Build",
  says: (doc, _, isReleased, record) => {
    if (!isReleased) return "after release";
    const { good, started } = tallyOf(record.work);
    if (record.closedOn) return `closed: ${good} good`;
    return started === 0 ? "nothing started yet" : `${good} of ${doc.goodBoards} good`;
  },
  state: (_, __, ___, record) => ({ kind: record.closedOn ? "ready" : "open" }),
  goesOn: true,
  load: async () => ({ Component: (await import("./BuildPage.tsx")).BuildPage }),
};
