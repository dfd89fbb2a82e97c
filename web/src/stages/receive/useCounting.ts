import type { PlannedOrder } from "@kobbin/core";
import { format } from "date-fns";
import { useRef, useState } from "react";
import { addReceipt } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { useSayError } from "../../ui/Toast.tsx";
import { type Counted, unitCostOf } from "./counted.ts";

/** The line that is being counted, which form of it that is, and whether what was counted is on its way. */
interface Counting {
  readonly item: string;
  readonly nth: number;
  readonly isSent: boolean;
}

/**
 * Writes down what came of an order, and which line's form is open. What is on its way is out of sight and cannot be sent
 * twice; what was refused is there again as it was typed.
 */
export function useCounting(o: PlannedOrder) {
  const { id, record, did } = useRun();
  const sayError = useSayError();
  const [counting, setCounting] = useState<Counting>();
  const isCounted = (item: string) => counting?.item === item && !counting.isSent;
  const count = (item: string) =>
    setCounting((c) => (isCounted(item) ? undefined : { item, nth: (c?.nth ?? 0) + 1, isSent: false }));
  const p = record.purchases.find((x) => x.order === o.key);
  const sending = useRef(new Set<string>());
  const came = (list: readonly Counted[], words: string) => {
    // pressed twice it came once
    if (list.some((c) => sending.current.has(c.item))) return;
    for (const c of list) sending.current.add(c.item);
    const done = addReceipt(id, {
      order: o.key,
      arrivedOn: format(new Date(), "yyyy-MM-dd"),
      items: list.map((c) => {
        const unitCost = unitCostOf(o, c.item, p);
        return { ...c, ...(unitCost === undefined ? {} : { unitCost }) };
      }),
    });
    did(words, done);
    const mine = counting;
    const now = (next?: Counting) => setCounting((c) => (c && c.nth === mine?.nth ? next : c));
    now(mine && { ...mine, isSent: true });
    done
      .finally(() => {
        for (const c of list) sending.current.delete(c.item);
      })
      .then(
        () => now(),
        (error) => {
          now(mine);
          sayError(error);
        },
      );
  };
  return { counting, isCounted, count, came };
}
