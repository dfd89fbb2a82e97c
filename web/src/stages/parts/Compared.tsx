import type { Candidate } from "@kobbin/core";
import { Link } from "react-router";
import { Mark } from "../../ui/Mark.tsx";

const WORDS = {
  same: "same",
  better: "better",
  worse: "worse",
  different: "different",
  unknown: "not\u00a0known",
} as const;

/** The comparison attribute by attribute: what must match, what may be better, what changes the circuit. */
export function Compared({
  candidate: { part, comparison },
  original,
}: {
  candidate: Candidate;
  original: string;
}) {
  return (
    <div className="overflow-x-auto pl-6">
      <table className="rows tight my-1 text-[13.5px]">
        <caption className="sr-only">
          {part.mpn} against {original}
        </caption>
        <thead>
          <tr>
            <th>
              <span className="sr-only">Result</span>
            </th>
            <th>Attribute</th>
            <th>{original}</th>
            <th>{part.mpn}</th>
            <th>So it is</th>
            <th>Which means</th>
          </tr>
        </thead>
        <tbody>
          {comparison.rows.map((r) => {
            const isBad = r.standing === "different" || r.standing === "worse";
            const kind = isBad
              ? r.mustMatch
                ? "blocked"
                : "look"
              : r.standing === "unknown"
                ? "look"
                : "ready";
            return (
              <tr key={r.key}>
                <td>
                  <Mark kind={kind} />
                </td>
                <td>{r.label}</td>
                <td className="num">{r.original || "?"}</td>
                <td className="num">{r.candidate || "?"}</td>
                <td>
                  {WORDS[r.standing]}
                  {isBad && r.mustMatch && ", must match"}
                  {isBad && r.changesCircuit && ", changes the circuit"}
                </td>
                <td className="max-w-[300px] text-ink-2">
                  {r.consequence &&
                    (r.standing === "unknown" ? `If it differs: ${r.consequence}` : r.consequence)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Link className="quiet-link" to={`/library?part=${part.id}`}>
        say more of {part.mpn} in the library
      </Link>
    </div>
  );
}
