import { againstPlan, type Factor, factorsOf, type PlanOfRun, stepYields, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { Mark } from "../../../ui/Mark.tsx";
import { count, fixed } from "../../../ui/text/format.ts";
import { chanceWords, shareWords } from "./standsWords.ts";

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
          <table
            className="rows w-full max-w-[860px] text-[14.5px] [&_td]:whitespace-nowrap"
            aria-label="What faults have in common"
          >
            <tbody>
              {(out.length > 0 ? out : factors).slice(0, out.length > 0 ? 6 : 3).map((f) => (
                <Row key={`${f.kind} ${f.name}`} factor={f} />
              ))}
            </tbody>
          </table>
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
const KINDS = { part: "part", package: "package", side: "side", person: "put on by" } as const;

/** How many fell on it, against the share of what may go wrong: two bars over each other. */
function Row({ factor: f }: { factor: Factor }) {
  return (
    <tr className={f.standsOut ? "" : "text-ink-2"}>
      <td className="w-[7em]">{KINDS[f.kind]}</td>
      <td className="font-semibold">{f.name}</td>
      <td>
        <svg width="150" height="20" className="block" aria-hidden="true">
          <rect x="0" y="2" width={(150 * f.seen) / f.of} height="9" fill="var(--metal)" />
          <rect x="0" y="13" width={150 * f.share} height="4" fill="var(--ink-3)" />
        </svg>
      </td>
      <td className="num">
        {f.seen} of {f.of}
      </td>
      <td>{shareWords(f.share)} would be its share</td>
      <td>{chanceWords(f.chance)} by chance</td>
    </tr>
  );
}
