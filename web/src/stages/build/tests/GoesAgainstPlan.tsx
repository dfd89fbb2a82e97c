import { againstPlan, factorsOf, type PlanOfRun, stepYields, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { FactorRows } from "../../../run/learn/FactorRows.tsx";
import { chanceWords } from "../../../run/learn/standsWords.ts";
import { useRun } from "../../../run/runState.ts";
import { Mark } from "../../../ui/Mark.tsx";
import { count, fixed } from "../../../ui/text/format.ts";

/** Whether the batch goes as planned, as far as so few boards can tell, what its faults have in common, and yield by step. */
export function GoesAgainstPlan({ plan }: { plan: PlanOfRun }) {
  const { doc, record, result } = useRun();
  const against = useMemo(
    () => againstPlan(doc, result.parts, record, result.yield.faults?.factors),
    [doc, result, record],
  );
  const factors = useMemo(() => factorsOf(doc, result.parts, record), [doc, result.parts, record]);
  const { steps, rolled } = useMemo(() => stepYields(record), [record]);
  if (!against || (against.bad === 0 && steps.length === 0)) return null;
  const unit = unitOf(doc);
  const out = factors.filter((f) => f.standsOut);
  return (
    <section aria-label="Against the plan" className="mt-5">
      <h2 className="mb-1 text-[16px]">Against the plan</h2>
      <p className="max-w-[78ch] text-[14.5px]">
        <b className={against.is === "worse" ? "text-stop" : ""}>
          {against.is === "worse" && <Mark kind="blocked" />} {WORDS[against.is]}
        </b>{" "}
        {against.bad} of {count(against.looked, `${unit} begun`, `${unit}s begun`)} had a fault of ours;
        planned {against.planned === 0 ? "none" : `${fixed(100 * against.planned, 0)} of a hundred`}.{" "}
        {against.is === "better"
          ? `As few would come ${chanceWords(against.chanceBetter)} if it went as planned.`
          : against.bad > 0 &&
            `As many or more would come ${chanceWords(against.chanceWorse)} if it went as planned.`}
        {against.stopAt <= against.looked && against.bad < against.stopAt && (
          <span className="block text-ink-2">
            At {against.stopAt} of {against.looked} stop before the next: rarer than one in a hundred.
          </span>
        )}
        {against.bad >= against.stopAt && (
          <span className="block text-stop">
            Stop before the next {unit}: so many would come once in a hundred batches at the most.
          </span>
        )}
      </p>
      {factors.length > 0 && (
        <>
          <h3 className="mt-3 mb-1 text-[14.5px] font-semibold">
            {out.length > 0 ? "What they have in common" : "Nothing stands out so far"}
          </h3>
          <FactorRows factors={(out.length > 0 ? out : factors).slice(0, out.length > 0 ? 6 : 3)} />
        </>
      )}
      {steps.length > 0 && (
        <p className="mt-3 max-w-[78ch] text-[14.5px]">
          <b>Left without a fault found there:</b>{" "}
          {steps
            .map(
              (s) =>
                `step ${s.step}${plan.sheet.steps[s.step - 1] ? ` (${plan.sheet.steps[s.step - 1]!.words})` : ""} ${s.clean} of ${s.boards}`,
            )
            .join("; ")}
          . Through all of them <b className="num">{fixed(100 * rolled!, 0)} %</b>.
        </p>
      )}
    </section>
  );
}

const WORDS = {
  worse: "It goes worse than planned.",
  better: "It goes better than planned.",
  "as planned": "It goes as planned, as far as so few can tell.",
} as const;
