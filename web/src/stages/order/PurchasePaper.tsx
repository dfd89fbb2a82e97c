import { type PlannedOrder, purchaseOrder, purchaseRows } from "@kobbin/core";
import { useMemo, useRef } from "react";
import { useRun } from "../../run/runState.ts";
import { useOrders } from "../../run/useOrders.ts";
import { Button } from "../../ui/Button.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { printAlone } from "../../ui/printed.ts";
import { amount, day, written } from "../../ui/text/format.ts";
import { useSay } from "../../ui/toast/Toast.tsx";

/** The purchase order of a supplier as paper: to print, or its rows to paste into the supplier's own form. */
export function PurchasePaper({ order: o }: { order: PlannedOrder }) {
  const { doc, result, record } = useRun();
  const orders = useOrders();
  const say = useSay();
  const paper = useRef<HTMLElement>(null);
  const p = useMemo(
    () => purchaseOrder(doc, result.basket, o, orders, record),
    [doc, result.basket, o, orders, record],
  );
  if (!p) return null;
  const copy = () =>
    void navigator.clipboard.writeText(purchaseRows(p)).then(
      () => say("Its rows are copied: number, pieces, which line it is"),
      () => say("They could not be copied: select them on the paper.", { isProblem: true }),
    );
  return (
    <Fold id={`paper ${o.key}`} title="Purchase order" verdict={`${p.number}, to print or to paste`}>
      <p className="mb-2 flex flex-wrap items-center gap-4">
        <Button look="main" onClick={() => paper.current && printAlone(paper.current)}>
          Print it
        </Button>
        <Button onClick={copy}>Copy its rows</Button>
        {p.address.length === 0 && (
          <span className="text-[14px] text-look">Where parcels go is not said yet: Settings, the shop.</span>
        )}
      </p>
      <section
        ref={paper}
        aria-label={`Purchase order ${p.number}`}
        className="border border-rule bg-white p-5 text-[12.5px] leading-snug text-black print:border-0 [&_th]:text-black"
      >
        <div className="mb-4 flex flex-wrap justify-between gap-6">
          <div>
            <p className="text-[20px] font-bold">Purchase order {p.number}</p>
            <p>
              to <b>{p.supplier}</b>
            </p>
            <p>
              {p.orderedOn ? `of ${day(p.orderedOn)}` : "not dated yet"}
              {p.promisedOn ? `, promised for ${day(p.promisedOn)}` : ""}
            </p>
            <p>
              for {p.product}, {p.run}
            </p>
          </div>
          <div>
            <p className="font-bold">{p.buyer}</p>
            {p.address.map((l) => (
              <p key={l}>{l}</p>
            ))}
          </div>
        </div>
        <table className="w-full text-left" aria-label={`Lines of ${p.number}`}>
          <thead>
            <tr className="border-b-2 border-black">
              <th className="w-8">Line</th>
              <th>Number, maker</th>
              <th>What</th>
              <th className="text-right">Pieces</th>
              <th className="text-right">Each, {p.currency}</th>
              <th className="text-right">Line, {p.currency}</th>
            </tr>
          </thead>
          <tbody>
            {p.lines.map((l) => (
              <tr key={l.n} className="break-inside-avoid border-b border-black/30 align-baseline">
                <td className="num">{l.n}</td>
                <td>
                  <b className="num">{l.mpn || "by description"}</b>
                  {l.maker ? `, ${l.maker}` : ""}
                </td>
                <td>
                  {[l.description, l.package, l.packaging].filter(Boolean).join(", ")}
                  {l.restriction ? `; ${l.restriction}` : ""}
                </td>
                <td className="num text-right">{l.qty}</td>
                <td className="num text-right">
                  {written(l.unitPrice)}
                  {l.fee ? ` + ${written(l.fee)} once` : ""}
                </td>
                <td className="num text-right">{amount(Number(l.total), p.currency)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={5} className="pt-1 text-right font-bold">
                Goods, before freight and tax, {p.currency}
              </td>
              <td className="num pt-1 text-right font-bold">{amount(Number(p.subtotal), p.currency)}</td>
            </tr>
          </tfoot>
        </table>
        <p className="mt-3">
          Prices are those that were quoted. Nothing is to be put in the place of a listed number without our
          written word. Please confirm prices, pieces and the day it leaves; whole packs dry and sealed where
          the part asks for it.
        </p>
      </section>
    </Fold>
  );
}
