import { type Pace, type PlanOfRun, paceOf, planOfRun, tallyOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "./runState.ts";

/** What is left by the steps of the bench at its pace so far; nothing until somebody sat down there. */
export function usePace(given?: PlanOfRun): Pace | undefined {
  const { doc, result, record } = useRun();
  const { good, scrapped } = tallyOf(record.work);
  const { sittings } = record;
  return useMemo(
    () =>
      sittings?.length
        ? paceOf((given ?? planOfRun(doc, result)).sheet.steps, sittings, result.start, good + scrapped)
        : undefined,
    [given, doc, result, sittings, good, scrapped],
  );
}
