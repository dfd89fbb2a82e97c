import { gateCost, isComplete, isGate, type PlanOfRun, type Step, type StepsDocument } from "@kobbin/core";
import { useMemo, useState } from "react";
import { GoodJoint } from "../../../proof/joints/GoodJoint.tsx";
import { useRun } from "../../../run/runState.ts";
import { Sum } from "../../../ui/Sum.tsx";
import { count, money } from "../../../ui/text/format.ts";
import { HeatLog } from "./HeatLog.tsx";
import { minutesWords } from "./orderPlan.ts";
import { PlateWithPockets } from "./PlateWithPockets.tsx";
import { StepLines } from "./StepLines.tsx";
import { StepPicture } from "./StepPicture.tsx";
import { jointLooks, mostOf } from "./stepJoints.ts";

type Row = StepsDocument["steps"][number];

/** One step, as who does it needs it: the parts lit on the board, each with its size, its mark and where it lies; what to mind. */
export function StepCard({ plan, step, row }: { plan: PlanOfRun; step: Step; row: Row }) {
  const [line, setLine] = useState<string>();
  const refs = row.lines.find((l) => l.line === line)?.refs ?? row.refs;
  const directed = new Set(row.lines.filter((l) => l.mark !== undefined).flatMap((l) => l.refs));
  return (
    <section
      aria-label={`Step ${step.n}`}
      className="sticky top-3 max-h-[calc(100vh-84px)] overflow-y-auto border border-rule bg-sheet px-4 py-3 max-lg:static max-lg:max-h-none"
    >
      <h2 className="text-[18px]">
        <span className="num">{step.n}</span> {row.words}
        {row.side ? `, ${row.side}` : ""}
        {row.board ? `, ${row.board}` : ""}
      </h2>
      <p className="mb-2 text-[14px] text-ink-2">
        <About step={step} row={row} plan={plan} />
      </p>
      {row.refs.length > 0 && (
        <div className="sticky top-[-12px] z-10 bg-sheet pb-1">
          <StepPicture
            step={step}
            shown={new Set(refs)}
            directed={directed}
            isPath={plan.work.school === "path" && step.kind === "place"}
          />
        </div>
      )}
      <Tools row={row} />
      {step.kind === "heat" && <HeatLog plan={plan} step={step} />}
      {row.lines.length > 0 && (
        <StepLines plan={plan} step={step} lines={row.lines} pointed={line} onPoint={setLine} />
      )}
      <ul className="mt-2 text-[14.5px]">
        {row.how.map((h) => (
          <li key={h}>{h}</li>
        ))}
        {row.because.map((b) => (
          <li key={b}>{b}</li>
        ))}
        {row.traps.map((t) => (
          <li key={t} className="font-semibold text-look">
            {t}
          </li>
        ))}
        {row.covers.length > 0 && <li>Out of reach from here on: {row.covers.join(", ")}.</li>}
      </ul>
      <Joints row={row} plan={plan} pointed={line} />
      {step.kind === "iron" && <PlateWithPockets plan={plan} step={step} />}
      <p className="mt-2 border-t border-rule pt-2 text-[14px] text-ink-2">{row.caution}</p>
    </section>
  );
}

/** What a step comes to: pieces and minutes; at a gate what it protects, and whether that pays. */
function About({ step, row, plan: { sheet, work } }: { step: Step; row: Row; plan: PlanOfRun }) {
  const { result } = useRun();
  const pieces = row.lines.reduce((n, l) => n + l.pieces, 0);
  const words = [
    ...(row.refs.length > 0 && pieces > 0
      ? [`${count(pieces, "piece")} a board of ${count(row.lines.length, "kind")}`]
      : []),
    `${minutesWords(step.minutes)} for ${sheet.start}`,
  ].join(", ");
  if (!isGate(step.kind) || !step.protects) return <>{words}.</>;
  const cash = (micros: number) => money(micros / 1e6, sheet.currency);
  const cost = gateCost(work, step);
  const { searched, spoilt, all } = step.protects;
  return (
    <>
      {words}. It keeps up to{" "}
      <Sum
        title="What this gate keeps"
        result={cash(all)}
        formula="what is lost if the same is found one gate later"
        terms={[
          {
            label: "boards that fail are searched for their defect",
            value: cash(searched),
            from: "defect model, 6 min a board; as if no earlier gate had found any",
          },
          {
            label: "boards that cannot be mended, with what went in meanwhile",
            value: cash(spoilt),
            from: "parts and own time up to the next gate",
          },
        ]}
      >
        {cash(all)}
      </Sum>
      {isComplete(result.unpriced) ? "" : ", as far as prices are known,"} that would be lost by finding the
      same one gate later; {step.kind === "inspect" ? "looking costs" : "it costs"} {cash(cost)} of own time
      {all < cost ? ", more than it keeps: as far as the figures go it does not pay." : "."}
    </>
  );
}

/** Machines the step is done with: what each can and cannot here. */
function Tools({ row }: { row: Row }) {
  if (row.tools.length === 0) return null;
  return (
    <ul aria-label="Done with" className="mt-2 border-t border-rule py-1 text-[14.5px]">
      {row.tools.map((t) => (
        <li key={t.name} className="py-[2px]">
          <b>{t.name}</b>{" "}
          <span className={TOOL_COLOUR[t.can]}>
            {TOOL_WORD[t.can]}
            {t.words.length > 0 ? `: ${t.words.join("; ")}` : ""}
          </span>
        </li>
      ))}
    </ul>
  );
}
const TOOL_WORD = { yes: "will do", no: "will not do", unknown: "not known whether it will do" } as const;
const TOOL_COLOUR = { yes: "text-ink-2", no: "text-stop", unknown: "text-look" } as const;

/** How joints of the step should look, drawn: of the line that is pointed at, else of the step's most frequent kind. */
function Joints({ row, plan, pointed }: { row: Row; plan: PlanOfRun; pointed: string | undefined }) {
  const { result } = useRun();
  const looks = useMemo(() => jointLooks(row, plan, result.parts), [row, plan, result.parts]);
  const of = (pointed && looks.get(pointed)) || mostOf([...looks.values()]);
  if (!of) return null;
  return (
    <div className="mt-3">
      <GoodJoint look={of} />
    </div>
  );
}
