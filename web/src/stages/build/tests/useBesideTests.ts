import { type BesideTest, besideTests } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";

/** What of this run is to be tried besides the bench, as of today. */
export function useBesideTests(): readonly BesideTest[] {
  const { doc, record } = useRun();
  const today = todayIso();
  return useMemo(
    () => besideTests(doc.assembly.tests ?? [], record, today),
    [doc.assembly.tests, record, today],
  );
}
