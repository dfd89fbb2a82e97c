import {
  faultsByClass,
  isComplete,
  isSymptom,
  microsToNumber,
  minutesToFind,
  type PlanOfRun,
  type RankedCause,
  type RunResult,
  rankedCauses,
  STEP_CAUTIONS,
  SYMPTOMS,
  type Symptom,
  unitOf,
  unitOfStep,
} from "@kobbin/core";
import { useSearchParams } from "react-router";
import { useRun } from "../../../run/runState.ts";
import { Pick } from "../../../ui/Field.tsx";
import { count, fixed } from "../../../ui/text/format.ts";
import { useSitting } from "../hands/useSitting.ts";
import { alikeBoards, type Look, lookName, looksOf, sharesFrom } from "./looks.ts";

/**
 * What may ail a board that does not do as it should: one symptom, its causes by share over minutes, one look at a time,
 * each kept. What is found is noted as a fault.
 */
export function FaultFinder({ plan, unit, mayNote }: { plan: PlanOfRun; unit: number; mayNote: boolean }) {
  const { doc } = useRun();
  const [params, setParams] = useSearchParams();
  const step = plan.sheet.steps.find((s) => s.kind === "test") ?? plan.sheet.steps.at(-1);
  const asked = params.get("symptom") ?? "";
  const pick = (symptom: string) => {
    const next = new URLSearchParams(params);
    if (symptom === "") next.delete("symptom");
    else next.set("symptom", symptom);
    setParams(next, { replace: true });
  };
  if (!step) return null;
  return (
    <section aria-label="What may ail it" className="mt-5 print:hidden">
      <h2 className="mb-1 text-[16px]">What may ail it</h2>
      <Pick
        label={`What this ${unitOf(doc)} does`}
        value={isSymptom(asked) ? asked : ""}
        options={[
          ["", "as it should"],
          ...Object.entries(SYMPTOMS).map(([key, s]) => [key, s.words] as const),
        ]}
        onChange={pick}
      />
      {isSymptom(asked) && (
        <Causes
          key={`${unit} ${asked}`}
          symptom={asked}
          unit={unit}
          at={unitOfStep(step.kind, unit)}
          step={step.n}
          mayNote={mayNote}
        />
      )}
    </section>
  );
}

function Causes({
  symptom,
  unit,
  at,
  step,
  mayNote,
}: {
  symptom: Symptom;
  unit: number;
  at: number;
  step: number;
  mayNote: boolean;
}) {
  const { doc, record, result } = useRun();
  const sitting = useSitting(at, step);
  const looks = looksOf(sitting.sat.marks, symptom);
  const alike = alikeBoards(record.sittings ?? [], symptom, unit);
  const not = new Set(looks.filter((l) => l.came === "not").map((l) => l.cause));
  const seen = faultsByClass(doc, record, unit);
  const ranked = rankedCauses(symptom, seen, alike, not);
  const found = looks.find((l) => l.came === "it");
  const worth = minutesWorth(result, Number(doc.workshop.hourlyRate));
  const look = (cause: string, came: Look["came"] | undefined) =>
    sitting.mark(lookName(symptom, cause), came === "it" ? "doubt" : came === "not" ? "done" : undefined);
  return (
    <>
      <p className="mt-2 max-w-[76ch] text-[14.5px] text-ink-2">
        {ranked.length === 0
          ? "All of it is ruled out, and nothing else is known to do so. Ask somebody who has not looked yet, or give it up."
          : `In this order it is found in ${fixed(minutesToFind(ranked), 0)} min on average${worth === undefined ? "" : `; after ${fixed(worth, 0)} min another ${unitOf(doc)} is cheaper`}. One change at a time. ${sharesFrom(symptom, seen, alike, unitOf(doc))}`}
      </p>
      <ol aria-label="What it may be">
        {ranked.map((r, i) => (
          <Row
            key={r.key}
            cause={r}
            isNext={i === 0}
            isFound={found?.cause === r.key}
            isOver={found !== undefined}
            onLook={mayNote ? (came) => look(r.key, came) : undefined}
          />
        ))}
      </ol>
      <p className="mt-2 border-l-[3px] border-rule-2 pl-3 text-[14px] text-ink-2">{STEP_CAUTIONS.test}</p>
      {found && (
        <p className="mt-2 text-[14.5px]">
          Note it as a fault of its place at the bench: with its minutes it counts, and the next estimate
          knows it.
        </p>
      )}
      {not.size > 0 && (
        <p className="mt-2 text-[14px] text-ink-2">
          Ruled out, {count(not.size, "look")}:{" "}
          {SYMPTOMS[symptom].causes
            .filter((c) => not.has(c.key))
            .map((c) => (
              <button
                key={c.key}
                type="button"
                className="quiet-link mr-3"
                disabled={!mayNote}
                aria-label={`${c.words}: open again`}
                onClick={() => look(c.key, undefined)}
              >
                {c.words}
              </button>
            ))}
        </p>
      )}
    </>
  );
}

/** So many own minutes cost as much as a good board; nothing where either is not known. */
const minutesWorth = (r: Pick<RunResult, "perGood" | "unpriced">, hourlyRate: number): number | undefined =>
  isComplete(r.unpriced) && hourlyRate > 0 ? (60 * microsToNumber(r.perGood)) / hourlyRate : undefined;

/** One cause: how likely, what would show it, and what came of the look. */
function Row({
  cause: r,
  isNext,
  isFound,
  isOver,
  onLook,
}: {
  cause: RankedCause;
  isNext: boolean;
  isFound: boolean;
  /** It is found already. */
  isOver: boolean;
  onLook: ((came: Look["came"] | undefined) => void) | undefined;
}) {
  return (
    <li
      className={`grid grid-cols-[4.2em_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-rule py-1.5 text-[15px] ${isNext && !isOver ? "bg-metal-soft" : ""}`}
    >
      <span>
        <b className="num">{fixed(100 * r.share, 0)} %</b>
        <span
          aria-hidden
          className="mt-0.5 block h-[5px] bg-metal"
          style={{ width: `${Math.max(2, 100 * r.share)}%` }}
        />
      </span>
      <span>
        <b>{r.words}</b>
        <span className="block text-[14px] text-ink-2">
          {isNext ? "look now: " : ""}
          {r.check}, {fixed(r.minutes, 0)} min
        </span>
      </span>
      {onLook && (
        <span className="flex gap-4">
          {isFound ? (
            <>
              <b className="text-fine">that was it</b>
              <button type="button" className="quiet-link" onClick={() => onLook(undefined)}>
                not after all
              </button>
            </>
          ) : (
            <>
              <button
                type="button"
                className="quiet-link min-h-6"
                aria-label={`${r.words}: not it`}
                onClick={() => onLook("not")}
              >
                not it
              </button>
              <button
                type="button"
                className="quiet-link min-h-6"
                aria-label={`${r.words}: that was it`}
                onClick={() => onLook("it")}
              >
                that was it
              </button>
            </>
          )}
        </span>
      )}
    </li>
  );
}
