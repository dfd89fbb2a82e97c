import { besideTests, firstPassOf, tallyOf } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { todayIso } from "../../ui/text/dates.ts";

export const build: WebStage = {
  key: "build",
  label: "Build",
  says: (doc, _, isReleased, record) => {
    if (!isReleased) return "after release";
    const { good, started } = tallyOf(record.work);
    if (record.closedOn) return `closed: ${good} good`;
    const atBench = new Set([
      ...(record.sittings ?? []).flatMap((s) => (s.unit > 0 ? [s.unit] : [])),
      ...(record.tries ?? []).map((t) => t.unit),
    ]).size;
    if (started === 0) return atBench === 0 ? "nothing started yet" : `${atBench} at the bench, none counted`;
    const due = besideTests(doc.assembly.tests ?? [], record, todayIso()).filter(
      (t) => t.is === "due",
    ).length;
    return `${good} of ${doc.goodBoards} good${due > 0 ? `, ${due} to try` : ""}`;
  },
  state: (doc, _, __, record) => {
    const failing = record.tries ? firstPassOf(doc.assembly.tests ?? [], record.tries).failing : 0;
    if (failing > 0 && !record.closedOn) return { kind: "look", count: failing };
    return { kind: record.closedOn ? "ready" : "open" };
  },
  goesOn: true,
  load: async () => ({ Component: (await import("./BuildPage.tsx")).BuildPage }),
};
