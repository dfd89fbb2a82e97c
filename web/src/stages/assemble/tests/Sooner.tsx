import { soonestPlan, type TestItem } from "@kobbin/core";
import { useDeferredValue, useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { fixed } from "../../../ui/text/format.ts";
import { inOrderOf } from "./testModel.ts";

/** The order in which a bad joint is found soonest, with what that saves before it is taken. */
export function Sooner({
  plan,
  onKeep,
}: {
  plan: readonly TestItem[];
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc, result } = useRun();
  // the plan and its coverage are painted first
  const later = useDeferredValue(doc);
  const soonest = useMemo(() => soonestPlan(later, result.parts), [later, result.parts]);
  if (!soonest || plan.length < 2) return null;
  const { nowMinutes: now, thenMinutes: then } = soonest;
  const isLess = now - then > 0.005;
  return (
    <span className="text-[14.5px] text-ink-2">
      A bad joint shows after {fixed(now, 2)} min of testing, on average
      {isLess ? (
        <>
          .{" "}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              onKeep(inOrderOf(plan, soonest.tests), "Items in the order that finds bad joints soonest")
            }
          >
            put in another order: after {fixed(then, 2)} min
          </button>
        </>
      ) : (
        "; no other order is quicker."
      )}
    </span>
  );
}
