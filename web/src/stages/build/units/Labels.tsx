import { unitOf } from "@kobbin/core";
import { useMemo, useRef } from "react";
import { useRun } from "../../../run/runState.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { Button } from "../../../ui/Button.tsx";
import { Code } from "../../../ui/Code.tsx";
import { printAlone } from "../../../ui/printed.ts";
import { Empty } from "../../../ui/States.tsx";
import { count } from "../../../ui/text/format.ts";
import { Stickers } from "./Stickers.tsx";

/** A label of each board that is started: its number in words and as a code, what it is, and its revision. */
export function Labels() {
  const { doc, result } = useRun();
  const serial = useSerial();
  const paper = useRef<HTMLElement>(null);
  const units = useMemo(() => Array.from({ length: result.start }, (_, i) => i + 1), [result.start]);
  if (serial(1) === undefined)
    return <Empty>This run was released before boards were numbered, or its numbers are used up.</Empty>;
  return (
    <section aria-label="Labels">
      <p className="mb-3 flex flex-wrap items-baseline gap-4">
        <Button look="main" onClick={() => paper.current && printAlone(paper.current)}>
          Print {count(units.length, "label")}
        </Button>
        <span className="text-[14.5px] text-ink-2">
          38 × 19 mm each, one to one. A scanner that types finds the {unitOf(doc)} from anywhere: press / and
          scan.
        </span>
      </p>
      <section
        ref={paper}
        aria-label="Sheet of labels"
        className="flex flex-wrap gap-[2mm] bg-white p-[4mm] text-black"
      >
        {units.map((u) => {
          const text = serial(u);
          return text === undefined ? null : (
            <div
              key={u}
              className="flex h-[19mm] w-[38mm] break-inside-avoid items-center gap-[1.5mm] overflow-hidden border border-[#999] p-[1mm]"
            >
              <Code text={text.replaceAll("-", "")} mm={16} label={`Code of ${text}`} />
              <div className="min-w-0 leading-tight">
                <p className="truncate text-[2.5mm]">
                  {doc.product} {doc.revision}
                </p>
                <p className="num text-[2.5mm] font-bold break-all">{text}</p>
                <p className="text-[2.2mm]">
                  {unitOf(doc)} {u} of {units.length}
                </p>
              </div>
            </div>
          );
        })}
      </section>
      <Stickers />
    </section>
  );
}
