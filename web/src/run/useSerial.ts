import { serialOfUnit } from "@kobbin/core";
import { useRun } from "./runState.ts";

/** The serial number of each board that is started, by the rule the run was released with; nothing before the release. */
export function useSerial(): (unit: number) => string | undefined {
  const { doc, record } = useRun();
  return (unit) => serialOfUnit(doc, record, unit);
}
