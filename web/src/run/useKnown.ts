import { isComplete } from "@kobbin/core";
import { fromMicros } from "../ui/format.ts";
import type { RulerPoint } from "../ui/sweetSpots.ts";
import { useRun } from "./runState.ts";

/** The run's own point of its curve, which stands before the curve does; none while its figures are still counted. */
export function useKnown(): { readonly known?: RulerPoint } {
  const { doc, result: r, isBehind } = useRun();
  if (isBehind) return {};
  return {
    known: {
      quantity: doc.goodBoards,
      perGood: fromMicros(r.perGood),
      ...(isComplete(r.unpriced) ? {} : { unpriced: Math.max(1, r.unpriced.lines.length) }),
    },
  };
}
