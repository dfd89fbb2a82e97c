import { type BasketReasons, microsToNumber, ofBoard, suppliersOf } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { amount, count, fixed, signed } from "../../ui/text/format.ts";
import { explainer } from "../../workers/proof.ts";

/** How far the best basket is known to be the cheapest, and what is being done about it. */
export function ProofLine() {
  const { doc, result: r, proof } = useRun();
  const { currency } = doc.workshop;
  const best = r.baskets[0];
  if (!best?.proof || best.suppliers.length === 0) return null;
  const open = microsToNumber(best.total) * best.proof.gap;
  const missing = best.lines.filter((l) => l.missing > 0).length;
  return (
    <p className="mt-2 text-[14px] text-ink-2" role="status" aria-live="polite">
      {best.proof.isProven ? (
        <>
          <span className="font-semibold text-ink">
            {r.basket === best
              ? missing > 0
                ? `For the ${count(best.lines.length - missing, "line")} that can be had nothing is cheaper; ${count(missing, "line")} cannot.`
                : "Nothing is cheaper."
              : `Nothing is cheaper than ${amount(microsToNumber(best.total), currency)}, the first of these.`}
          </span>{" "}
          Proven over every set of suppliers, every quantity and every split.
        </>
      ) : (
        <>
          At most {amount(Math.max(0.01, open), currency)} {currency} (
          {fixed(best.proof.gap * 100, best.proof.gap < 0.0005 ? 3 : 2)} %) could still be saved.{" "}
          {proof.kind === "working" ? (
            <>
              Looking for it …{" "}
              <button type="button" className="quiet-link" onClick={proof.stop}>
                stop
              </button>
            </>
          ) : (
            <button type="button" className="quiet-link" onClick={proof.again}>
              look for it
            </button>
          )}
        </>
      )}
    </p>
  );
}

/** What the basket rests on: each supplier's worth, and what fewer parcels or an earlier day would cost. */
export function Reasons() {
  const { doc, result: r, change, isLocked } = useRun();
  const { currency } = doc.workshop;
  const [found, setFound] = useState<{ readonly basket: unknown; readonly reasons: BasketReasons }>();
  useEffect(() => {
    if (r.basket.suppliers.length === 0) return;
    let isCurrent = true;
    const days = Object.fromEntries(doc.suppliers.map((s) => [s.id, s.daysMax]));
    explainer()
      .explain(r.needs, suppliersOf(doc), r.basket, days)
      .then((reasons) => isCurrent && setFound({ basket: r.basket, reasons }));
    return () => {
      isCurrent = false;
    };
  }, [doc, r.basket, r.needs]);
  if (r.basket.suppliers.length === 0) return null;
  const nameOf = (id: string) => doc.suppliers.find((s) => s.id === id)?.name ?? id;
  const lineName = (id: string) => {
    const line = doc.lines.find((l) => l.id === id);
    if (!line) return id;
    return line.refs[0] === undefined ? line.valueText || line.mpn : `${line.refs[0]}${ofBoard(doc, line)}`;
  };
  const few = (ids: readonly string[]) =>
    ids.slice(0, 4).map(lineName).join(", ") + (ids.length > 4 ? ` and ${ids.length - 4} more` : "");
  const isStale = found?.basket !== r.basket;
  const rows = found
    ? [
        ...found.reasons.suppliers.map((s) => ({
          key: `without ${s.supplier}`,
          what: `without ${nameOf(s.supplier)}`,
          other: s.without,
          note:
            [
              s.onlyHere.length > 0 ? `nobody else has enough of ${few(s.onlyHere)}` : "",
              s.keptHere.length > 0 ? `you keep ${few(s.keptHere)} here` : "",
            ]
              .filter(Boolean)
              .join("; ") || s.without.basket.suppliers.map(nameOf).join(" + "),
          cannot: s.onlyHere.length + s.keptHere.length > 0,
        })),
        ...found.reasons.parcels.map((p) => ({
          key: `parcels ${p.parcels}`,
          what: `in ${count(p.parcels, "parcel")}`,
          other: p,
          note: p.basket.suppliers.map(nameOf).join(" + "),
          cannot: false,
        })),
        ...found.reasons.sooner.map((s) => ({
          key: `days ${s.days}`,
          what: `all here within ${count(s.days, "day")}`,
          other: s,
          note:
            s.short.length > r.basket.lines.filter((l) => l.missing > 0).length
              ? `not in time: ${few(s.short)}`
              : s.basket.suppliers.map(nameOf).join(" + "),
          cannot: s.short.length > r.basket.lines.filter((l) => l.missing > 0).length,
        })),
      ]
    : [];
  return (
    <details className="mt-3" open>
      <summary className="cursor-pointer text-[15px] font-semibold">
        What it rests on
        {found && isStale && (
          <span className="ml-2 text-[13px] font-normal text-ink-2">worked out anew …</span>
        )}
      </summary>
      {!found ? (
        <div className="skeleton mt-2 h-24" aria-hidden />
      ) : (
        <table className="rows mt-1 w-full text-[14px]" aria-busy={isStale}>
          <thead className="sr-only">
            <tr>
              <th>Otherwise</th>
              <th>Costs more, {currency}</th>
              <th>How</th>
              <th>Choose</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.key}>
                <td className="w-[210px]">{row.what}</td>
                <td className="num w-[100px] text-right">
                  {row.cannot ? "–" : signed(microsToNumber(row.other.more))}
                </td>
                <td className={`pl-4 ${row.cannot ? "text-ink-2" : ""}`}>
                  {row.cannot && "cannot: "}
                  {row.note}
                </td>
                <td className="text-right">
                  {!row.cannot && !isLocked && (
                    <button
                      type="button"
                      className="quiet-link"
                      aria-label={`Choose ${row.what}`}
                      onClick={() =>
                        change({ basket: [...row.other.basket.suppliers] }, `Basket: ${row.what}`)
                      }
                    >
                      choose
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </details>
  );
}
