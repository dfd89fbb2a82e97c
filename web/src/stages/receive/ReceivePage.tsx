import { mayChange } from "@kobbin/core";
import { Link, useSearchParams } from "react-router";
import { Ready } from "../../run/Ready.tsx";
import { useRun } from "../../run/runState.ts";
import { useOrders } from "../../run/useOrders.ts";
import { Empty } from "../../ui/States.tsx";
import { Measure } from "./measure/Measure.tsx";
import { Parcel } from "./Parcel.tsx";

/** What came, counted against what was ordered: at the bench, one parcel at a time. */
export function ReceivePage() {
  const { id, doc, isReleased, life, role } = useRun();
  const orders = useOrders();
  const [params, setParams] = useSearchParams();
  const index = Number(params.get("measure") ?? 0) - 1;
  if (isReleased && doc.boards[index] && mayChange("board_measured", life, role))
    return <Measure index={index} onLeave={() => setParams({})} />;
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
              <Parcel
                key={o.key}
                order={o}
                isOpen={mayChange("receipt", life, role)}
                onMeasure={(board) => setParams({ measure: String(board + 1) })}
              />
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
