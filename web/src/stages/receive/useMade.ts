import { asksMade, boughtNumber, type DaysDoubted, daysDoubted } from "@kobbin/core";
import { useLearned } from "../../resources/learned.ts";
import { useRun } from "../../run/runState.ts";

/**
 * What the date code of an item matters for: days of it that are doubted as the shop knows it today, for a notice may come after
 * the order, and why it is asked for at all.
 */
export function useMade(): (item: string) => { doubts: readonly DaysDoubted[]; because: string | undefined } {
  const { doc, answer } = useRun();
  // what was known when it was released, until the shop has said more
  const lessons = useLearned().data?.lessons ?? doc.lessons ?? [];
  return (item) => {
    const doubts = daysDoubted(lessons, boughtNumber(doc, item), answer.productId);
    const because = doubts.length > 0 ? "some days of it are doubted" : asksMade(doc, item);
    return { doubts, because };
  };
}
