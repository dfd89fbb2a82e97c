import { directedParts } from "@kobbin/core";
import { Link } from "react-router";
import { useRun } from "../../run/runState.ts";

/** Parts that must not be turned round, with the mark to look for; those nobody looked up yet come first. */
export function Directions() {
  const { id, doc, result: r } = useRun();
  const list = directedParts(doc, r.parts);
  if (list.length === 0) return null;
  const unknown = list.filter((d) => d.mark === undefined).length;
  return (
    <section aria-labelledby="directions" className="mt-5">
      <h2 id="directions" className="mb-1">
        Parts with a direction
      </h2>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Where</th>
            <th>Part</th>
            <th>Mark on the body</th>
          </tr>
        </thead>
        <tbody>
          {list.map((d) => (
            <tr key={d.line}>
              <td className="num">{d.refs.join(" ")}</td>
              <td>
                <Link className="quiet-link" to={`/runs/${id}/parts?line=${d.line}`}>
                  {d.part}
                </Link>
              </td>
              <td>{d.mark ?? <span className="text-ink-2">look it up</span>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {unknown > 0 && (
        <p className="mt-1 text-[14px] text-ink-2">
          {unknown === 1 ? "One mark is" : `${unknown} marks are`} not written down yet: the library keeps
          them for every run.
        </p>
      )}
    </section>
  );
}
