import { microsToNumber, unitOf } from "@kobbin/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { Fragment, useEffect, useMemo, useRef, useState } from "react";
import { askSuppliers, useAsks } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Coverage } from "../../ui/Coverage.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { amount, count, day, fromMicros, money, unitPrice } from "../../ui/text/format.ts";
import { useSliced } from "../../ui/useSliced.ts";
import { Asks } from "./Asks.tsx";
import { Baskets } from "./Baskets.tsx";
import { LineWhy } from "./LineWhy.tsx";
import { Needed } from "./Needed.tsx";
import { NoNumber } from "./NoNumber.tsx";
import { NoOffer } from "./NoOffer.tsx";
import { OfferDialog } from "./OfferDialog.tsx";
import { Offers } from "./Offers.tsx";
import { OnShelf } from "./OnShelf.tsx";
import { Out } from "./Out.tsx";
import { PriceGrid } from "./PriceGrid.tsx";
import { QuotationDialog } from "./QuotationDialog.tsx";
import { Scarce } from "./Scarce.tsx";
import { Since } from "./Since.tsx";

/** Who sells what: whole baskets with shipping, coverage per line, offers asked, typed or pasted. */
export function SourcePage() {
  const { id, answer, doc, result: r, isLocked } = useRun();
  const { currency } = doc.workshop;
  const say = useSay();
  const sayError = useSayError();
  const { data: asked } = useAsks(id);
  const asks = asked?.asks ?? [];
  const isAsking = asks.some((a) => a.state === "waiting" || a.state === "asking");
  // once the last one has answered, or was given up: what came of it
  const wasAsking = useRef(false);
  const total = asks.reduce((n, a) => n + (a.state === "answered" ? a.offers : 0), 0);
  const gaps = asks.reduce((n, a) => n + a.notListed.length, 0);
  const lost = asks.filter((a) => a.state === "failed").length;
  useEffect(() => {
    if (wasAsking.current && !isAsking)
      say(
        `${count(total, "offer")}${gaps > 0 ? `; ${gaps} times “not listed”` : ""}${lost > 0 ? `; nothing usable from ${count(lost, "supplier")}` : ""}`,
        lost > 0 ? { isProblem: true, hint: "What it offered before was kept. Ask again later." } : {},
      );
    wasAsking.current = isAsking;
  }, [isAsking, say, total, gaps, lost]);
  const [isQuoting, setQuoting] = useState(false);
  const [isPricing, setPricing] = useState(false);
  const [open, setOpen] = useState<string>();
  const [typing, setTyping] = useState<string>();
  const supplierIndex = useMemo(() => new Map(doc.suppliers.map((s, i) => [s.id, i])), [doc.suppliers]);
  const nameOf = (s: string) => doc.suppliers.find((x) => x.id === s)?.name ?? s;
  // which part is bought where the line names none
  const takenFor = (offers: readonly string[]) =>
    [
      ...new Set(
        offers.flatMap((o) => {
          const id = doc.offers.find((x) => x.id === o)?.part;
          return doc.library?.find((p) => p.id === id)?.mpn ?? [];
        }),
      ),
    ].join(", ");
  const unlistedFor = (lineId: string) =>
    asks.filter((a) => a.notListed.includes(lineId)).map((a) => a.supplier);
  const pins = doc.choices.pins ?? {};
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
            {r.basket.lines.slice(0, shown).map((l, i) => {
              const need = r.needs[i]!;
              const parts = need.lines.map((x) => r.parts.find((p) => p.line.id === x)!);
              const part = parts[0]!;
              const refs = parts.flatMap((p) => p.line.refs);
              const cost = l.buys.reduce((s, b) => s + b.cost, 0);
              const isOpen = open === l.line;
              const title =
                refs.length > 0
                  ? refs.slice(0, 3).join(" ") + (refs.length > 3 ? " …" : "")
                  : part.line.valueText;
              return (
                <Fragment key={l.line}>
                  <tr data-lines={need.lines.join(" ")} className={isOpen ? "bg-sheet" : "hover:bg-sheet"}>
                    <td className="max-w-[220px]">
                      <button
                        type="button"
                        aria-expanded={isOpen}
                        onClick={() => setOpen(isOpen ? undefined : l.line)}
                        className="flex items-baseline gap-1 text-left"
                      >
                        {isOpen ? (
                          <ChevronDown className="size-3.5 shrink-0 self-center" aria-hidden />
                        ) : (
                          <ChevronRight className="size-3.5 shrink-0 self-center" aria-hidden />
                        )}
                        <span>
                          <span className="num">{title}</span>{" "}
                          <span className="text-ink-2">
                            {part.line.refs.length > 0 ? part.line.valueText : ""}
                          </span>
                          {part.line.mpn === "" && takenFor(l.buys.map((b) => b.offer)) && (
                            <span className="num block text-[12.5px] text-ink-2">
                              {takenFor(l.buys.map((b) => b.offer))}
                            </span>
                          )}
                        </span>
                      </button>
                    </td>
                    <td className="num text-right">
                      <Needed need={need} title={title} />
                    </td>
                    <td>
                      <Coverage
                        need={need.whole}
                        parts={[
                          ...(need.shelf.length > 0
                            ? [{ label: "own shelf", qty: need.whole - need.need, index: 5 }]
                            : []),
                          ...l.buys.map((b) => ({
                            label: nameOf(b.supplier),
                            qty: b.qty,
                            index: supplierIndex.get(b.supplier) ?? 0,
                          })),
                        ]}
                      />
                      <div className="text-[12.5px] leading-tight text-ink-2">
                        {[
                          ...(need.shelf.length > 0 ? ["own shelf"] : []),
                          ...l.buys.map((b) => nameOf(b.supplier)),
                        ].join(" + ") || (
                          <span className="inline-flex items-center gap-1 text-stop">
                            <Mark kind="blocked" /> <NoOffer need={need} unlisted={unlistedFor(l.line)} />
                          </span>
                        )}
                        {pins[l.line] && <span className="text-ink-3"> (kept)</span>}
                        {l.missing > 0 && l.buys.length > 0 && (
                          <span className="text-stop"> {l.missing} missing</span>
                        )}
                      </div>
                    </td>
                    <td className="num text-right">{l.buys.reduce((s, b) => s + b.qty, 0) || "–"}</td>
                    <td className="num text-right">
                      {l.buys.map((b) => unitPrice(b.unitPrice)).join(" / ") || "–"}
                    </td>
                    <td className="num text-right">{cost > 0 ? amount(fromMicros(cost), currency) : "–"}</td>
                  </tr>
                  {isOpen && (
                    <tr className="border-t-0 bg-sheet">
                      <td colSpan={6} className="pb-3">
                        <LineWhy lineId={l.line} />
                        <OnShelf need={need} />
                        <Offers
                          lineId={l.line}
                          lines={need.lines}
                          need={need.need}
                          offers={need.listed}
                          unlisted={unlistedFor(l.line)}
                          onType={() => setTyping(l.line)}
                        />
                      </td>
                    </tr>
                  )}
                </Fragment>
              );
            })}
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
