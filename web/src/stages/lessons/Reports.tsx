import type { LearnedAnswer, ShopReport } from "@kobbin/contract";
import { useState } from "react";
import { Link } from "react-router";
import { useDone } from "../../history/useDone.ts";
import { ReportForm } from "../../run/owners/ReportForm.tsx";
import { ReportRow } from "../../run/owners/ReportRow.tsx";
import { isOpen } from "../../run/owners/told.ts";
import { Pick } from "../../ui/Field.tsx";
import { Empty } from "../../ui/States.tsx";

/** What owners said, of any product: what nobody has answered first. */
export function Reports({
  data,
  reports,
  isOwner,
  isSearched,
}: {
  data: LearnedAnswer;
  reports: readonly ShopReport[];
  isOwner: boolean;
  isSearched: boolean;
}) {
  const done = useDone();
  const [product, setProduct] = useState(data.products[0]?.id ?? "");
  const inTurn = [...reports.filter(isOpen), ...reports.filter((r) => !isOpen(r))];
  return (
    <section aria-labelledby="owners" className="mt-7">
      <h2 id="owners" className="mb-1 text-[16px]">
        What owners say
      </h2>
      {reports.length === 0 ? (
        <Empty>
          {isSearched
            ? "Nobody said anything like that."
            : "What an owner tells of a board is written down at its passport, or here where its number is not known."}
        </Empty>
      ) : (
        <ul>
          {inTurn.map((r) => (
            <ReportRow
              key={r.id}
              report={r}
              errata={data.errata.filter((e) => e.productId === r.productId)}
              isOwner={isOwner}
              board={
                r.runId ? (
                  <Link className="quiet-link" to={`/runs/${r.runId}/build?view=board&unit=${r.unit}`}>
                    {r.product} {r.revision}, board {r.unit} of “{r.run}”
                  </Link>
                ) : (
                  `${r.product}, of which board is not known`
                )
              }
            />
          ))}
        </ul>
      )}
      {!isSearched && data.products.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer text-[14.5px] text-ink-2">
            somebody says something whose board is not known
          </summary>
          <Pick
            label="Of which product"
            className="mt-2 max-w-[24ch]"
            value={product}
            options={data.products.map((p) => [p.id, p.name])}
            onChange={setProduct}
          />
          <ReportForm
            about={{ productId: product }}
            onSent={(sent) => done(sent, "What was said is written down")}
          />
        </details>
      )}
    </section>
  );
}
