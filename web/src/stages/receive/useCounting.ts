import type { PlannedOrder } from "@kobbin/core";
import { format } from "date-fns";
import { useRef, useState } from "react";
import { addReceipt } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
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
  const forms = useRef(0);
  const isCounted = (item: string) => counting?.item === item && !counting.isSent;
  const count = (item: string) =>
    setCounting(isCounted(item) ? undefined : { item, nth: ++forms.current, isSent: false });
  const p = record.purchases.find((x) => x.order === o.key);
  const sending = useRef(0);
  const came = (list: readonly Counted[], words: string) => {
    const mine = counting?.isSent ? undefined : counting;
    // a form is out of sight once it is sent; all that is missing is told anew once what is on its way is written down
    const isForm = list.length === 1 && list[0]!.item === mine?.item;
    if (!isForm && sending.current > 0) return;
    sending.current++;
    const done = addReceipt(id, {
      order: o.key,
      arrivedOn: format(new Date(), "yyyy-MM-dd"),
      items: list.map((c) => {
        const unitCost = unitCostOf(o, c.item, p);
        return { ...c, ...(unitCost === undefined ? {} : { unitCost }) };
      }),
    });
    did(words, done);
    const now = (next?: Counting) => setCounting((c) => (c && c.nth === mine?.nth ? next : c));
    now(mine && { ...mine, isSent: true });
    done
      .finally(() => {
        sending.current--;
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
