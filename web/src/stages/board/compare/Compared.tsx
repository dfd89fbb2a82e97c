import { useMemo, useState } from "react";
import { useBoardWorker } from "../../../proof/useBoardWorker.ts";
import { useRevision } from "../../../resources/bench.ts";
import { useRun } from "../../../run/runState.ts";
import { useKeys } from "../../../ui/keys.ts";
import { Failed, Skeleton } from "../../../ui/States.tsx";
import { Tab } from "../../../ui/Tab.tsx";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { TwoBoards, type Way } from "./TwoBoards.tsx";
import { type Measured, useComparison } from "./useComparison.ts";
import { type Shown, Verdicts } from "./Verdicts.tsx";

/** This revision's board against the same one of another: both pictures as one, what changed, and what follows from it. */
export function Compared({
  view: v,
  board,
  revisionId,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  revisionId: string;
}) {
  const { answer } = useRun();
  const { data: other, error } = useRevision(revisionId);
  const isSister = other !== undefined && other.productId !== answer.productId;
  const was = other?.boards[isSister ? Math.min(v.index, other.boards.length - 1) : v.index];
  if (error) return <Failed error={error} />;
  if (!other) return <Skeleton rows={8} label="Fetching the other revision" />;
  if (!was) return <p className="text-ink-2">Revision {other.label} has no such board.</p>;
  return (
    <Both
      key={`${v.boardId} ${was.id}`}
      view={v}
      board={board}
      label={isSister ? `${other.product} ${other.label}` : other.label}
      isSister={isSister}
      revisionId={revisionId}
      was={was}
    />
  );
}

function Both({
  view: v,
  board,
  label,
  isSister,
  revisionId,
  was,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  label: string;
  /** It is of another product. */
  isSister: boolean;
  revisionId: string;
  was: Measured;
}) {
  const { doc, result } = useRun();
  const now = useMemo(() => ({ id: v.boardId, measure: v.board.measure }), [v.boardId, v.board.measure]);
  const { found, error } = useComparison(now, was);
  const other = useBoardWorker(was.id, "against");
  const [shown, setShown] = useState<Shown>();
  const [way, setWay] = useState<Way>({ kind: "over", share: 1 });
  const bindings = useMemo(
    () => [
      {
        keys: "x",
        does: "the one revision, then the other, at one place",
        run: () => setWay((w) => ({ kind: "over", share: w.kind === "over" && w.share > 0.5 ? 0 : 1 })),
      },
    ],
    [],
  );
  useKeys(bindings);
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const box = v.board.measure.extentMm ?? was.measure.extentMm;
  const names = [`${doc.product} ${doc.revision}`, isSister ? label : `${doc.product} ${label}`] as const;
  const places = useMemo(
    () =>
      found
        ? Object.entries(found.diff.places).flatMap(([key, list]) => (isOn(key, v.side) ? list : []))
        : [],
    [found, v.side],
  );
  if (error ?? other.error) return <Failed error={error ?? other.error} />;
  return (
    <section aria-label={`Against revision ${label}`}>
      <div className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-[14.5px]">
        <Tab isOn={way.kind === "over"} onClick={() => setWay({ kind: "over", share: 1 })}>
          laid over
        </Tab>
        <Tab isOn={way.kind === "beside"} onClick={() => setWay({ kind: "beside" })}>
          side by side
        </Tab>
        <Tab
          isOn={v.side === "bottom"}
          onClick={() => v.set({ side: v.side === "top" ? "bottom" : undefined })}
        >
          bottom
        </Tab>
        {way.kind === "over" && (
          <label className="ml-auto flex items-center gap-2 text-ink-2">
            {label}
            <input
              type="range"
              min={0}
              max={100}
              aria-label={`How much of ${names[0]} is seen over ${names[1]}`}
              className="w-44 !p-0 accent-metal"
              value={Math.round(way.share * 100)}
              onChange={(e) => setWay({ kind: "over", share: Number(e.target.value) / 100 })}
            />
            {doc.revision}
            <kbd className="text-[13px]">X</kbd>
          </label>
        )}
      </div>
      {board && other.board && box ? (
        <TwoBoards
          now={board}
          was={other.board}
          names={names}
          box={box}
          shift={found?.diff.shift ?? [0, 0]}
          side={v.side}
          look={{ mask, finish, legend }}
          way={way}
          focus={shown}
          places={shown ? [] : places}
        />
      ) : (
        <div className="skeleton h-[400px] border border-rule" />
      )}
      {found ? (
        <Verdicts
          found={found}
          label={label}
          isSister={isSister}
          revisionId={revisionId}
          measure={v.board.measure}
          was={was.measure}
          shown={shown?.key}
          onShow={(s, side) => {
            setShown(s);
            if (side && side !== v.side) v.set({ side: side === "top" ? undefined : side });
          }}
        />
      ) : (
        <Skeleton rows={4} label="Comparing layer by layer" />
      )}
    </section>
  );
}

/** Whether a layer is seen from a side: what goes through the board is seen from both. */
const isOn = (key: string, side: "top" | "bottom") => !/top|bottom/.test(key) || key.endsWith(side);
