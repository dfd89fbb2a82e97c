import type { LotRow } from "@kobbin/contract";
import { Link } from "react-router";
import { useBoardsWith, useMoves } from "../../resources/library.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { day } from "../../ui/text/format.ts";
import { saysBoardsWith } from "./boardsWith.ts";

/** Where the pieces of a lot came from and went, the newest first, each with what lay there then. */
export function Moves({ lot: l }: { lot: LotRow }) {
  const { data: moves, error, mutate } = useMoves(l);
  if (error && !moves) return <Failed error={error} again={() => mutate()} />;
  if (!moves) return <Skeleton rows={2} />;
  return (
    <>
      <BoardsWithIt lot={l} />
      <table className="rows mt-2 w-full text-[14px]" aria-label={`Where ${l.mpn} came from and went`}>
        <thead>
          <tr>
            <th className="text-right">Pieces</th>
            <th className="text-right">Then there</th>
            <th>Because</th>
            <th>When and who</th>
          </tr>
        </thead>
        <tbody>
          {moves.map((m) => (
            <tr key={`${m.at} ${m.left} ${m.by}`}>
              <td className={`num text-right ${m.by < 0 ? "text-stop" : ""}`}>
                {m.by > 0 ? `+${m.by}` : `−${-m.by}`}
              </td>
              <td className="num text-right">{m.left}</td>
              <td>{m.because}</td>
              <td className="whitespace-nowrap text-ink-2">
                {day(m.at.slice(0, 10))}, {m.person}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The boards that may have a piece of it: whom one would write to. */
function BoardsWithIt({ lot: l }: { lot: LotRow }) {
  const { data } = useBoardsWith(l);
  if (!data || data.length === 0) return null;
  return (
    <section aria-label={`Boards that may have ${l.mpn}`} className="mt-2 text-[14px]">
      <p>{saysBoardsWith(data)}</p>
      <ul>
        {data.map((b) => (
          <li key={b.runId} className="flex flex-wrap gap-x-4">
            <Link className="quiet-link" to={`/runs/${b.runId}/build?view=tests`}>
              {b.product} {b.revision}, {b.run}
            </Link>
            <span className="text-ink-2">
              {[
                b.came !== undefined && `${b.came} came`,
                b.taken !== undefined && `${b.taken} taken`,
                `${b.begun} begun`,
                `${b.good} good`,
                b.out > 0 && `${b.out} out`,
              ]
                .filter((x) => x !== false)
                .join(", ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
