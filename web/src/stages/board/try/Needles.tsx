import type { Probe, ProbePoint } from "@kobbin/core";
import { useMemo } from "react";
import { Proof } from "../../../proof/Proof.tsx";
import { useRun } from "../../../run/runState.ts";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";

/** Both places of a statement, large enough for arm's length, and where they are on the board. */
export function Needles({
  view: v,
  board,
  probe,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  probe: Probe;
}) {
  const { result } = useRun();
  const { extentMm } = v.board.measure;
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const places = useMemo(
    () => [
      { ...probe.a, name: "A" },
      { ...probe.b, name: "B" },
    ],
    [probe],
  );
  if (!board || !extentMm) return <div className="skeleton h-[290px] border border-rule" />;
  const look = { board, box: extentMm, mask, finish, legend, isSized: undefined };
  const isTurned = probe.a.layer !== probe.b.layer;
  return (
    <div className="flex gap-2 max-md:flex-col">
      {(["a", "b"] as const).map((which) => (
        <Needle key={which} which={which} point={probe[which]} look={look} isTurned={isTurned} />
      ))}
      <div className="w-[30%] max-md:hidden">
        <Proof
          {...look}
          side={probe.a.layer}
          places={places}
          height={290}
          label="Both places on the whole board"
          hasDimensions={false}
        />
      </div>
    </div>
  );
}

function Needle({
  which,
  point,
  look,
  isTurned,
}: {
  which: "a" | "b";
  point: ProbePoint;
  look: Omit<Parameters<typeof Proof>[0], "side">;
  isTurned: boolean;
}) {
  const { x, y, layer, pad } = point;
  const focus = useMemo(() => ({ x, y, key: `${x} ${y} ${layer}` }), [x, y, layer]);
  return (
    <figure className="min-w-0 flex-1">
      <div className="max-md:h-[190px] max-md:overflow-hidden">
        <Proof {...look} side={layer} focus={focus} height={290} label={`Place ${which.toUpperCase()}`} />
      </div>
      <figcaption className="mt-1 flex items-baseline gap-2">
        <b className="text-[22px] leading-none">{which.toUpperCase()}</b>
        <span className="num text-[19px] font-bold">{pad ?? `${x.toFixed(1)} / ${y.toFixed(1)}`}</span>
        <span className={`text-[14px] ${isTurned ? "font-bold text-look" : "text-ink-2"}`}>
          on the {layer}
        </span>
      </figcaption>
    </figure>
  );
}
