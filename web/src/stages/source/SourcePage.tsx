import { microsToNumber, unitOf } from "@kobbin/core";
import { useState } from "react";
import { askSuppliers } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { amount, count, day, money } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { useSliced } from "../../ui/useSliced.ts";
import { Asks } from "./Asks.tsx";
import { Baskets } from "./Baskets.tsx";
import { NoNumber } from "./NoNumber.tsx";
import { OfferDialog } from "./OfferDialog.tsx";
import { Out } from "./Out.tsx";
import { PriceGrid } from "./PriceGrid.tsx";
import { QuotationDialog } from "./QuotationDialog.tsx";
import { Scarce } from "./Scarce.tsx";
import { Since } from "./Since.tsx";
import { SourceLine } from "./SourceLine.tsx";
import { useAsking } from "./useAsking.ts";

/** Who sells what: whole baskets with shipping, coverage per line, offers asked, typed or pasted. */
export function SourcePage() {
  const { id, answer, doc, result: r, isLocked } = useRun();
  const { currency } = doc.workshop;
  const sayError = useSayError();
  const { asks, isAsking } = useAsking(id);
  const [isQuoting, setQuoting] = useState(false);
  const [isPricing, setPricing] = useState(false);
  const [open, setOpen] = useState<string>();
  const [typing, setTyping] = useState<string>();
  const shown = useSliced(r.basket.lines.length, 6, 8);
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-4 max-sm:flex-wrap">
        <div>
          <h1>Source</h1>
          <p className="text-ink-2">
            Parts for {count(r.start, unitOf(doc))} started, with what is lost on the way.{" "}
            {answer.askedAt
              ? `Suppliers were asked on ${day(answer.askedAt)}.`
              : r.basket.suppliers.length > 0
                ? "No supplier was asked yet: the basket is of offers that were typed or pasted."
                : "No supplier was asked yet."}
          </p>
        </div>
        {!isLocked && (
          <div className="flex shrink-0 items-center gap-2">
            <Button onClick={() => setPricing(true)}>Type prices</Button>
            <Button onClick={() => setQuoting(true)}>Read a quotation</Button>
            <Button
              className="shrink-0"
              look={answer.askedAt ? "plain" : "main"}
              disabled={isAsking}
              onClick={() => askSuppliers(id).catch(sayError)}
            >
              {isAsking ? "Asking …" : answer.askedAt ? "Ask again" : "Ask the suppliers"}
            </Button>
          </div>
        )}
      </div>
      <Asks asks={asks} />
      <Since asks={asks} />
      <NoNumber />
      <Baskets />
      <Out />
      <Scarce />
      <h2 className="mt-6 mb-2">Lines</h2>
      <div className="overflow-x-auto">
        <table className="rows w-full min-w-[620px]">
          <thead>
            <tr>
              <th>Part</th>
              <th className="text-right">Needed</th>
              <th className="w-44">Covered, from</th>
              <th className="text-right">Bought</th>
              <th className="text-right">Each</th>
              <th className="text-right">Line, {currency}</th>
            </tr>
          </thead>
          <tbody>
            {r.basket.lines.slice(0, shown).map((l, i) => (
              <SourceLine
                key={l.line}
                line={l}
                need={r.needs[i]!}
                unlisted={asks.filter((a) => a.notListed.includes(l.line)).map((a) => a.supplier)}
                isOpen={open === l.line}
                onOpen={(isOpen) => setOpen(isOpen ? l.line : undefined)}
                onType={() => setTyping(l.line)}
              />
            ))}
          </tbody>
          <tfoot>
            <tr className="border-t border-rule font-semibold">
              <td colSpan={5} className="pt-2 text-right">
                parts {amount(microsToNumber(r.basket.parts), currency)} + shipping{" "}
                {amount(microsToNumber(r.basket.shipping), currency)}
              </td>
              <td className="num pt-2 text-right">{money(microsToNumber(r.basket.total), currency)}</td>
            </tr>
          </tfoot>
        </table>
      </div>
      {isPricing && <PriceGrid onClose={() => setPricing(false)} />}
      {isQuoting && <QuotationDialog onClose={() => setQuoting(false)} />}
      {typing && <OfferDialog lineId={typing} onClose={() => setTyping(undefined)} />}
    </section>
  );
}
