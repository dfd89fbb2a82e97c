import { firstPassOf, tallyOf } from "@kobbin/core";
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
  state: (doc, _, __, record) => {
    const failing = record.tries ? firstPassOf(doc.assembly.tests ?? [], record.tries).failing : 0;
    if (failing > 0 && !record.closedOn) return { kind: "look", count: failing };
    return { kind: record.closedOn ? "ready" : "open" };
  },
  goesOn: true,
  load: async () => ({ Component: (await import("./BuildPage.tsx")).BuildPage }),
};
