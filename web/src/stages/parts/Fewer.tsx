import { type NearValue, nearValues, spreadOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../run/runState.ts";
import { count, fixed } from "../../ui/text/format.ts";
import { nameOf } from "./lineEdits.ts";

/** How many different things the bill asks for, and values that might give way to a neighbour. */
export function Fewer() {
  const { doc, changeLine, isLocked } = useRun();
  const spread = useMemo(() => spreadOf(doc.lines), [doc.lines]);
  const near = useMemo(() => nearValues(doc.lines), [doc.lines]);
  if (spread.parts === 0) return null;
  const lineOf = (id: string) => doc.lines.find((l) => l.id === id)!;
  const refs = (id: string) => {
    const l = lineOf(id);
    return `${l.refs.slice(0, 3).join(" ")}${l.refs.length > 3 ? " …" : ""}`;
  };
  const take = (x: NearValue) => {
    const [few, many] = [lineOf(x.few), lineOf(x.many)];
    const { valueText, mpn, maker, description } = many;
    changeLine(few.id, { valueText, mpn, maker, description }, `${nameOf(few)} is ${valueText} now`);
  };
  const words = (
    <>
      {count(spread.parts, "different part")} on the {doc.boards.length > 1 ? "boards" : "board"}:{" "}
      {spread.values.map((v) => count(v.count, `value of ${v.letters}`, `values of ${v.letters}`)).join(", ")}
      {spread.values.length > 0 && "; "}
      {count(spread.packages, "package")}
    </>
  );
  if (near.length === 0) return <p className="mt-3 text-[14px] text-ink-2">{words}.</p>;
  return (
    <details className="mt-3 text-[14px]">
      <summary>
        {words}
        <b>; {count(near.length, "value")} may give way to a neighbour</b>
      </summary>
      <p className="mt-1 text-ink-2">
        One part less to buy, to lay out and to mix up. Whether the circuit bears it is yours to say: a
        divider, a filter or a crystal may not.
      </p>
      <table className="rows tight w-full">
        <thead>
          <tr>
            <th>Where</th>
            <th>Is</th>
            <th>Could be</th>
            <th className="text-right">Apart</th>
            <th>As in</th>
            <th>
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {near.map((x) => (
            <tr key={x.few}>
              <td className="num">{refs(x.few)}</td>
              <td>{lineOf(x.few).valueText}</td>
              <td>{lineOf(x.many).valueText}</td>
              <td className="num text-right">
                {x.share >= 0 ? "+" : "−"}
                {fixed(Math.abs(x.share) * 100, 0)} %
              </td>
              <td className="num">{refs(x.many)}</td>
              <td className="text-right">
                {!isLocked && (
                  <button
                    type="button"
                    className="quiet-link"
                    aria-label={`Take ${lineOf(x.many).valueText} for ${refs(x.few)}`}
                    onClick={() => take(x)}
                  >
                    take it
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
