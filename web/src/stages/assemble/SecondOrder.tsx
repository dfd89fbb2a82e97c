import { isComplete, microsToNumber, type RunResult, shortfall, unitOf } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Sum } from "../../ui/Sum.tsx";
import { count, dayRange, fixed, money } from "../../ui/text/format.ts";
import { runWorker } from "../../workers/run.ts";

/** The other side of the scale of certainty: what ending short would take, and what that comes to. */
export function SecondOrder() {
  const { doc, result: r } = useRun();
  const short = shortfall(r.start, doc.goodBoards, r.yield);
  const missing = Math.max(1, Math.round(short.missing));
  const [second, setSecond] = useState<{
    readonly of: number;
    readonly result?: RunResult;
    readonly why?: string;
  }>();
  const isAsked = short.chance > 0;
  useEffect(() => {
    let isCurrent = true;
    if (!isAsked) return;
    // what is left of the first order is not known yet: a run of its own, with the way of its own parcels
    runWorker()
      .roll({ ...doc, goodBoards: missing })
      .then((rolled) => {
        if (!isCurrent) return;
        setSecond({
          of: missing,
          ...(rolled.kind === "ok" ? { result: rolled.result } : { why: rolled.message }),
        });
      });
    return () => {
      isCurrent = false;
    };
  }, [doc, missing, isAsked]);
  const unit = unitOf(doc);
  if (!isAsked) return null;
  const { currency } = doc.workshop;
  const one = Math.round(1 / short.chance);
  if (second?.of !== missing)
    return (
      <p className="mt-1 text-[14px] text-ink-3">What a second order would cost is being worked out …</p>
    );
  if (!second.result)
    return (
      <p className="mt-1 text-[14px] text-look">
        What a second order would cost cannot be told: {second.why}
      </p>
    );
  const cost = microsToNumber(second.result.total);
  const expected = short.chance * cost;
  return (
    <p className="mt-1 text-[14px] text-ink-2">
      {short.chance >= 0.5 ? `${Math.round(short.chance * 10)} of 10` : `1 of ${one}`} such runs{" "}
      {one === 1 ? "end" : "ends"} short by about {fixed(Math.max(1, short.missing), 1)}. A second order for{" "}
      {count(missing, unit)} would cost {money(cost, currency)}
      {isComplete(second.result.unpriced) ? "" : " at least"} and be ready{" "}
      {dayRange(second.result.ready.p10, second.result.ready.p90)} if it went out today:{" "}
      <Sum
        title="A second order, as likely as it is"
        result={money(expected, currency)}
        formula="chance of ending short × cost of a second order"
        terms={[
          {
            label: "chance of ending short",
            value: `${fixed(100 * short.chance, 1)} %`,
            note: `fewer than ${doc.goodBoards} good of ${r.start} started`,
          },
          {
            label: "a second order",
            value: money(cost, currency),
            note: `${count(missing, unit)} as a run of its own`,
            from: "nothing that is left of the first is counted",
          },
        ]}
      >
        <b className="num">{money(expected, currency)}</b>
      </Sum>{" "}
      to be weighed against the spare ones.
    </p>
  );
}
