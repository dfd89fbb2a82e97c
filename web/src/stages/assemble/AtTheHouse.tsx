import { unitOf } from "@kobbin/core";
import { useState } from "react";
import { removeQuote } from "../../resources/run.ts";
import { QuoteDialog } from "../../run/QuoteDialog.tsx";
import { useRun } from "../../run/runState.ts";
import { amount, count, day, fromMicros, money } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** What the house that places the parts asks, term by term, with the ways there and back; its quotation can be typed. */
export function AtTheHouse() {
  const { id, doc, result: r, did, isLocked } = useRun();
  const sayError = useSayError();
  const [isTyping, setTyping] = useState(false);
  const plan = r.assembly;
  if (!plan) return null;
  const { house, quotation, quoted, terms, currency, parcels } = plan;
  const all: readonly { label: string; note: string; micros: number; currency: string }[] = [
    ...terms.map((t) => ({ ...t, currency })),
    ...parcels.terms.map((t) => ({ ...t, currency: house.currency })),
  ];
  const inAll = new Map<string, number>();
  for (const t of all) inAll.set(t.currency, (inAll.get(t.currency) ?? 0) + t.micros);
  const days = [
    `${plan.days} at the house`,
    ...(parcels.days > 0 ? [`${parcels.days} on the way there and back`] : []),
    ...(parcels.partsOnDays > 0 ? [`${parcels.partsOnDays} for the parts to get there`] : []),
  ].join(", ");
  return (
    <section aria-labelledby="at-the-house" className="mb-6">
      <h2 id="at-the-house" className="mb-1">
        {house.name}
      </h2>
      <table className="rows w-full">
        <tbody>
          {all.map((t) => (
            <tr key={t.label}>
              <td>
                {t.label}
                <span className="block text-[12.5px] leading-tight text-ink-3">{t.note}</span>
              </td>
              <td className="num text-right whitespace-nowrap">{amount(fromMicros(t.micros), t.currency)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td>in all, for {count(r.start, unitOf(doc))}</td>
            <td className="num text-right whitespace-nowrap">
              {[...inAll].map(([c, micros]) => amount(fromMicros(micros), c)).join(" + ")}
            </td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1 text-[14px] text-ink-2">
        In {currency}
        {quoted ? `, quotation of ${day(quoted.capturedOn)}` : `, profile of ${day(house.checkedOn)}`}. Days:{" "}
        {days}.
      </p>
      <p className="mt-1 flex flex-wrap gap-x-5 text-[14px]">
        {quotation && (
          <span className="text-ink-2">
            {quotation.misfits.length > 0
              ? `The quotation of ${money(Number(quotation.quote.total), quotation.quote.currency)} was for ${quotation.misfits.join("; for ")}: the estimate counts.`
              : `The quotation of ${money(Number(quotation.quote.total), quotation.quote.currency)} counts in the place of the estimate.`}
          </span>
        )}
        {!isLocked && (
          <button type="button" className="quiet-link" onClick={() => setTyping(true)}>
            type its quotation
          </button>
        )}
        {!isLocked && quotation && (
          <button
            type="button"
            className="quiet-link"
            onClick={() => {
              const done = removeQuote(id, house.id, "assembly");
              done.then(() => did("The quotation is removed, the estimate counts", done), sayError);
            }}
          >
            remove it
          </button>
        )}
      </p>
      {isTyping && <QuoteDialog houseId={house.id} kind="assembly" onClose={() => setTyping(false)} />}
    </section>
  );
}
