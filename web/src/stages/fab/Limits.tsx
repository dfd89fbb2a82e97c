import { checksByRoom, type RunResult, roomOf } from "@kobbin/core";
import { Link } from "react-router";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { Sum } from "../../ui/Sum.tsx";
import { count, mm, written } from "../../ui/text/format.ts";
import { onBoard } from "./onBoard.ts";

type Check = RunResult["checks"][number];
const WORDS = { fine: "fine", tight: "tight", look: "look", cannot: "cannot" } as const;
const W = 200;

/** What was measured against the chosen house's limits: one bar of room a limit, the tightest first. */
export function Limits({ checks }: { checks: RunResult["checks"] }) {
  const { doc } = useRun();
  const several = doc.boards.length > 1;
  const sorted = checksByRoom(checks);
  const odd = sorted.filter((c) => c.level !== "fine").length;
  const [tightest] = sorted;
  return (
    <Fold
      id="limits"
      title={several ? "These boards against its limits" : "This board against its limits"}
      verdict={`${count(checks.length, "limit")}, ${odd === 0 ? "all with room" : `${odd} ${odd === 1 ? "wants" : "want"} a look`}${tightest ? `; tightest: ${tightest.label}, ${roomWords(tightest)}` : ""}`}
      isOpen={sorted.some((c) => c.level === "cannot")}
    >
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Measured</th>
            <th>
              <span className="sr-only">Room, drawn</span>
              <span aria-hidden className="flex w-[200px] justify-between font-normal">
                <span>too little</span>
                <span>limit</span>
                <span>twice it</span>
              </span>
            </th>
            <th className="text-right">Room</th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((c) => (
            <Row key={`${c.measure}${c.label}${c.board ?? ""}`} check={c} several={several} />
          ))}
        </tbody>
      </table>
    </Fold>
  );
}

const roomWords = (c: Check) => {
  const room = roomOf(c);
  return room === undefined ? WORDS[c.level] : `${Math.round(100 * room)} % of room`;
};

function Row({ check: c, several }: { check: Check; several: boolean }) {
  const { id, doc } = useRun();
  const name = doc.boards.find((b) => b.id === c.board)?.name;
  return (
    <tr>
      <td>
        {c.at ? (
          <Link className="why" to={onBoard(id, doc, c)!}>
            {c.label}
          </Link>
        ) : (
          c.label
        )}
        {several && <span className="text-ink-3"> {name}</span>}
        <span className="num block text-[12.5px] text-ink-2">
          {mm(c.value)} of {written(String(c.limit))}
        </span>
      </td>
      <td>
        <Bar check={c} />
      </td>
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
          {WORDS[c.level]}
          {c.extra && `, +${Math.round(100 * c.extra.uplift)} % below ${written(String(c.extra.below))}`}
        </span>
      </td>
    </tr>
  );
}

/** From the limit, in the middle, to what was measured: right of it is room, left of it there is none. */
function Bar({ check: c }: { check: Check }) {
  const room = roomOf(c);
  if (room === undefined) return null;
  const x = W / 2 + Math.max(-1, Math.min(1, room)) * (W / 2 - 4);
  const tone = c.level === "cannot" ? "var(--stop)" : c.level === "fine" ? "var(--fine)" : "var(--look)";
  return (
    <svg width={W} height="16" viewBox={`0 0 ${W} 16`} aria-hidden className="block">
      <rect x="0" y="3" width={W / 2} height="10" fill="var(--stop-soft)" />
      <path d={`M${W / 2} 8H${x}`} stroke={tone} strokeWidth="6" />
      <path d={`M${W / 2} 1V15`} stroke="var(--ink-2)" strokeWidth="1.5" />
      <circle cx={x} cy="8" r="3.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      {Math.abs(room) > 1 && (
        <path d={room > 0 ? `M${W - 7} 4l5 4l-5 4` : "M7 4l-5 4l5 4"} fill="none" stroke="var(--ink)" />
      )}
    </svg>
  );
}
