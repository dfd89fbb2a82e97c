import type { RunSummary } from "@kobbin/contract";
import { type RunDocument, unitOf } from "@kobbin/core";
import { NavLink } from "react-router";
import { Skeleton } from "../ui/States.tsx";
import { amount, dayRange, money } from "../ui/text/format.ts";
import { stages } from "./stages.ts";

/**
 * A run whose figures are being computed in the page: what it is, its stages, and the figures the server counted last,
 * said to be those. It stands for some hundred milliseconds, where everything will be.
 */
export function Counting({
  id,
  stage,
  doc,
  summary,
}: {
  id: string;
  stage: string;
  doc: RunDocument;
  summary: RunSummary | undefined;
}) {
  const unit = unitOf(doc);
  const { currency } = doc.workshop;
  const least = summary?.unpriced ? "at least " : "";
  const figures = summary
    ? [
        [`${least}per good ${unit}`, amount(summary.perGood, currency)],
        [`${least}cash needed`, money(summary.cashNeeded, currency)],
        [least ? "not before" : "ready by", dayRange(summary.readyFrom, summary.readyTo)],
      ]
    : [];
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[262px_minmax(0,1fr)] md:overflow-hidden max-[1100px]:grid-cols-[248px_minmax(0,1fr)] max-md:block">
      <nav aria-label="Stages of the run" className="flex min-h-0 flex-col border-r border-rule">
        <div className="px-5 pt-4 pb-3 max-md:px-3 max-md:pt-2 max-md:pb-1">
          <p className="text-[17px] font-bold">
            {doc.goodBoards} good {unit}s
          </p>
          <p className="text-[13.5px] text-ink-2">revision {doc.revision}</p>
        </div>
        <ol className="min-h-0 flex-1 overflow-hidden max-md:flex">
          {stages().map((s) => (
            <li key={s.key} className="max-md:shrink-0">
              <NavLink
                to={`/runs/${id}/${s.key}`}
                aria-current={s.key === stage ? "page" : undefined}
                className={`grid min-h-[43px] grid-cols-[20px_1fr] gap-x-2 px-5 pt-[4px] leading-tight max-md:px-3 ${s.key === stage ? "bg-sheet font-bold shadow-[inset_3px_0_0_var(--metal)]" : "font-semibold"}`}
              >
                <span aria-hidden />
                {s.label}
              </NavLink>
            </li>
          ))}
        </ol>
        <dl className="border-t border-rule bg-sheet px-5 pt-3 pb-4 text-[13.5px] text-ink-2 max-md:px-3 max-md:py-2">
          <div>{summary ? "as counted last" : "not counted yet"}</div>
          {figures.map(([label, value]) => (
            <div key={label} className="flex items-baseline justify-between gap-x-2 leading-[25px]">
              <dt>{label}</dt>
              <dd className="num shrink-0 whitespace-nowrap">{value}</dd>
            </div>
          ))}
        </dl>
      </nav>
      <main id="main" className="min-w-0 px-6 pt-4 max-md:px-3" aria-busy="true">
        <p className="text-[22px] font-bold">{stages().find((s) => s.key === stage)?.label}</p>
        <Skeleton rows={8} label="The run is being computed" />
      </main>
    </div>
  );
}
