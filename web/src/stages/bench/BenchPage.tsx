import type { ProductRow, RunRow } from "@kobbin/contract";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useBench } from "../../resources/bench.ts";
import { handOver } from "../../resources/handed.ts";
import { useRole, useShop } from "../../resources/session.ts";
import { DropZone } from "../../ui/DropZone.tsx";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { amount, day, dayRange, money } from "../../ui/text/format.ts";
import { Next } from "./Next.tsx";
import { Products } from "./Products.tsx";
import { stateWords } from "./released.ts";
import { StartRun } from "./StartRun.tsx";

/** The bench: what needs attention next, the runs, the products. */
export function BenchPage() {
  const { data, error, mutate } = useBench();
  const { currency } = useShop();
  const isOwner = useRole() === "owner";
  const [starting, setStarting] = useState<{ product: ProductRow; revisionId: string }>();
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-6 max-sm:px-3">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1>Bench</h1>
        {/* on a phone the bar at the top has no room for it */}
        <Link to="/waiting" className="quiet-link sm:hidden">
          what is waited for
        </Link>
        {isOwner && (
          <Link
            to="/new"
            className="inline-flex min-h-8 items-center rounded-[3px] border border-ink bg-ink px-3 py-1 text-[14.5px] font-semibold text-paper"
          >
            New product
          </Link>
        )}
      </div>
      {error && !data ? (
        <Failed error={error} again={() => mutate()} />
      ) : !data ? (
        <Skeleton rows={8} />
      ) : data.products.length === 0 ? (
        <Nothing isOwner={isOwner} />
      ) : (
        <>
          <Next runs={data.runs} currency={currency} />
          <Runs runs={data.runs} currency={currency} />
          <Products
            products={data.products}
            isOwner={isOwner}
            onStart={(product, revisionId) => setStarting({ product, revisionId })}
          />
        </>
      )}
      {starting && <StartRun {...starting} onClose={() => setStarting(undefined)} />}
    </main>
  );
}

/** A shop without a board yet: the first one may be dropped right here. */
function Nothing({ isOwner }: { isOwner: boolean }) {
  const navigate = useNavigate();
  if (!isOwner) return <Empty>Nothing here yet. An owner keeps the first board.</Empty>;
  return (
    <>
      <p className="mb-3 text-ink-2">
        Nothing here yet. Drop the archive your layout program wrote; Kobbin reads, draws and measures it.
      </p>
      <DropZone
        isCompact={false}
        onFiles={(files) => {
          handOver(files);
          navigate("/new");
        }}
      />
    </>
  );
}

function Runs({ runs, currency }: { runs: readonly RunRow[]; currency: string }) {
  return (
    <section aria-labelledby="runs" className="mb-8">
      <h2 id="runs" className="mb-2">
        Runs
      </h2>
      {runs.length === 0 ? (
        <Empty>
          No run yet. Start one from a product below: a revision and the number of good boards wanted.
        </Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="rows w-full">
            <thead>
              <tr>
                <th>Run</th>
                <th className="max-sm:hidden">Product</th>
                <th className="text-right max-sm:hidden">Good boards</th>
                <th className="text-right">Per good board</th>
                <th className="text-right max-sm:hidden">Cash, {currency}</th>
                <th className="text-right max-sm:hidden">Ready by</th>
                <th>State</th>
              </tr>
            </thead>
            <tbody>
              {runs.map((r) => (
                <tr key={r.id} className="hover:bg-sheet">
                  <td>
                    <Link to={`/runs/${r.id}/board`} className="font-semibold hover:underline">
                      {r.name}
                    </Link>
                    <span className="hidden text-[13px] text-ink-2 max-sm:block">
                      {r.product} {r.revision}, {r.goodBoards}
                    </span>
                  </td>
                  <td className="text-ink-2 max-sm:hidden">
                    {r.product} {r.revision}
                  </td>
                  <td className="num text-right max-sm:hidden">{r.goodBoards}</td>
                  <td className="num text-right">
                    {r.summary?.unpriced && <span className="font-sans text-ink-2">at least </span>}
                    {r.summary ? money(r.summary.perGood, currency) : "–"}
                    {r.summary?.unpriced && (
                      <span className="block font-sans text-[12.5px] text-stop">{r.summary.unpriced}</span>
                    )}
                  </td>
                  <td className="num text-right max-sm:hidden">
                    {r.summary?.unpriced && <span className="font-sans text-ink-2">≥ </span>}
                    {r.summary ? amount(r.summary.cashNeeded, currency) : "–"}
                  </td>
                  <td className="num text-right whitespace-nowrap max-sm:hidden">
                    {r.summary && !r.isClosed
                      ? r.summary.unpriced
                        ? `not before ${day(r.summary.readyFrom)}`
                        : dayRange(r.summary.readyFrom, r.summary.readyTo)
                      : "–"}
                  </td>
                  <td className="whitespace-nowrap">
                    {r.state === "released"
                      ? stateWords(r, todayIso())
                      : r.summary && r.summary.blockers > 0
                        ? `${r.summary.blockers} blocking`
                        : "open"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
