import { isGate, type PlanOfRun, WORK_WORDS } from "@kobbin/core";
import { type Lane, minutesWords, stripOf } from "./orderPlan.ts";

const LANES: Readonly<Record<Lane, string>> = {
  hands: "hands",
  heat: "heat",
  bath: "bath",
  meter: "meter",
};
/** A bar narrower than this share of the strip has no words in it. */
const WORDED = 0.09;
const percent = (share: number) => `${(100 * share).toFixed(2)}%`;

/** The whole order over time: what is done by hand, what melts, what is measured; gates stand across it. */
export function Strip({
  plan: { order },
  chosen,
  onChoose,
}: {
  plan: PlanOfRun;
  chosen: number;
  onChoose: (n: number) => void;
}) {
  const { lanes, bars } = stripOf(order.steps);
  return (
    <section
      aria-label="The order over time"
      className="relative mb-4 grid grid-cols-[64px_1fr] border border-rule bg-sheet max-md:hidden"
    >
      <div className="grid">
        {lanes.map((l) => (
          <p key={l} className="border-b border-rule px-3 pt-2 text-[13px] text-ink-3 last:border-b-0">
            {LANES[l]}
          </p>
        ))}
      </div>
      <div className="relative mr-3 grid">
        {lanes.map((l) => (
          <div key={l} className="relative h-[42px] border-b border-rule last:border-b-0">
            {bars
              .filter((b) => b.lane === l)
              .map(({ step: s, from, share }) => (
                <button
                  key={s.n}
                  type="button"
                  tabIndex={-1}
                  aria-label={`Step ${s.n}: ${WORK_WORDS[s.kind]}${s.side ? ` ${s.side}` : ""}, ${minutesWords(s.minutes)}`}
                  onClick={() => onChoose(s.n)}
                  style={{ left: percent(from), width: `max(5px, calc(${percent(share)} - 2px))` }}
                  className={`absolute top-[4px] bottom-[4px] overflow-hidden border-l-[3px] px-[6px] pt-0 text-left text-[13px] leading-[1.15] whitespace-nowrap ${
                    s.n === chosen
                      ? "border-metal bg-metal text-sheet"
                      : `border-metal ${l === "heat" || l === "bath" ? "waiting" : "bg-metal-soft"}`
                  }`}
                >
                  {share > WORDED && (
                    <>
                      {shortWords(s.kind)}
                      <span className="num block text-[12px] opacity-85">{minutesWords(s.minutes)}</span>
                    </>
                  )}
                </button>
              ))}
          </div>
        ))}
        {bars
          .filter((b) => isGate(b.step.kind))
          .map(({ step, from, share }) => (
            <span
              key={step.n}
              aria-hidden
              style={{ left: percent(from + share) }}
              className="pointer-events-none absolute inset-y-0 border-l-2 border-fine"
            />
          ))}
      </div>
    </section>
  );
}

const shortWords = (kind: keyof typeof WORK_WORDS): string =>
  ({
    ...WORK_WORDS,
    kit: "kit",
    print: "print",
    iron: "iron",
    trim: "cut leads",
    inspect: "look, mend",
    depanel: "part",
    mechanical: "fit",
    seal: "close, pack",
  })[kind];
