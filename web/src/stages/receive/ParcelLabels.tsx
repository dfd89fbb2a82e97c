import { compareRefs, type PlannedOrder } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useLots } from "../../resources/library.ts";
import { useRun } from "../../run/runState.ts";
import { type BagLabel, BagLabels } from "../../shelf/BagLabels.tsx";
import { count } from "../../ui/text/format.ts";

/** A label for each bag and reel that came of an order, with what it is for on this run's boards. */
export function ParcelLabels({ order: o }: { order: PlannedOrder }) {
  const { doc, record } = useRun();
  const { data: lots } = useLots();
  const [isPrinting, setPrinting] = useState(false);
  const labels = useMemo(
    () =>
      record.receipts
        .filter((r) => r.order === o.key && r.lot)
        .flatMap((r): BagLabel[] => {
          const lot = lots?.find((l) => l.id === r.lot);
          const line = doc.lines.find((l) => l.id === doc.offers.find((x) => x.id === r.item)?.line);
          const direction = doc.library?.find((p) => p.mpn === lot?.mpn)?.direction;
          return lot
            ? [
                {
                  lot,
                  refs: [...(line?.refs ?? [])].sort(compareRefs),
                  ...(direction ? { direction } : {}),
                },
              ]
            : [];
        }),
    [record.receipts, o.key, lots, doc],
  );
  if (labels.length === 0) return null;
  return (
    <p className="border-t border-rule px-4 py-2 text-[14.5px]">
      <button type="button" className="quiet-link min-h-11 md:min-h-6" onClick={() => setPrinting(true)}>
        print {count(labels.length, "label")}
      </button>
      <span className="ml-3 text-ink-2">
        one a bag, 50 × 25 mm: scanned while parts are laid out, it picks its own
      </span>
      {isPrinting && <BagLabels labels={labels} onDone={() => setPrinting(false)} />}
    </p>
  );
}
