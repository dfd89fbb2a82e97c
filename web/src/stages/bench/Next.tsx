import type { RunRow } from "@kobbin/contract";
import { Link } from "react-router";
import { Mark } from "../../ui/Mark.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { day, dayRange, money, said } from "../../ui/text/format.ts";
import { askedOf, isLate } from "./released.ts";
import { bySoonest } from "./soonest.ts";

/** What each open run asks for next, with the one thing to do about it. */
export function Next({ runs, currency }: { runs: readonly RunRow[]; currency: string }) {
  const waiting = runs.flatMap((r) => (r.waits ?? []).map((text) => ({ r, text })));
  const today = todayIso();
  const next = runs
    .filter((r) => !r.isClosed)
    .sort((a, b) => Number(isLate(b, today)) - Number(isLate(a, today)) || bySoonest(a, b))
    .slice(0, 6);
  if (next.length + waiting.length === 0) return null;
  return (
    <section aria-labelledby="next" className="mb-8">
      <h2 id="next" className="mb-2">
        Next <span className="text-[13.5px] font-normal text-ink-2">what is late, then soonest</span>
      </h2>
      <ul>
        {waiting.map(({ r, text }) => (
          <li
            key={`${r.id} ${text}`}
            className="grid grid-cols-[22px_minmax(0,1fr)] items-start gap-2 border-t border-rule py-2"
          >
            <Mark kind="look" />
            <p>
              <Link to={`/runs/${r.id}/order`} className="font-semibold hover:underline">
                {r.product}, {r.name}
              </Link>
              <span className="text-ink-2">: {text}.</span>
            </p>
          </li>
        ))}
        {next.map((r) => {
          if (r.state === "released") return <Released key={r.id} run={r} isLate={isLate(r, today)} />;
          const at = `/runs/${r.id}/${r.summary?.next?.stage ?? "release"}`;
          return (
            <li
              key={r.id}
              className="grid grid-cols-[22px_minmax(0,1fr)_auto] items-start gap-2 border-t border-rule py-2"
            >
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
                <Link to={at} className="font-semibold hover:underline">
                  {r.product}, {r.name}
                </Link>
                <span className="text-ink-2">
                  :{" "}
                  {r.summary
                    ? said(r.summary.next?.text ?? "nothing blocks; it can be released.")
                    : "its figures are being counted."}
                </span>
                {r.summary && (
                  <Link to={at} className="quiet-link block">
                    {said(r.summary.next ? (r.summary.next.do ?? "Look at it.") : "Release it.")}
                  </Link>
                )}
              </p>
              {r.summary && (
                <p className="text-right text-[14px] max-sm:col-start-2 max-sm:text-left">
                  <span className="num">{money(r.summary.cashNeeded, currency)}</span>
                  <span className="text-ink-2 sm:block">
                    <span className="sm:hidden">, </span>
                    {r.summary.unpriced ? "at least, not before " : "ready from "}
                    {day(r.summary.readyFrom)}
                  </span>
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** A released run: what of it is next, and whether it is late. */
function Released({ run: r, isLate: late }: { run: RunRow; isLate: boolean }) {
  const asked = askedOf(r);
  const at = `/runs/${r.id}/${asked.stage}`;
  return (
    <li className="grid grid-cols-[22px_minmax(0,1fr)_auto] items-start gap-2 border-t border-rule py-2">
      <Mark kind={late ? "look" : "frozen"} />
      <p>
        <Link to={at} className="font-semibold hover:underline">
          {r.product}, {r.name}
        </Link>
        <span className="text-ink-2">: released; {asked.text}</span>
        <Link to={at} className="quiet-link block">
          {asked.todo}
        </Link>
      </p>
      {r.summary && (
        <p className="text-right text-[14px] max-sm:col-start-2 max-sm:text-left">
          {late ? (
            <span className="font-semibold text-look">late: was to be ready by {day(r.summary.readyTo)}</span>
          ) : (
            <span className="text-ink-2">ready by {dayRange(r.summary.readyFrom, r.summary.readyTo)}</span>
          )}
        </p>
      )}
    </li>
  );
}
