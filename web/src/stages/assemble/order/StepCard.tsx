import { gateCost, isComplete, isGate, type PlanOfRun, type Step, type StepsDocument } from "@kobbin/core";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Sum } from "../../../ui/Sum.tsx";
import { count, money } from "../../../ui/text/format.ts";
import { Covers } from "./Covers.tsx";
import { HeatLog } from "./HeatLog.tsx";
import { minutesWords, movedLine } from "./orderPlan.ts";
import { StepPicture } from "./StepPicture.tsx";
import { trayOf } from "./TrayMap.tsx";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];

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
          <StepPicture step={step} shown={new Set(refs)} directed={directed} />
        </div>
      )}
      {step.kind === "heat" && <HeatLog plan={plan} step={step} />}
      {row.lines.length > 0 && (
        <Lines plan={plan} step={step} lines={row.lines} pointed={line} onPoint={setLine} />
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

/** The lines of a step in the order in which they are taken; each can be moved within what is allowed. */
function Lines({
  plan,
  step,
  lines,
  pointed,
  onPoint,
}: {
  plan: PlanOfRun;
  step: Step;
  lines: readonly Line[];
  pointed: string | undefined;
  onPoint: (line: string | undefined) => void;
}) {
  const { doc, change, isLocked } = useRun();
  const [why, setWhy] = useState("");
  const tray = useMemo(() => new Map(trayOf(plan.sheet).map((f) => [f.line.line, f.n])), [plan.sheet]);
  const steps = { school: plan.work.school, ...doc.choices.steps };
  const move = (line: Line, by: -1 | 1) => {
    const moved = movedLine(plan, step, line.line, by);
    if (!moved) return;
    if ("why" in moved) return setWhy(moved.why);
    setWhy("");
    change(
      { steps: { ...steps, own: moved.own } } as never,
      `${nameOf(line)} ${by < 0 ? "earlier" : "later"} in step ${step.n}`,
    );
  };
  return (
    <>
      <ul aria-label="Lines of this step" className="mt-1 text-[14.5px]">
        {lines.map((l, i) => (
          <li
            key={l.line}
            className={`flex items-start gap-2 border-b border-rule py-[5px] last:border-b-0 ${pointed === l.line ? "bg-metal-soft" : ""}`}
            onMouseEnter={() => onPoint(l.line)}
            onMouseLeave={() => onPoint(undefined)}
            onFocus={() => onPoint(l.line)}
            onBlur={() => onPoint(undefined)}
          >
            <span className="min-w-0 flex-1">
              <span className="num font-bold">{l.refs.join(" ")}</span>
              <span className="block">
                <span className="num">{l.pieces}</span> × {l.value || l.mpn}{" "}
                <span className="num text-[13px] text-ink-2">{l.package}</span>
                <span className="text-ink-2">
                  {tray.has(l.line) ? `, tray ${tray.get(l.line)}` : ""}
                  {l.lies ? `, from ${l.lies.join(", ")}` : ""}
                </span>
              </span>
              {l.mark !== undefined && (
                <span className="block text-[13.5px]">
                  {l.mark === "" ? (
                    <span className="text-look">has a direction: look its mark up</span>
                  ) : (
                    <>direction: {l.mark}</>
                  )}
                </span>
              )}
            </span>
            {!isLocked && lines.length > 1 && (
              <span className="whitespace-nowrap">
                <button
                  type="button"
                  aria-label={`${nameOf(l)} earlier`}
                  className="p-1 text-ink-2 hover:text-ink disabled:opacity-25"
                  disabled={i === 0}
                  onClick={() => move(l, -1)}
                >
                  <ArrowUp className="size-4" />
                </button>
                <button
                  type="button"
                  aria-label={`${nameOf(l)} later`}
                  className="p-1 text-ink-2 hover:text-ink disabled:opacity-25"
                  disabled={i === lines.length - 1}
                  onClick={() => move(l, 1)}
                >
                  <ArrowDown className="size-4" />
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
      <p role="status" className="text-[14px] text-look">
        {why}
      </p>
      {!isLocked && lines.some((l) => l.refs.length > 0) && <Covers step={step} lines={lines} />}
    </>
  );
}

const nameOf = (l: Line): string => l.refs[0] ?? (l.value || l.mpn);
