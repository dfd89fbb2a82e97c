import { microsToNumber, microsToText, type Offer, priceAt, type RunOffer } from "@kobbin/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { Fragment, useMemo, useState } from "react";
import { askSuppliers, removeOffer } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Coverage } from "../../ui/Coverage.tsx";
import { amount, count, day, fromMicros, money, unitPrice } from "../../ui/format.ts";
import { Mark } from "../../ui/Mark.tsx";
import { Sum } from "../../ui/Sum.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { Baskets } from "./Baskets.tsx";
import { LineWhy } from "./LineWhy.tsx";
import { OfferDialog } from "./OfferDialog.tsx";

/** Who sells what: whole baskets with shipping, coverage per line, offers asked, typed or pasted. */
export function SourcePage() {
  const { id, answer, doc, result: r, isLocked } = useRun();
  const { currency } = doc.workshop;
  const say = useSay();
  const sayError = useSayError();
  const [isAsking, setAsking] = useState(false);
  const [open, setOpen] = useState<string>();
  const [typing, setTyping] = useState<string>();
  const [unlisted, setUnlisted] = useState<Readonly<Record<string, readonly string[]>>>({});
  const ask = () => {
    setAsking(true);
    askSuppliers(id)
      .then((a) => {
        setUnlisted(a.notListed);
        const gaps = Object.values(a.notListed).reduce((n, l) => n + l.length, 0);
        say(
          `${count(a.offers, "offer")} for ${count(a.asked, "line")}${gaps > 0 ? `; ${gaps} times “not listed”` : ""}`,
        );
        for (const f of a.failed)
          say(`${f.supplier} did not answer: ${f.reason}`, {
            isProblem: true,
            hint: "Its older offers were kept. Ask again later.",
          });
      })
      .catch(sayError)
      .finally(() => setAsking(false));
  };
  const supplierIndex = useMemo(() => new Map(doc.suppliers.map((s, i) => [s.id, i])), [doc.suppliers]);
  const nameOf = (s: string) => doc.suppliers.find((x) => x.id === s)?.name ?? s;
  // suppliers whose feed answered for other lines, but not for this one
  const answering = useMemo(
    () => new Set(doc.offers.filter((o) => o.source === "feed").map((o) => o.supplier)),
    [doc.offers],
  );
  const unlistedFor = (lineId: string) => {
    const line = doc.lines.find((l) => l.id === lineId);
    const has = new Set(doc.offers.filter((o) => o.line === lineId).map((o) => o.supplier));
    return doc.suppliers
      .filter(
        (s) => unlisted[s.name]?.includes(lineId) || (line?.mpn && answering.has(s.id) && !has.has(s.id)),
      )
      .map((s) => s.name);
  };
  const pins = doc.choices.pins ?? {};
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-4 max-sm:flex-wrap">
        <div>
          <h1>Source</h1>
          <p className="text-ink-2">
            Parts for {r.start} boards started, with what is lost on the way.{" "}
            {answer.askedAt
              ? `Suppliers were asked on ${day(answer.askedAt)}.`
              : "No supplier was asked yet."}
          </p>
        </div>
        {!isLocked && (
          <Button
            className="shrink-0"
            look={answer.askedAt ? "plain" : "main"}
            disabled={isAsking}
            onClick={ask}
          >
            {isAsking ? "Asking …" : answer.askedAt ? "Ask again" : "Ask the suppliers"}
          </Button>
        )}
      </div>
      <Baskets />
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
            {r.basket.lines.map((l, i) => {
              const part = r.parts[i]!;
              const need = r.needs[i]!;
              const cost = l.buys.reduce((s, b) => s + b.cost, 0);
              const isOpen = open === l.line;
              const title =
                part.line.refs.length > 0
                  ? part.line.refs.slice(0, 3).join(" ") + (part.line.refs.length > 3 ? " …" : "")
                  : part.line.valueText;
              return (
                <Fragment key={l.line}>
                  <tr className={isOpen ? "bg-sheet" : "hover:bg-sheet"}>
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
                        </span>
                      </button>
                    </td>
                    <td className="num text-right">
                      <Sum
                        title={`needed of ${title}`}
                        formula={
                          part.kind === "loose"
                            ? "good boards × pieces a product"
                            : "boards started × pieces a board + what is lost on the way"
                        }
                        terms={
                          part.kind === "loose"
                            ? [{ label: "good boards", value: `${doc.goodBoards} × ${part.count}` }]
                            : [
                                {
                                  label: "net",
                                  value: String(r.start * part.count),
                                  note: `${r.start} × ${part.count}`,
                                },
                                {
                                  label: "lost on the way",
                                  value: String(need.need - r.start * part.count),
                                  note: `${part.kind}, ${part.method === "house" ? "by machine" : "by hand"}`,
                                  from: "placeholder shares, until there is a record",
                                },
                              ]
                        }
                        result={String(need.need)}
                      >
                        {need.need}
                      </Sum>
                    </td>
                    <td>
                      <Coverage
                        need={need.need}
                        parts={l.buys.map((b) => ({
                          label: nameOf(b.supplier),
                          qty: b.qty,
                          index: supplierIndex.get(b.supplier) ?? 0,
                        }))}
                      />
                      <div className="text-[12.5px] leading-tight text-ink-2">
                        {l.buys.map((b) => nameOf(b.supplier)).join(" + ") || (
                          <span className="inline-flex items-center gap-1 text-stop">
                            <Mark kind="blocked" />{" "}
                            {need.offers.length === 0 ? "no offer" : "not in this basket"}
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
                        <Offers
                          lineId={l.line}
                          need={need.need}
                          offers={need.offers}
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
      {typing && <OfferDialog lineId={typing} onClose={() => setTyping(undefined)} />}
    </section>
  );
}

function Offers({
  lineId,
  need,
  offers,
  unlisted: missing,
  onType,
}: {
  lineId: string;
  need: number;
  offers: readonly Offer[];
  unlisted: readonly string[];
  onType: () => void;
}) {
  const { id, doc, change, did, isLocked } = useRun();
  const sayError = useSayError();
  const { currency } = doc.workshop;
  const pins = doc.choices.pins ?? {};
  const nameOf = (s: string) => doc.suppliers.find((x) => x.id === s)?.name ?? s;
  const raw = new Map<string, RunOffer>(doc.offers.map((o) => [o.id, o]));
  return (
    <div className="pl-5">
      {offers.length === 0 && <p className="text-ink-2">Nobody offers this line yet.</p>}
      <ul>
        {offers.map((o) => {
          const given = raw.get(o.id)!;
          return (
            <li key={o.id} className="flex flex-wrap items-baseline gap-x-5 gap-y-1 py-1 text-[14px]">
              <span className="min-w-40 font-semibold">{nameOf(o.supplier)}</span>
              <span>
                stock <span className="num">{o.stock}</span>
              </span>
              <span>
                from <span className="num">{o.moq}</span>
                {o.multiple > 1 && (
                  <>
                    {" "}
                    in steps of <span className="num">{o.multiple}</span>
                  </>
                )}
              </span>
              <span>
                <Sum
                  title={`${nameOf(o.supplier)}, each`}
                  terms={given.breaks.map((b) => ({
                    label: `from ${b.qty}`,
                    value: `${b.price} ${given.currency}`,
                  }))}
                  result={`${microsToText(priceAt(o, need))} ${currency} at ${need}`}
                  formula={
                    given.currency === currency
                      ? undefined
                      : `1 ${given.currency} = ${doc.workshop.rates[given.currency]} ${currency}, the shop's rate`
                  }
                >
                  <span className="num">{unitPrice(priceAt(o, need))}</span>
                </Sum>{" "}
                at {need}
              </span>
              <span className="text-ink-2">
                {given.source === "feed" ? "asked" : given.source} {day(given.capturedOn)}
              </span>
              {!isLocked && (
                <>
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() =>
                      change(
                        {
                          pins:
                            pins[lineId] === o.supplier
                              ? Object.fromEntries(Object.entries(pins).filter(([k]) => k !== lineId))
                              : { ...pins, [lineId]: o.supplier },
                        },
                        pins[lineId] === o.supplier
                          ? "The line is free again"
                          : `Always from ${nameOf(o.supplier)}`,
                      )
                    }
                  >
                    {pins[lineId] === o.supplier ? "let the basket choose" : "always from here"}
                  </button>
                  {given.source !== "feed" && (
                    <button
                      type="button"
                      className="quiet-link"
                      onClick={() => {
                        const done = removeOffer(id, o.id);
                        done.then(() => did("The offer was removed", done), sayError);
                      }}
                    >
                      remove
                    </button>
                  )}
                </>
              )}
            </li>
          );
        })}
        {missing.map((s) => (
          <li key={s} className="py-1 text-[14px] text-ink-2">
            <span className="inline-block min-w-40">{s}</span> not listed
          </li>
        ))}
      </ul>
      {!isLocked && (
        <button type="button" className="quiet-link mt-1" onClick={onType}>
          type or paste an offer
        </button>
      )}
    </div>
  );
}
