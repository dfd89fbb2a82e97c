import type { RunResult } from "@kobbin/core";
import { Link } from "react-router";
import { useRun } from "../../run/runState.ts";
import { mm, written } from "../../ui/format.ts";
import { Sum } from "../../ui/Sum.tsx";
import { onBoard } from "./onBoard.ts";

/** What was measured against the chosen house's limits, board by board. */
export function Limits({ checks }: { checks: RunResult["checks"] }) {
  const words = { fine: "fine", tight: "tight", look: "look", cannot: "cannot" } as const;
  const { id, doc } = useRun();
  const several = doc.boards.length > 1;
  const at = (board: string | undefined) => doc.boards.findIndex((b) => b.id === board);
  return (
    <section aria-labelledby="limits">
      <h2 id="limits" className="mb-1">
        {several ? "These boards against its limits" : "This board against its limits"}
      </h2>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Measured</th>
            <th className="text-right">Value</th>
            <th className="text-right">Limit</th>
            <th className="text-right">Headroom</th>
          </tr>
        </thead>
        <tbody>
          {checks.map((c) => (
            <tr key={`${c.measure}${c.label}${c.board ?? ""}`}>
              <td>
                {c.at ? (
                  <Link className="why" to={onBoard(id, doc, c)!}>
                    {c.label}
                  </Link>
                ) : (
                  c.label
                )}
                {several && <span className="text-ink-3"> {doc.boards[at(c.board)]?.name}</span>}
              </td>
              <td className="num text-right">{mm(c.value)}</td>
              <td className="num text-right">{written(String(c.limit))}</td>
              <td
                className={`num text-right ${c.level === "cannot" ? "text-stop" : c.level === "fine" ? "" : "text-look"}`}
              >
                <Sum
                  title={c.label}
                  terms={[
                    { label: "measured on the board", value: written(String(Number(c.value.toFixed(4)))) },
                    { label: "limit of the house's profile", value: written(String(c.limit)) },
                  ]}
                  result={written(String(Number(c.margin.toFixed(4))))}
                >
                  {c.limit > 0 ? `${Math.round((100 * c.margin) / c.limit)} %` : "–"}
                </Sum>{" "}
                <span className="text-[12.5px]">
                  {words[c.level]}
                  {c.extra &&
                    `, +${Math.round(100 * c.extra.uplift)} % below ${written(String(c.extra.below))}`}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
