import type { AtStake } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { Sum } from "../../ui/Sum.tsx";
import { fixed, money } from "../../ui/text/format.ts";

/** "1 in 7". */
export const oneIn = (chance: number): string =>
  chance >= 0.5 ? `${Math.round(chance * 10)} in 10` : `1 in ${Math.round(1 / chance)}`;
const days = (v: number): string => (v <= 0 ? "" : `${fixed(v, v < 10 && v % 1 !== 0 ? 1 : 0)} days`);

const WHY = {
  certain: "measured, and beyond its limit; a prior until the shop’s own record says otherwise",
  likely: "odd enough to be looked at; a prior until the shop’s own record says otherwise",
  unknown: "only not known; a prior until the shop’s own record says otherwise",
} as const;

/** What it costs not to look: what is lost, how often, what that comes to, and how long a look takes. */
export function Stake({ stake: s, most }: { stake: AtStake; most: number }) {
  const { doc } = useRun();
  const { currency } = doc.workshop;
  const cash = (micros: number) => money(micros / 1e6, currency);
  const lost = [s.micros > 0 ? cash(s.micros) : "", days(s.days)].filter(Boolean).join(", ");
  return (
    <div className="text-right text-[13px] leading-snug">
      <p className="num text-[15px] font-bold">
        {s.micros > 0 ? (
          <Sum
            title="What it costs not to look"
            result={cash(s.expected)}
            formula="what is lost × how often it turns out to be wrong"
            terms={[
              { label: s.words, value: cash(s.micros), note: days(s.days) || undefined },
              {
                label: "turns out to be wrong",
                value: `${fixed(100 * s.chance, 0)} %`,
                note: oneIn(s.chance),
                from: WHY[s.sure],
              },
            ]}
          >
            {cash(s.expected)}
          </Sum>
        ) : (
          days(s.days)
        )}
      </p>
      <div className="my-[3px] ml-auto h-[3px] w-full bg-grid" aria-hidden>
        <div className="ml-auto h-full bg-metal" style={{ width: `${(100 * s.expected) / most}%` }} />
      </div>
      <p className="text-ink-2">
        {s.micros > 0 && (
          <>
            {lost}
            <br />
          </>
        )}
        {oneIn(s.chance)}; a look takes {s.minutes} min
      </p>
    </div>
  );
}
