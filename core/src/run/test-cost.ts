import { branch, type CostNode, leaf } from "../costing/tree.ts";
import { toMicros } from "../money/money.ts";
import type { RunDocument } from "./document.ts";

/** Own minutes of testing and packing, for every product started. */
export function testNode(doc: RunDocument, start: number): CostNode {
  const rate = toMicros(doc.workshop.hourlyRate);
  const { testMinutes, packMinutes } = doc.assembly;
  return branch("other", "Test and packing", [
    leaf("testing", "test and packing", [
      {
        label: "test",
        micros: (start * testMinutes * rate) / 60,
        note: `${start} boards × ${testMinutes} min`,
      },
      {
        label: "packing",
        micros: (start * packMinutes * rate) / 60,
        note: `${start} boards × ${packMinutes} min`,
      },
    ]),
  ]);
}
