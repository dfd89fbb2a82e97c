import type { MeasurePoint, RunBoard } from "@kobbin/core";
import { useEffect, useState } from "react";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import type { ToPicture } from "../../../proof/drawnParts.ts";

const WIDE = [560, 400] as const;
const NARROW = [340, 240] as const;
const QUERY = "(max-width: 700px)";

/** The board with the place where the calliper goes: jaws at both ends of a length, a ring about a hole or a slot. */
export function CalliperPicture({ board, point }: { board: RunBoard; point: MeasurePoint | undefined }) {
  const [isNarrow, setNarrow] = useState(() => window.matchMedia(QUERY).matches);
  useEffect(() => {
    const q = window.matchMedia(QUERY);
    const on = () => setNarrow(q.matches);
    q.addEventListener("change", on);
    return () => q.removeEventListener("change", on);
  }, []);
  return (
    <DrawnBoard board={board} side="top" size={isNarrow ? NARROW : WIDE}>
      {(to) => point && <Jaws point={point} to={to} />}
    </DrawnBoard>
  );
}

const LINE = { stroke: "var(--metal)", strokeWidth: 4, fill: "none" } as const;
const UNDER = { stroke: "var(--sheet)", strokeWidth: 8, fill: "none" } as const;

function Jaws({ point: { from, to: end }, to }: { point: MeasurePoint; to: ToPicture }) {
  if (!from) return null;
  const [x, y] = to(from);
  if (!end)
    return (
      <>
        <circle cx={x} cy={y} r="20" {...UNDER} />
        <circle cx={x} cy={y} r="20" {...LINE} />
        <path d={`M${x - 34} ${y}h10M${x + 24} ${y}h10M${x} ${y - 34}v10M${x} ${y + 24}v10`} {...LINE} />
      </>
    );
  const [x1, y1] = to(end);
  const isLevel = Math.abs(y1 - y) < Math.abs(x1 - x);
  const jaw = (px: number, py: number) => (isLevel ? `M${px} ${py - 26}v52` : `M${px - 26} ${py}h52`);
  const d = `M${x} ${y}L${x1} ${y1}${jaw(x, y)}${jaw(x1, y1)}`;
  return (
    <>
      <path d={d} {...UNDER} />
      <path d={d} {...LINE} />
    </>
  );
}
