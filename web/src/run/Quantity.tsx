import { isComplete, unitOf } from "@kobbin/core";
import { useEffect } from "react";
import type { RulerPoint } from "../ui/chart/sweetSpots.ts";
import { Ruler } from "../ui/Ruler.tsx";
import { fromMicros } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";

/** How many good ones are wanted, on the rule of the run's curve; its own point stands there before the curve does. */
export function Quantity() {
  const { doc, result: r, isBehind, isLocked, curve, wantCurve, change } = useRun();
  useEffect(wantCurve, [wantCurve]);
  const unit = `good ${unitOf(doc)}s`;
  const known: RulerPoint = {
    quantity: doc.goodBoards,
    perGood: fromMicros(r.perGood),
    ...(isComplete(r.unpriced) ? {} : { unpriced: Math.max(1, r.unpriced.lines.length) }),
  };
  return (
    <Ruler
      value={doc.goodBoards}
      points={curve}
      // figures that are still counted again are of another quantity
      {...(isBehind ? {} : { known })}
      currency={doc.workshop.currency}
      label={unit}
      disabled={isLocked}
      onChange={(n) => change({ goodBoards: n }, `${doc.goodBoards} → ${n} ${unit}`)}
    />
  );
}
