import type { Probe } from "@kobbin/core";
import { Button } from "../../../ui/Button.tsx";
import { type Answers, faultsOf, faultWords, holds } from "./trial.ts";

/** One statement, readable at arm's length, and the meter's answer to it. */
export function Question({
  probe,
  index,
  probes,
  answers,
  onAnswer,
  onBack,
  onEnough,
}: {
  probe: Probe;
  index: number;
  probes: readonly Probe[];
  answers: Answers;
  onAnswer: (beeped: boolean) => void;
  onBack: (() => void) | undefined;
  onEnough: (() => void) | undefined;
}) {
  const last = answers.at(-1);
  const before = probes[index - 1];
  const isFault = before && last !== undefined && !holds(before, last);
  return (
    <div className="mt-3 border-y border-rule bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-8 gap-y-3">
        <div className="min-w-[260px] flex-1" aria-live="polite">
          <p className="text-[27px] leading-tight font-bold">
            {probe.nets.join(" – ")}{" "}
            <span className={probe.expect === "joined" ? "text-fine" : "text-look"}>
              {probe.expect === "joined" ? "must beep" : "must stay silent"}
            </span>
          </p>
          <p className="text-[15px] text-ink-2">
            {index + 1} of {probes.length}: {probe.because}
          </p>
        </div>
        <div className="flex items-center gap-3">
          <Button className="min-h-14 px-6 !text-[20px]" onClick={() => onAnswer(true)}>
            It beeps <kbd className="text-[14px] text-ink-2">Y</kbd>
          </Button>
          <Button className="min-h-14 px-6 !text-[20px]" onClick={() => onAnswer(false)}>
            Silent <kbd className="text-[14px] text-ink-2">N</kbd>
          </Button>
        </div>
      </div>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-5 text-[14.5px]">
        <Strip probes={probes} answers={answers} />
        {onBack && (
          <button type="button" className="quiet-link" onClick={onBack}>
            back
          </button>
        )}
        {onEnough && (
          <button type="button" className="quiet-link" onClick={onEnough}>
            enough of this board
          </button>
        )}
        <p role="status" className={isFault ? "font-bold text-stop" : "text-ink-2"}>
          {isFault
            ? `${faultsOf([before], [last]).map(faultWords).join("")}. Go on, or set the board aside.`
            : index === 0
              ? "Nothing plugged in, no cell in its holder: the meter's own battery is enough."
              : ""}
        </p>
      </div>
    </div>
  );
}

/** How far one is, a stroke a statement: fault and not yet asked differ by height as well. */
function Strip({ probes, answers }: { probes: readonly Probe[]; answers: Answers }) {
  const faults = probes.filter((p, i) => answers[i] !== undefined && !holds(p, answers[i]!)).length;
  return (
    <svg
      width={Math.min(probes.length, 120) * 7}
      height="16"
      role="img"
      aria-label={`${answers.length} of ${probes.length} tried, ${faults} did not hold`}
    >
      {probes.slice(0, 120).map((p, i) => {
        const said = answers[i];
        const [y, h, fill] =
          said === undefined
            ? [7, 2, "var(--ink-3)"]
            : holds(p, said)
              ? [4, 8, "var(--fine)"]
              : [0, 16, "var(--stop)"];
        return <rect key={String(i)} x={i * 7} y={y} width="5" height={h} fill={fill} />;
      })}
    </svg>
  );
}
