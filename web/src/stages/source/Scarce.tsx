import { scarcityOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../run/runState.ts";
import { count, fixed } from "../../ui/text/format.ts";

const SHOWN = 6;
/** Beyond so many runs nobody asks how many more. */
const AMPLE = 50;

/** Which line would stop the product first: sources, known stock, runs it covers, its maker's plans. */
export function Scarce() {
  const { doc, result: r } = useRun();
  const list = useMemo(() => scarcityOf(doc, r), [doc, r]);
  const first = list[0];
  if (!first || doc.offers.length === 0) return null;
  const nameOf = (lines: readonly string[]) => {
    const own = lines.flatMap((id) => doc.lines.find((l) => l.id === id) ?? []);
    const refs = own.flatMap((l) => l.refs);
    return `${refs.slice(0, 3).join(" ")}${refs.length > 3 ? " …" : ""} ${own[0]?.valueText || own[0]?.mpn || ""}`.trim();
  };
  return (
    <details className="mt-3 text-[14px]">
      <summary>
        What would stop the product first:{" "}
        <b>
          {nameOf(first.lines)}, {covers(first.coverRuns)}
        </b>
      </summary>
      <table className="rows tight mt-1">
        <thead>
          <tr>
            <th>Part</th>
            <th className="text-right">Sources</th>
            <th className="text-right">Numbers</th>
            <th className="text-right">Known stock</th>
            <th className="text-right">Runs like this</th>
            <th>In its maker’s plans</th>
          </tr>
        </thead>
        <tbody>
          {list.slice(0, SHOWN).map((s) => (
            <tr key={s.line}>
              <td>{nameOf(s.lines)}</td>
              <td className={`num text-right ${s.sources < 2 ? "text-look" : ""}`}>{s.sources}</td>
              <td className="num text-right">{s.parts}</td>
              <td className="num text-right">{s.stock}</td>
              <td className={`num text-right ${s.coverRuns < 2 ? "text-look" : ""}`}>
                {s.coverRuns >= AMPLE ? `over ${AMPLE}` : fixed(s.coverRuns, 1)}
              </td>
              <td className="text-ink-2">{s.state}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[13px] text-ink-2">
        Stock as the suppliers said it last, of what may be bought, with what lies on the own shelf. What
        comes in later nobody knows; {count(list.length, "purchase")} looked at.
      </p>
    </details>
  );
}

const covers = (runs: number) =>
  runs >= AMPLE
    ? `over ${AMPLE} runs`
    : runs < 0.05
      ? "none to be had"
      : runs < 1
        ? "less than one run like this"
        : `${fixed(runs, 1)} runs like this`;
