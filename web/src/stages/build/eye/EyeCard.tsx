import { compareRefs, isNoPiece, type StepsDocument } from "@kobbin/core";
import { useMemo } from "react";
import { GoodJoint } from "../../../proof/joints/GoodJoint.tsx";
import { lookOf } from "../../../proof/joints/jointLook.ts";
import { useRun } from "../../../run/runState.ts";
import { WhereItGoes } from "../hands/KitCard.tsx";

type Step = StepsDocument["steps"][number];
type Line = Step["lines"][number];
const MOST = 24;

/** Joints of a line to be looked at: where they are, and how good ones look. What works is another question. */
export function EyeCard({
  line,
  unit,
  step,
  row,
  sheet,
}: {
  line: string;
  unit: number;
  step: Step;
  /** As the order of work has it; nothing where a house puts it on. */
  row: Line | undefined;
  sheet: StepsDocument;
}) {
  const { doc, record, result } = useRun();
  const parts = result.parts.filter((p) => p.line.id === line);
  const look = parts[0] && lookOf(parts[0].kind);
  const of = doc.lines.find((l) => l.id === line);
  const refs = [...new Set(parts.flatMap((p) => p.line.refs))].sort(compareRefs);
  const isByHouse = !sheet.steps.some((s) => s.lines.some((l) => l.line === line));
  const doubts = useMemo(() => {
    const own = (record.sittings ?? [])
      .filter((s) => s.unit === unit)
      .flatMap((s) => Object.entries(s.marks));
    return new Set(own.flatMap(([name, m]) => (m === "doubt" && !isNoPiece(name) ? [name] : [])));
  }, [record.sittings, unit]);
  const doubted = refs.filter((r) => doubts.has(r));
  return (
    <div className="grid grid-cols-[minmax(280px,1fr)_auto] gap-6 max-lg:grid-cols-1 max-lg:gap-3">
      <div aria-live="polite">
        <p className="num text-[40px] leading-tight font-bold break-words max-sm:text-[26px]">
          {refs.slice(0, MOST).join(" ")}
          {refs.length > MOST ? " …" : ""}
        </p>
        <p className="mt-2 text-[30px] leading-tight font-semibold max-sm:text-[22px]">
          {row?.value || of?.valueText || of?.mpn}
        </p>
        <p className="num text-[22px] text-ink-2 max-sm:text-[17px]">
          {of?.package}
          {isByHouse ? ", put on by the house" : ""}
        </p>
        {doubted.length > 0 && (
          <p className="mt-2 text-[22px] font-semibold text-look max-sm:text-[17px]">
            Put on in doubt: <span className="num">{doubted.join(" ")}</span>
          </p>
        )}
        {look ? (
          <GoodJoint look={look} isBig />
        ) : (
          <p className="mt-4 max-w-[46ch] text-[20px] max-sm:text-[16px]">
            Its joints lie under it and are not to be seen: look whether it lies flat and even, and along its
            edge.
          </p>
        )}
        {step.caution && (
          <p className="mt-4 border-l-4 border-rule-2 px-3 text-[16px] text-ink-2">{step.caution}</p>
        )}
      </div>
      <WhereItGoes kit={{ line, refs }} isRinged />
    </div>
  );
}
