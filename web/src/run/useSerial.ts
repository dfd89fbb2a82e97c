import { readSerial, serialOfUnit } from "@kobbin/core";
import { useRun } from "./runState.ts";

/** The serial number of each board that is started, by the rule the run was released with; nothing before the release. */
export function useSerial(): (unit: number) => string | undefined {
  const { doc, record } = useRun();
  return (unit) => serialOfUnit(doc, record, unit);
}

/** Which board of this run a serial number is of, as typed or scanned; or in words why it is none. */
export function useUnitOf(): (text: string) => { readonly unit: number } | { readonly wrong: string } {
  const { result } = useRun();
  const serial = useSerial();
  return (text) => {
    const read = readSerial(text);
    if ("wrong" in read) return read;
    for (let unit = 1; unit <= result.start; unit++)
      if (serial(unit)?.replaceAll("-", "") === read.serial) return { unit };
    return { wrong: `${read.serial} is no board of this run.` };
  };
}
