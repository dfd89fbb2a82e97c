import { ownWork, unitOf } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { count, fixed } from "../../ui/text/format.ts";

/** Own hours of the run, each step for one board and for all, adding up to the sum below them. */
export function OwnWork() {
  const { doc, result: r } = useRun();
  const unit = unitOf(doc);
  const rows = ownWork(doc, r);
  const factor = r.yield.record?.timeFactor ?? 1;
  return (
    <>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Step</th>
            <th className="text-right">min a {unit}</th>
            <th className="text-right">min, {count(r.start, unit)}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((w) => (
            <tr key={w.label}>
              <td>{w.label}</td>
              <td className="num text-right">{w.each === undefined ? "" : fixed(w.each, 2)}</td>
              <td className="num text-right">{fixed(w.all, 1)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td>in all, {fixed(r.ownMinutes / 60, 1)} h</td>
            <td />
            <td className="num text-right">{fixed(r.ownMinutes, 1)}</td>
          </tr>
        </tbody>
      </table>
      {factor !== 1 && (
        <p className="mt-1 text-[13.5px] text-ink-2">
          Every step × {fixed(factor, 2)}, as this shop's closed runs took it.
        </p>
      )}
    </>
  );
}
