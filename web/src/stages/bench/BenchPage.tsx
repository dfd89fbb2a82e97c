import type { ProductRow, RunRow } from "@kobbin/contract";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { startRun, useBench } from "../../resources/bench.ts";
import { useRole, useShop } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { amount, count, day, dayRange, mm, money, said } from "../../ui/format.ts";
import { Mark } from "../../ui/Mark.tsx";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { useSayError } from "../../ui/Toast.tsx";

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
        <Empty
          action={
            <Link to="/new" className="quiet-link">
              Drop a board
            </Link>
          }
        >
          Nothing here yet. Drop the archive your layout program wrote; Kobbin reads, draws and measures it.
        </Empty>
      ) : (
        <>
          <Attention runs={data.runs} />
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

function Attention({ runs }: { runs: readonly RunRow[] }) {
  const weight = (r: RunRow) => (r.summary ? r.summary.blockers * 100 + r.summary.cautions : 50);
  const next = runs
    .filter((r) => r.state === "open")
    .sort((a, b) => weight(b) - weight(a))
    .slice(0, 5);
  if (next.length === 0) return null;
  return (
    <section aria-labelledby="next" className="mb-8">
      <h2 id="next" className="mb-2">
        Next
      </h2>
      <ul>
        {next.map((r) => (
          <li key={r.id} className="grid grid-cols-[22px_1fr] gap-2 border-t border-rule py-2">
            <Mark
              kind={
                !r.summary
                  ? "open"
                  : r.summary.blockers > 0
                    ? "blocked"
                    : r.summary.cautions > 0
                      ? "look"
                      : "ready"
              }
              count={r.summary?.blockers || r.summary?.cautions || undefined}
            />
            <p>
              <Link
                to={`/runs/${r.id}/${r.summary?.next?.stage ?? "release"}`}
                className="font-semibold hover:underline"
              >
                {r.product}, {r.name}
              </Link>
              <span className="text-ink-2">
                : {said(r.summary?.next?.text ?? "nothing blocks; it can be released.")}
              </span>
            </p>
          </li>
        ))}
      </ul>
    </section>
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
                    {r.summary && r.state === "open"
                      ? r.summary.unpriced
                        ? `not before ${day(r.summary.readyFrom)}`
                        : dayRange(r.summary.readyFrom, r.summary.readyTo)
                      : "–"}
                  </td>
                  <td className="whitespace-nowrap">
                    {r.state === "released"
                      ? "released"
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

function Products({
  products,
  isOwner,
  onStart,
}: {
  products: readonly ProductRow[];
  isOwner: boolean;
  onStart: (p: ProductRow, revisionId: string) => void;
}) {
  return (
    <section aria-labelledby="products">
      <h2 id="products" className="mb-2">
        Products
      </h2>
      <ul>
        {products.map((p) => (
          <li
            key={p.id}
            className="grid grid-cols-[200px_1fr_auto] items-baseline gap-4 border-t border-rule py-3 max-sm:grid-cols-1 max-sm:gap-1"
          >
            <span className="font-semibold">{p.name}</span>
            <ul className="flex flex-col gap-1">
              {p.revisions.map((v) => (
                <li key={v.id} className="flex flex-wrap items-baseline gap-x-4 text-ink-2">
                  <span>revision {v.label}</span>
                  <span className="num">
                    {v.widthMm == null ? "size not known" : `${mm(v.widthMm)} × ${mm(v.heightMm)} mm`}
                  </span>
                  <span>{v.layers} layers</span>
                  {v.boards > 1 && <span>and {count(v.boards - 1, "board")} more</span>}
                  <span>{v.lines} lines of parts</span>
                  {isOwner && (
                    <button
                      type="button"
                      className="quiet-link"
                      onClick={() => onStart(p, v.id)}
                      aria-label={`Start a run of ${p.name} ${v.label}`}
                    >
                      start a run
                    </button>
                  )}
                  <a
                    className="quiet-link"
                    href={`/api/boards/${v.boardId}/files`}
                    download
                    aria-label={`Download the files of ${p.name} ${v.label}`}
                  >
                    files as dropped
                  </a>
                </li>
              ))}
            </ul>
            <span className="flex gap-4">
              {isOwner && (
                <Link to={`/new?product=${p.id}`} className="quiet-link">
                  new revision
                </Link>
              )}
              <Link
                to={`/products/${p.id}/history`}
                className="quiet-link"
                aria-label={`History of ${p.name}`}
              >
                history
              </Link>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function StartRun({
  product,
  revisionId,
  onClose,
}: {
  product: ProductRow;
  revisionId: string;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const sayError = useSayError();
  const [revision, setRevision] = useState(revisionId);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    startRun({ revisionId: revision, name: String(f.get("name")), goodBoards: Number(f.get("goodBoards")) })
      .then(({ id }) => navigate(`/runs/${id}/board`))
      .catch(sayError);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`A run of ${product.name}`}
      about="A revision, a number of good boards, and later the choices made."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <Pick
          label="Revision"
          value={revision}
          onChange={setRevision}
          options={product.revisions.map((v) => [v.id, v.label] as const)}
        />
        <Field label="Name of the run" name="name" required maxLength={120} defaultValue="first run" />
        <Field
          label="Good boards wanted"
          name="goodBoards"
          type="number"
          min={1}
          max={100000}
          required
          defaultValue={20}
        />
        <div>
          <Button type="submit" look="main">
            Start the run
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
