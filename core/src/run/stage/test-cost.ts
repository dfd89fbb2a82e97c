import { branch, type CostNode, leaf } from "../../costing/tree.ts";
import { toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";

/** Own minutes of testing and packing, for every product started. @param k minutes really taken for one of those set */
export function testNode(doc: RunDocument, start: number, k = 1): CostNode {
  const rate = toMicros(doc.workshop.hourlyRate);
  const { testMinutes, packMinutes } = doc.assembly;
  return branch("other", "Test and packing", [
    leaf("testing", "test and packing", [
      {
        label: "test",
        micros: (k * start * testMinutes * rate) / 60,
        note: minutesOf(start, testMinutes, k),
      },
      {
        label: "packing",
        micros: (k * start * packMinutes * rate) / 60,
        note: minutesOf(start, packMinutes, k),
      },
    ]),
  ]);
}

const minutesOf = (start: number, minutes: number, k: number): string =>
  `${start} boards × ${minutes} min${k === 1 ? "" : ` × ${k.toFixed(2)}, by the shop's record`}`;
