import { mayChange } from "@kobbin/core";
import { Link } from "react-router";
import { Ready } from "../../run/Ready.tsx";
import { useRun } from "../../run/runState.ts";
import { useOrders } from "../../run/useOrders.ts";
import { Empty } from "../../ui/States.tsx";
import { Parcel } from "./Parcel.tsx";

/** What came, counted against what was ordered: at the bench, one parcel at a time. */
export function ReceivePage() {
  const { id, isReleased, life, role } = useRun();
  const orders = useOrders();
  return (
    <section className="max-w-[860px]">
      <h1>Receive</h1>
      {isReleased ? (
        <>
          <p className="mb-3 max-w-[64ch] text-ink-2">
            Count each parcel. What may be used goes on the shelf for this run, the rest is set apart. Keep
            moisture-sensitive parts in their bag until they are needed, and touch nothing bare without a
            strap.
          </p>
          <Ready />
          {orders
            .filter((o) => o.kind !== "assembly")
            .map((o) => (
              <Parcel key={o.key} order={o} isOpen={mayChange("receipt", life, role)} />
            ))}
        </>
      ) : (
        <Empty
          action={
            <Link to={`/runs/${id}/release`} className="quiet-link">
              to the release
            </Link>
          }
        >
          Nothing is ordered before the release. After it every order stands here, to be counted as it comes.
        </Empty>
      )}
    </section>
  );
}
