import type { RunDocument } from "../document/document.ts";
import { mendMinutes } from "../stage/mending.ts";
import type { RunResult } from "../stage/result.ts";

/** A step of own work: minutes for one board where it is done board by board, and for the run. */
export interface WorkRow {
  readonly label: string;
  readonly each?: number;
  readonly all: number;
}

/** The steps of a run's own work as they are counted; their minutes for the run add up to its own minutes. */
export function ownWork(
  doc: RunDocument,
  r: Pick<RunResult, "parts" | "time" | "minutes" | "yield" | "start" | "sides">,
): WorkRow[] {
  const k = r.yield.record?.timeFactor ?? 1;
  const { time, minutes, start } = r;
  const each = (label: string, own: number): WorkRow[] =>
    own > 0 ? [{ label, each: k * own, all: k * own * start }] : [];
  const once = (label: string, all: number): WorkRow[] => (all > 0 ? [{ label, all }] : []);
  const { testMinutes, packMinutes } = doc.assembly;
  return [
    ...once("set up", minutes.setup),
    ...once("lay out the parts", minutes.kitting),
    ...each(r.sides.own.both.length > 0 ? "print the paste, two sides" : "print the paste", time.print / 60),
    ...each("place the parts", time.place / 60),
    ...each(`melt, ${time.perLoad} boards a load`, time.reflow / 60),
    ...each("solder by iron", time.solder / 60),
    ...each("look over", time.inspect / 60),
    ...each("find and mend defects", mendMinutes(doc, r.parts, r.yield)),
    ...once("wash", minutes.cleaning),
    ...once("take boards off their sheets", minutes.parting),
    ...each("test", testMinutes),
    ...each("pack", packMinutes),
  ];
}
