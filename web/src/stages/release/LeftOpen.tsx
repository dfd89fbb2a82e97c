import { type AtStake, isComplete, worthMostIn } from "@kobbin/core";
import { useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Tab } from "../../ui/Tab.tsx";
import { count, money } from "../../ui/text/format.ts";

const MINUTES = [10, 30, 60] as const;

/** What was left open comes to, and which checks are worth most in the time one has. */
export function LeftOpen({ order }: { order: readonly AtStake[] }) {
  const { doc, result: r } = useRun();
  const [minutes, setMinutes] = useState<number>(MINUTES[0]);
  if (order.length === 0) return null;
  const cash = (micros: number) => money(micros / 1e6, doc.workshop.currency);
  const all = order.reduce((n, s) => n + s.expected, 0);
  const best = worthMostIn(order, minutes);
  const worth = best.reduce((n, s) => n + s.expected, 0);
  const numbers = best.map((s) => order.indexOf(s) + 1).sort((a, b) => a - b);
  return (
    <section aria-label="What is left open" className="mb-5 text-[14.5px]">
      <p>
        {count(order.length, "check")} left open, {isComplete(r.unpriced) ? "" : "at least "}
        <b className="num">{cash(all)}</b> to be expected as lost by not looking
        {all === 0 ? ": what they would cost is days" : ""}.
      </p>
      {all > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3">
          <span className="text-ink-2">Time for</span>
          {MINUTES.map((m) => (
            <Tab key={m} isOn={m === minutes} onClick={() => setMinutes(m)}>
              {m} minutes
            </Tab>
          ))}
          <span role="status">
            {numbers.length === 0
              ? "no check takes so little."
              : `look at ${numbers.join(", ")}: ${cash(worth)} of it in ${best.reduce((n, s) => n + s.minutes, 0)} minutes.`}
          </span>
        </p>
      )}
    </section>
  );
}
