import { linesOfUnit, lineWords, loadOf, type TestItem, unitOf } from "@kobbin/core";
import { useRef } from "react";
import { useRun } from "../../../run/runState.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { Button } from "../../../ui/Button.tsx";
import { printAlone } from "../../../ui/printed.ts";
import { count, day, said } from "../../../ui/text/format.ts";

const NO_PLAN: readonly TestItem[] = [];

/** What a board is labelled with besides its number: the constants that were read on it, and what its outputs may carry. */
export function Stickers() {
  const { doc, record, result } = useRun();
  const serial = useSerial();
  const paper = useRef<HTMLElement>(null);
  const plan = doc.assembly.tests ?? NO_PLAN;
  const loads = plan.flatMap((t) => {
    const label = t.load && loadOf(t.load).label;
    return label ? [{ name: t.name, label }] : [];
  });
  const stickers = Array.from({ length: result.start }, (_, i) => i + 1).flatMap((unit) => {
    const lines = linesOfUnit(plan, record.tries ?? [], unit).filter((l) => l.fit && l.stand === "pass");
    return lines.length + loads.length > 0 ? [{ unit, lines }] : [];
  });
  if (!plan.some((t) => t.point) && loads.length === 0) return null;
  return (
    <>
      <h2 className="mt-6 mb-1 text-[16px]">Constants and loads</h2>
      {stickers.length === 0 ? (
        <p className="text-[14.5px] text-ink-2">
          A sticker comes of each {unitOf(doc)} once every point of its line is read and none lies too far
          off.
        </p>
      ) : (
        <p className="mb-3">
          <Button onClick={() => paper.current && printAlone(paper.current)}>
            Print {count(stickers.length, "sticker")}
          </Button>
        </p>
      )}
      <section
        ref={paper}
        aria-label="Sheet of stickers"
        className="flex flex-wrap items-start gap-[2mm] bg-white p-[4mm] text-black"
      >
        {stickers.map(({ unit, lines }) => (
          <div
            key={unit}
            className="min-h-[19mm] w-[52mm] break-inside-avoid border border-[#999] p-[1.2mm] text-[2.3mm] leading-tight"
          >
            <p className="num font-bold">{serial(unit) ?? `${unitOf(doc)} ${unit}`}</p>
            {lines.map((l) => (
              <p key={l.line.of} className="mt-[0.6mm]">
                {l.line.of}
                <span className="num block font-bold break-words">
                  {said(lineWords(l.fit!, l.line.unit, l.line.read))}
                </span>
                read {day(l.on!)}
                {l.until && `, true until ${day(l.until)}`}
              </p>
            ))}
            {loads.map((l) => (
              <p key={l.name} className="mt-[0.6mm]">
                {l.name} <b className="num">{said(l.label)}</b>
              </p>
            ))}
          </div>
        ))}
      </section>
    </>
  );
}
