import { type LineReason, microsToNumber, type QtyReason, suppliersOf } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { count, signed, unitPrice } from "../../ui/text/format.ts";
import { explainer } from "../../workers/proof.ts";

const WHY: Readonly<Record<QtyReason, string>> = {
  need: "just what is needed",
  minimum: "the least it is sold in",
  pack: "rounded up to whole packs",
  step: "at that quantity all of them become cheaper",
  "free shipping": "so many lift the parcel to free shipping",
  "part of it": "cheaper in parts than from one",
  "all there is": "all there is",
};

/** Why a line is bought as it is, and what the runner-up would cost the whole basket. */
export function LineWhy({ lineId }: { lineId: string }) {
  const { doc, result: r } = useRun();
  const [why, setWhy] = useState<LineReason>();
  useEffect(() => {
    let isCurrent = true;
    explainer()
      .explainLine(r.needs, suppliersOf(doc), r.basket, lineId)
      .then((found) => isCurrent && setWhy(found));
    return () => {
      isCurrent = false;
    };
  }, [doc, r.basket, r.needs, lineId]);
  const nameOf = (id: string) => doc.suppliers.find((s) => s.id === id)?.name ?? id;
  // a part that stands in is named; the line's own need not be
  const partOf = (offer: string) => {
    const part = doc.offers.find((o) => o.id === offer)?.part;
    return part && doc.library?.find((p) => p.id === part)?.mpn;
  };
  if (!why) return <p className="mb-1 pl-5 text-[14px] text-ink-3">…</p>;
  if (why.buys.length === 0) return null;
  return (
    <div className="mb-2 border-l-2 border-metal py-[2px] pl-4 text-[14px]">
      {why.buys.map((b) => (
        <p key={b.buy.offer}>
          <span className="num">{b.buy.qty}</span>
          {partOf(b.buy.offer) && (
            <>
              {" "}
              of <span className="num">{partOf(b.buy.offer)}</span>
            </>
          )}{" "}
          from {nameOf(b.buy.supplier)} at <span className="num">{unitPrice(b.buy.unitPrice)}</span>:{" "}
          {WHY[b.because]}
          {b.over > 0 && b.because !== "need" && (
            <>
              , <span className="num">{b.over}</span> more than needed
            </>
          )}
          .
          {b.nextStep && (
            <span className="text-ink-2">
              {" "}
              <span className="num">{b.nextStep.qty}</span> would cost{" "}
              <span className="num">{signed(microsToNumber(b.nextStep.more))}</span>.
            </span>
          )}
        </p>
      ))}
      <p className="text-ink-2">
        {doc.choices.pins?.[lineId] && "You keep the line here. "}
        {why.runnerUp ? (
          <>
            Runner-up: {[...new Set(why.runnerUp.buys.map((b) => nameOf(b.supplier)))].join(" + ")}, the whole
            basket then <span className="num">{signed(microsToNumber(why.runnerUp.more))}</span>
            {why.runnerUp.basket.suppliers.length !== r.basket.suppliers.length &&
              ` in ${count(why.runnerUp.basket.suppliers.length, "parcel")}`}
            .
          </>
        ) : (
          "Nobody else has enough of it: a single source."
        )}
      </p>
    </div>
  );
}
