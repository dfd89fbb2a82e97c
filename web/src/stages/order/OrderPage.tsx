import { microsToNumber, saysUnpriced } from "@kobbin/core";
import { Link } from "react-router";
import { InColours } from "../../proof/InColours.tsx";
import { useRun } from "../../run/runState.ts";
import { useOrders } from "../../run/useOrders.ts";
import { Empty } from "../../ui/States.tsx";
import { count, fromMicros, money } from "../../ui/text/format.ts";
import { InThePackage } from "./InThePackage.tsx";
import { OrderSlip } from "./OrderSlip.tsx";

/** What goes out to whom: before the release what would be ordered, after it the package and each order's dates and invoice. */
export function OrderPage() {
  const { id, doc, result: r, isReleased } = useRun();
  const orders = useOrders();
  const open = saysUnpriced(r.unpriced);
  const beside = r.cash.filter((c) => c.isBeside && c.micros > 0);
  return (
    <section className="max-w-[940px]">
      <div className="flex items-start justify-between gap-4">
        <h1>Order</h1>
        <InColours size={[100, 68]} />
      </div>
      <div className="mt-2 mb-4 flex flex-wrap items-center gap-x-5 gap-y-2 border-y border-rule py-3">
        {isReleased ? (
          <a
            href={`/api/runs/${id}/package`}
            download
            className="inline-flex min-h-8 items-center rounded-[3px] border border-ink bg-ink px-3 py-1 font-semibold text-paper"
          >
            Download the package
          </a>
        ) : (
          <Link to={`/runs/${id}/release`} className="quiet-link">
            to the release
          </Link>
        )}
        <p className="flex-1 text-ink-2">
          {isReleased ? "" : "This would go out: "}
          {count(orders.length, "order")}, {open ? "at least " : ""}
          {money(microsToNumber(r.cashNeeded), doc.workshop.currency)} in all
          {beside.length > 0 &&
            `, ${money(fromMicros(beside.reduce((n, c) => n + c.micros, 0)), doc.workshop.currency)} of it for what stands in no order: ${beside.map((c) => c.label).join("; ")}`}
          {open ? `; ${open}` : ""}.
        </p>
        <a href={`/api/runs/${id}/document`} download className="quiet-link">
          {isReleased ? "the run alone (run/1)" : "export the run as it stands (run/1)"}
        </a>
      </div>
      {orders.length === 0 && (
        <Empty>Nothing can be ordered yet: no house is chosen and no offer covers a line.</Empty>
      )}
      {orders.map((o) => (
        <OrderSlip key={o.key} order={o} />
      ))}
      {isReleased && <InThePackage />}
      <p className="mt-3 text-[14px] text-ink-2">
        Prices and taxes are your entries at a date; check them before you pay. Whether a product may be sold
        where you sell it is decided by local rules, not here.
      </p>
    </section>
  );
}
