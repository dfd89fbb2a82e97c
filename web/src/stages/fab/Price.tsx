import type { BoardOrder } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { amount, count, fromMicros, money } from "../../ui/text/format.ts";

/** What the house charges for one board of the product, term by term. */
export function Price({ order, at }: { order: BoardOrder; at: number }) {
  const { doc, result: r } = useRun();
  const { sum } = order.quote;
  const times = doc.boards[at]?.perProduct ?? 1;
  return (
    <section aria-labelledby={`price-${at}`}>
      <h2 id={`price-${at}`} className="mb-1">
        Price of {order.quote.pieces} {doc.boards.length > 1 ? `of ${order.name}` : "boards"}
        {order.sheet && ` on ${count(order.sheet.sheets, "sheet")} of ${order.sheet.perSheet}`}
      </h2>
      <table className="rows w-full">
        <tbody>
          {sum.map((t) => (
            <tr key={t.label}>
              <td>
                {t.label}
                {t.note && <span className="block text-[12.5px] text-ink-3">{t.note}</span>}
              </td>
              <td className="num text-right">{amount(fromMicros(t.micros), r.house!.currency)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td>in all, estimated from the profile of {r.house!.checkedOn}</td>
            <td className="num text-right">{money(fromMicros(order.quote.total), r.house!.currency)}</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1 text-[13.5px] text-ink-2">
        {r.start * times} are started for {doc.goodBoards} good {times > 1 ? "products" : "ones"}; the house
        sells in steps of {r.house!.price.step}.
      </p>
    </section>
  );
}
