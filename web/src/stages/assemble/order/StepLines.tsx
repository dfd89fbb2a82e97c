import { HOLDS, type PlanOfRun, type Step, type StepsDocument } from "@kobbin/core";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { said } from "../../../ui/text/format.ts";
import { Covers } from "./Covers.tsx";
import { movedLine, placedLine } from "./orderPlan.ts";
import { trayOf } from "./TrayMap.tsx";

type Line = StepsDocument["steps"][number]["lines"][number];

/** The lines of a step in the order in which they are taken; each can be moved within what is allowed. */
export function StepLines({
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
  const [dragged, setDragged] = useState<string>();
  const [over, setOver] = useState<number>();
  const tray = useMemo(() => new Map(trayOf(plan.sheet).map((f) => [f.line.line, f.n])), [plan.sheet]);
  const steps = { school: plan.work.school, ...doc.choices.steps };
  const move = (line: Line, by: -1 | 1) => {
    const moved = movedLine(plan, step, line.line, by);
    if (!moved) return;
    if ("why" in moved) return setWhy(moved.why);
    setWhy("");
    lay(moved.own, `${nameOf(line)} ${by < 0 ? "earlier" : "later"} in step ${step.n}`);
  };
  const lay = (own: readonly string[], words: string) => change({ steps: { ...steps, own } } as never, words);
  const drop = (to: number) => {
    const line = lines.find((l) => l.line === dragged);
    setDragged(undefined);
    setOver(undefined);
    if (!line) return;
    const moved = placedLine(plan, step, line.line, to);
    if (!moved) return;
    if ("why" in moved) return setWhy(moved.why);
    setWhy("");
    lay(moved.own, `${nameOf(line)} is number ${to + 1} in step ${step.n}`);
  };
  const canDrag = !isLocked && lines.length > 1;
  return (
    <>
      <ul aria-label="Lines of this step" className="mt-1 text-[14.5px]">
        {lines.map((l, i) => (
          <li
            key={l.line}
            draggable={canDrag}
            onDragStart={(e) => {
              e.dataTransfer.effectAllowed = "move";
              e.dataTransfer.setData("text/plain", nameOf(l));
              setDragged(l.line);
            }}
            onDragEnd={() => {
              setDragged(undefined);
              setOver(undefined);
            }}
            onDragOver={(e) => {
              if (dragged === undefined) return;
              e.preventDefault();
              setOver(i);
            }}
            onDrop={(e) => {
              e.preventDefault();
              drop(i);
            }}
            className={`flex items-start gap-2 border-b border-rule py-[5px] last:border-b-0 ${canDrag ? "cursor-grab" : ""} ${pointed === l.line ? "bg-metal-soft" : ""} ${over === i && dragged !== l.line ? "outline-2 outline-metal" : ""}`}
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
              <LineTool line={l} />
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
            {canDrag && <Arrows name={nameOf(l)} at={i} of={lines.length} onMove={(by) => move(l, by)} />}
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

/** Tip, glass and hold of a line: what is missing in the shop stands out. */
function LineTool({ line: { tools } }: { line: Line }) {
  const hold = tools.hold && `held by ${HOLDS[tools.hold].label}`;
  if (!tools.tip && !tools.sight && !hold) return null;
  return (
    <span className="block text-[13.5px] text-ink-2">
      {tools.tip && (
        <span className={tools.isTipMissing ? "text-look" : ""}>
          tip: {said(tools.tip)}
          {tools.isTipMissing ? ": none listed suits" : ""}
        </span>
      )}
      {tools.tip && hold ? "; " : ""}
      {hold}
      {tools.sight && (
        <span className={`block ${tools.isSightMissing ? "text-look" : ""}`}>
          seen through {tools.sight}
          {tools.isSightMissing ? ", stronger than any that is listed" : ""}
        </span>
      )}
    </span>
  );
}

/** A line earlier or later, by a press. */
function Arrows({
  name,
  at,
  of,
  onMove,
}: {
  name: string;
  at: number;
  of: number;
  onMove: (by: -1 | 1) => void;
}) {
  const look = "p-1 text-ink-2 hover:text-ink disabled:opacity-25";
  return (
    <span className="whitespace-nowrap">
      <button
        type="button"
        aria-label={`${name} earlier`}
        className={look}
        disabled={at === 0}
        onClick={() => onMove(-1)}
      >
        <ArrowUp className="size-4" />
      </button>
      <button
        type="button"
        aria-label={`${name} later`}
        className={look}
        disabled={at === of - 1}
        onClick={() => onMove(1)}
      >
        <ArrowDown className="size-4" />
      </button>
    </span>
  );
}
