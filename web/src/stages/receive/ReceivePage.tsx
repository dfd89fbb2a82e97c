import { boardKey, mayChange, type RunDocument } from "@kobbin/core";
import { Link, useSearchParams } from "react-router";
import { Ready } from "../../run/Ready.tsx";
import { useRun } from "../../run/runState.ts";
import { useOrders } from "../../run/useOrders.ts";
import { usePace } from "../../run/usePace.ts";
import { Empty } from "../../ui/States.tsx";
import { Measure } from "./measure/Measure.tsx";
import { Reference } from "./over/Reference.tsx";
import { Parcel } from "./Parcel.tsx";

/** What came, counted against what was ordered: at the bench, one parcel at a time. */
export function ReceivePage() {
  const { id, doc, isReleased, life, role } = useRun();
  const orders = useOrders();
  const pace = usePace();
  const [params, setParams] = useSearchParams();
  const index = Number(params.get("measure") ?? 0) - 1;
  const kept = Number(params.get("photos") ?? 0) - 1;
  const ofKept = orders.find((o) => o.kind === "boards" && o.items.some((i) => i.key === keyOf(doc, kept)));
  if (isReleased && doc.boards[index] && mayChange("board_measured", life, role))
    return <Measure index={index} onLeave={() => setParams({})} />;
  if (isReleased && ofKept && mayChange("photo", life, role))
    return <Reference index={kept} order={ofKept} item={keyOf(doc, kept)!} onLeave={() => setParams({})} />;
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
          <Ready pace={pace} />
          {orders
            .filter((o) => o.kind !== "assembly")
            .map((o) => (
              <Parcel
                key={o.key}
                order={o}
                isOpen={mayChange("receipt", life, role)}
                onMeasure={(board) => setParams({ measure: String(board + 1) })}
                onPhotos={(board) => setParams({ photos: String(board + 1) })}
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

const keyOf = (doc: RunDocument, index: number): string | undefined =>
  doc.boards[index] ? boardKey(doc, index) : undefined;
