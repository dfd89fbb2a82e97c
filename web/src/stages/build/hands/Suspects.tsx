import { type Suspect, suspectsOfUnit, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { BareBy } from "../../../run/BareBy.tsx";
import { useRun } from "../../../run/runState.ts";
import { fixed } from "../../../ui/text/format.ts";

/** What may be why this board fails, the likeliest first, each with the pair of places that would show it. */
export function Suspects({ unit }: { unit: number }) {
  const { doc, record, result } = useRun();
  const list = useMemo(
    () => suspectsOfUnit(doc, result.parts, record, unit, result.yield.faults?.factors),
    [doc, result, record, unit],
  );
  if (list.length === 0) return null;
  return (
    <section aria-label="What it may be" className="mt-4">
      <h2 className="text-[17px]">
        What it may be on {unitOf(doc)} {unit}, if it is one joint
      </h2>
      <ol>
        {list.map((s) => (
          <Row key={s.ref} suspect={s} />
        ))}
      </ol>
      <p className="mt-1 text-[14.5px] text-ink-2">
        By how often such joints go wrong, and by what passes. The bare board and the program are not in it.
        One change at a time, then try it again.
      </p>
      <BareBy purpose="reference" className="mt-1 text-[14.5px]" />
    </section>
  );
}

function Row({ suspect: s }: { suspect: Suspect }) {
  return (
    <li className="grid grid-cols-[4.2em_1fr] items-baseline gap-x-3 border-b border-rule py-1 text-[16px]">
      <span>
        <b className="num">{fixed(100 * s.share, 0)} %</b>
        <span
          aria-hidden
          className="mt-0.5 block h-[5px] bg-metal"
          style={{ width: `${Math.max(2, 100 * s.share)}%` }}
        />
      </span>
      <span>
        <b className="num">{s.ref}</b>
        {s.isInDoubt && <span className="text-look"> was in doubt when it was put on</span>}
        {s.passes.length > 0 && (
          <span className="text-[14.5px] text-ink-2">, seen working in {s.passes.join(", ")}</span>
        )}
        {s.check && (
          <span className="block text-[14.5px] text-ink-2">
            without power <span className="num">{s.check.from}</span> –{" "}
            <span className="num">{s.check.to}</span> must beep
          </span>
        )}
      </span>
    </li>
  );
}
