import { type Basket, cheapestPerLine, microsToNumber, unitOf } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Delta } from "../../ui/ChoiceRow.tsx";
import { MadeUp } from "../../ui/MadeUp.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { amount, count } from "../../ui/text/format.ts";
import { ProofLine, Reasons } from "./Reasons.tsx";

const SHOWN = 5;

/** Whole baskets with shipping, cheapest first; each with its effect before it is chosen. */
export function Baskets() {
  const { doc, result: r, change, isLocked } = useRun();
  const { currency } = doc.workshop;
  const [all, setAll] = useState(false);
  const names = (b: Basket) =>
    b.suppliers.map((id) => doc.suppliers.find((s) => s.id === id)?.name ?? id).join(" + ");
  // first words, where they tell the suppliers apart
  const firstWords = doc.suppliers.map((s) => s.name.split(" ")[0]!);
  const isTelling = new Set(firstWords).size === firstWords.length;
  const shortNames = (b: Basket) =>
    isTelling
      ? b.suppliers.map((id) => firstWords[doc.suppliers.findIndex((s) => s.id === id)] ?? id).join(" + ")
      : names(b);
  const chosenKey = r.basket.suppliers.join(" ");
  const list = all ? r.baskets : r.baskets.slice(0, SHOWN);
  const shown = list.some((b) => b.suppliers.join(" ") === chosenKey) ? list : [...list, r.basket];
  const naive = useMemo(
    () =>
      cheapestPerLine(
        r.needs,
        doc.suppliers.map((s) => ({ id: s.id, name: s.name, shipping: 0 as never })),
      ),
    [r.needs, doc.suppliers],
  );
  if (r.baskets.length === 0 || r.baskets[0]!.suppliers.length === 0)
    return (
      <p className="border-t border-rule py-3 text-ink-2">
        No basket yet: ask the suppliers, or open a line below and type an offer.
      </p>
    );
  return (
    <div>
      <div className="overflow-x-auto">
        <table className="rows w-full">
          <thead>
            <tr>
              <th>Whole basket</th>
              <th className="text-right">Parts</th>
              <th className="text-right">Shipping</th>
              <th className="text-right">In all, {currency}</th>
              <th className="text-right">Per good {unitOf(doc)}</th>
              <th className="text-right">Days</th>
              <th>Covers</th>
              <th>
                <span className="sr-only">Choose</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((b) => {
              const isChosen = b.suppliers.join(" ") === chosenKey;
              const short = b.lines.filter((l) => l.missing > 0).length;
              const days = Math.max(
                0,
                ...b.suppliers.map((id) => doc.suppliers.find((s) => s.id === id)?.daysMax ?? 0),
              );
              return (
                <tr
                  key={b.suppliers.join(" ")}
                  className={isChosen ? "bg-metal-soft shadow-[inset_3px_0_0_var(--metal)]" : ""}
                >
                  <td className={isChosen ? "pl-3! font-semibold" : "pl-3!"} title={names(b)}>
                    {shortNames(b)}
                    {b.suppliers.some((id) => doc.madeUp?.includes(id)) && <MadeUp />}
                  </td>
                  <td className="num text-right">{amount(microsToNumber(b.parts), currency)}</td>
                  <td className="num text-right">
                    {b.shipping === 0 ? "free" : amount(microsToNumber(b.shipping), currency)}
                  </td>
                  <td className="num text-right">{amount(microsToNumber(b.total), currency)}</td>
                  <td className="text-right">
                    {isChosen ? (
                      <span className="text-[13px] text-ink-2">chosen</span>
                    ) : short > r.basket.lines.filter((l) => l.missing > 0).length ? (
                      <span className="text-[13px] text-ink-3">covers less</span>
                    ) : (
                      <Delta value={(b.total - r.basket.total) / 1e6 / r.expectedGood} />
                    )}
                  </td>
                  <td className="num text-right">{days}</td>
                  <td className="text-[14px]">
                    {short > 0 ? (
                      <span className="inline-flex items-center gap-1 whitespace-nowrap">
                        <Mark kind="blocked" /> {short} short
                      </span>
                    ) : (
                      "all"
                    )}
                  </td>
                  <td className="text-right">
                    {!isChosen && !isLocked && (
                      <button
                        type="button"
                        className="quiet-link"
                        aria-label={`Choose ${names(b)}`}
                        onClick={() => change({ basket: [...b.suppliers] }, `Basket: ${names(b)}`)}
                      >
                        choose
                      </button>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <ProofLine />
      <p className="mt-1 text-[14px] text-ink-2">
        Cheapest line by line would be {amount(microsToNumber(naive.parts), currency)} for parts in{" "}
        {count(naive.suppliers.length, "parcel")}, shipping not counted. Minimum orders, multiples, steps and
        stock are respected; {count(r.baskets.length, "set")} of suppliers compared.
        {r.baskets.length > SHOWN && (
          <button type="button" className="quiet-link ml-2" onClick={() => setAll(!all)}>
            {all ? "fewer" : `all ${r.baskets.length}`}
          </button>
        )}
        {!isLocked && (doc.choices.basket?.length ?? 0) > 0 && (
          <button
            type="button"
            className="quiet-link ml-2"
            onClick={() => change({ basket: [] }, "The cheapest basket is followed again")}
          >
            follow the cheapest
          </button>
        )}
      </p>
      <Reasons />
    </div>
  );
}
