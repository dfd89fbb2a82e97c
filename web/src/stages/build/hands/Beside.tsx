import { compareRefs, type PlanOfRun, type StepsDocument } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";

import { HeatTimer } from "./HeatTimer.tsx";

type Row = StepsDocument["steps"][number];

/** What a step without pieces works on: all parts of the run where they are laid out, what is in doubt where one looks. */
export function Beside({ plan, row, unit }: { plan: PlanOfRun; row: Row; unit: number }) {
  if (row.kind === "kit") return <LaidOut plan={plan} />;
  if (row.kind === "heat") return <HeatTimer alloy={plan.sheet.alloy} />;
  if (row.kind === "inspect" || row.kind === "test") return <InDoubt unit={unit} />;
  return null;
}

/** Every line in the order in which it is put on, with pieces for all boards and where they lie. */
function LaidOut({ plan }: { plan: PlanOfRun }) {
  const { result: r } = useRun();
  const lines = plan.sheet.steps.flatMap((s) => s.lines);
  if (lines.length === 0) return null;
  return (
    <table className="rows mt-3 w-full text-[18px] max-sm:text-[15px]" aria-label="To lay out">
      <thead>
        <tr>
          <th className="text-right">Pieces</th>
          <th>Part</th>
          <th>Package</th>
          <th>Goes to</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => {
          const need = r.needs.find((n) => n.lines.includes(l.line));
          return (
            <tr key={`${l.line} ${l.refs.join(" ")}`}>
              <td className="num text-right">{Math.ceil(l.pieces * r.start)}</td>
              <td>
                <b>{l.value || l.mpn}</b>
                {l.lies && <span className="block text-[15px] text-ink-2">from {l.lies.join(", ")}</span>}
                {need && need.lost > 0 && need.lines.length === 1 && (
                  <span className="block text-[15px] text-ink-2">and {need.lost} spare</span>
                )}
              </td>
              <td className="num">{l.package}</td>
              <td className="num">
                {[...l.refs].sort(compareRefs).slice(0, 6).join(" ")}
                {l.refs.length > 6 ? " …" : ""}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Pieces of this board that somebody wanted to look at again, and those that were left for later. */
function InDoubt({ unit }: { unit: number }) {
  const { record } = useRun();
  const marks = (record.sittings ?? [])
    .filter((s) => s.unit === unit)
    .flatMap((s) => Object.entries(s.marks));
  const of = (mark: string) => marks.flatMap(([name, m]) => (m === mark ? [name] : [])).sort(compareRefs);
  const [doubts, later] = [of("doubt"), of("skipped")];
  if (doubts.length + later.length === 0)
    return <p className="mt-3">Nothing was put on in doubt on this one, and nothing was left.</p>;
  return (
    <>
      {doubts.length > 0 && (
        <p className="mt-3 text-look">
          Look at these again: <b className="num">{doubts.join(" ")}</b>
        </p>
      )}
      {later.length > 0 && (
        <p className="mt-2 text-stop">
          Left for later and not on: <b className="num">{later.join(" ")}</b>
        </p>
      )}
    </>
  );
}
