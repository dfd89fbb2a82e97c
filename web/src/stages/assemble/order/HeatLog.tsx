import {
  type Cells,
  type HeatJudged,
  type HeatWindow,
  judgeHeat,
  type HeatLog as Log,
  type PlanOfRun,
  readHeatLog,
  type Step,
  WINDOWS,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { DropZone } from "../../../ui/DropZone.tsx";
import { fixed } from "../../../ui/text/format.ts";
import { HeatCurve } from "./HeatCurve.tsx";

/** A logger's file: its cells, or why there are none. */
type Read = { readonly name: string } & ({ readonly cells: Cells } | { readonly reason: string });

/** Nobody looks at a logger's file of more. */
const MOST_BYTES = 20 * 1024 * 1024;
const VERDICT = { inside: "inside the window", look: "look at it", outside: "outside the window" } as const;
const COLOUR = { inside: "text-fine", look: "text-look", outside: "text-stop" } as const;
const LEVEL = { error: "text-stop", warning: "text-look", remark: "text-ink-2" } as const;

function judged(
  read: Read,
  w: HeatWindow,
  peakC: number | undefined,
): { readonly log: Log; readonly judged: HeatJudged } | { readonly reason: string } {
  if ("reason" in read) return read;
  const found = judgeHeat(read.cells, w, peakC);
  const log = readHeatLog(read.cells);
  if ("outcome" in found) return found;
  return typeof log === "string" ? { reason: log } : { log, judged: found };
}

/** The weakest part of a heat: what it stands is what the log is judged against. */
export function weakestOf(work: PlanOfRun["work"], step: Step): { name: string; peakC: number } | undefined {
  const there = work.parts.flatMap((p) =>
    p.how === "paste" && p.board === step.board && p.peakC !== undefined
      ? [{ name: p.name, peakC: p.peakC }]
      : [],
  );
  return there.reduce<(typeof there)[number] | undefined>(
    (a, b) => (a && a.peakC <= b.peakC ? a : b),
    undefined,
  );
}

/** A logger's file held against what the paste wants, with its curve drawn in the window. */
export function HeatLog({ plan, step }: { plan: PlanOfRun; step: Step }) {
  const [read, setRead] = useState<Read>();
  const w = WINDOWS[plan.sheet.alloy];
  const weakest = weakestOf(plan.work, step);
  const peakC = weakest?.peakC;
  // another alloy or a weaker part judges the same log anew
  const told = useMemo(() => (read ? judged(read, w, peakC) : undefined), [read, w, peakC]);
  const take = async (files: readonly File[]) => {
    const [file] = files;
    if (!file) return;
    const no = (reason: string) => setRead({ name: file.name, reason });
    if (files.length > 1) return no("Drop one log at a time.");
    if (file.size > MOST_BYTES)
      return no(`It is larger than ${MOST_BYTES / 1048576} MB: save the one log alone.`);
    const { readTables } = await import("@kobbin/formats");
    const sheets = await readTables(new Uint8Array(await file.arrayBuffer())).catch((e: Error) => e);
    if (sheets instanceof Error) return no(`${sheets.message} Save the one log as CSV.`);
    const tables = (sheets ?? []).filter((s) => s.cells.length > 0);
    const first = tables[0];
    if (!first || tables.length > 1)
      return no(
        `It holds ${tables.length === 0 ? "no table" : `${tables.length} sheets`}: save the one log as CSV.`,
      );
    setRead({ name: file.name, cells: first.cells });
  };
  return (
    <section aria-label="Temperature log" className="mb-2 border-y border-rule py-2">
      <p className="mb-1 text-[14px] text-ink-2">
        A log of this heat, from any logger, is held against that
        {weakest ? ` and against ${weakest.name}, which stands ${weakest.peakC} °C` : ""}. It is judged here
        and not kept.
      </p>
      <DropZone
        isCompact
        says="Drop the logger’s file here, or "
        onFiles={(files) => {
          Promise.resolve(files)
            .then(take)
            .catch((e: Error) => setRead({ name: "The file", reason: `It could not be read: ${e.message}` }));
        }}
      />
      {read && told && "reason" in told && (
        <p role="status" className="text-stop">
          {read.name}: {told.reason}
        </p>
      )}
      {read && told && "judged" in told && (
        <>
          <p role="status" className={`font-bold ${COLOUR[told.judged.verdict]}`}>
            {read.name}: {VERDICT[told.judged.verdict]}
          </p>
          <HeatCurve log={told.log} window={w} limitC={weakest?.peakC} />
          <ul className="text-[14px]">
            {told.judged.probes.map((p) => (
              <li key={p.name}>
                <b>{p.name}</b>: peak <span className="num">{fixed(p.peakC, 1)} °C</span> at{" "}
                <span className="num">{fixed(p.peakAtS, 0)} s</span>,{" "}
                <span className="num">{fixed(p.secondsAboveLiquidus, 0)} s</span> above {w.liquidusC} °C
              </li>
            ))}
            {told.judged.findings.map((f) => (
              <li key={`${f.tag} ${f.probe ?? ""} ${f.text}`} className={LEVEL[f.level]}>
                {f.text}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
