import { linesOfUnit, lineWords } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { day, said } from "../../../ui/text/format.ts";
import { LineGraph } from "./LineGraph.tsx";
import { standWords } from "./lineModel.ts";

/** The lines of a board of this run. */
export function useLines(unit: number) {
  const { doc, record } = useRun();
  return useMemo(
    () => linesOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit),
    [doc.assembly.tests, record.tries, unit],
  );
}

const LOOK = { pass: "", fail: "text-stop", open: "text-ink-2" } as const;

/** Constants of a board, how true they are and until when. */
export function UnitLines({ unit }: { unit: number }) {
  const lines = useLines(unit);
  const today = todayIso();
  if (lines.length === 0) return null;
  return (
    <>
      <h2 className="mt-5 mb-1 text-[16px]">Its constants</h2>
      <ul aria-label="Its constants">
        {lines.map((l) => {
          const isLate = l.until !== undefined && l.until < today;
          return (
            <li
              key={l.line.of}
              className="flex flex-wrap items-center gap-x-6 border-b border-rule py-2 text-[14.5px]"
            >
              <span className="min-w-0 flex-1 basis-[22rem]">
                <b>{l.line.of}</b>
                {l.fit && (
                  <span className="num block text-[16px]">
                    {said(lineWords(l.fit, l.line.unit, l.line.read))}
                  </span>
                )}
                <span className={`block ${LOOK[l.stand]}`}>{said(standWords(l))}</span>
                {l.on && (
                  <span className={`block text-[13.5px] ${isLate ? "text-stop" : "text-ink-2"}`}>
                    read {day(l.on)}
                    {l.until &&
                      (isLate ? `, was true until ${day(l.until)}` : `, true until ${day(l.until)}`)}
                  </span>
                )}
              </span>
              <LineGraph is={l} />
            </li>
          );
        })}
      </ul>
    </>
  );
}
