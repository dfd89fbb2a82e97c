import type { ProbeDocument } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { type KeyBinding, useKeys } from "../../../ui/keys.ts";
import { Failed, Skeleton } from "../../../ui/States.tsx";
import { Tab } from "../../../ui/Tab.tsx";
import { count } from "../../../ui/text/format.ts";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { KeepTrial } from "./KeepTrial.tsx";
import { Needles } from "./Needles.tsx";
import { PrintedList } from "./PrintedList.tsx";
import { Question } from "./Question.tsx";
import { type Answers, faultsOf, keepAnswers, keptAnswers } from "./trial.ts";
import { useProbing } from "./useProbing.ts";

/** An answer given before the list is there is none, and means nothing else either. */
const TOO_EARLY: readonly KeyBinding[] = ["y", "n"].map((keys) => ({
  keys,
  does: "answers, once the list is there",
  run: () => undefined,
}));
const NONE: readonly KeyBinding[] = [];

const MINUTES = [2, 5, 10, 20] as const;

/** A bare board under the needles: one statement at a time, the meter's answer by one key, kept with the delivery it is of. */
export function TryBare({ view: v, board }: { view: BoardView; board: BoardConnection | undefined }) {
  const { list, error } = useProbing(v.boardId, v.minutes);
  useKeys(list ? NONE : TOO_EARLY, true);
  const { life } = useRun();
  return (
    <div>
      {life === "closed" && (
        <p className="mb-2 text-[14.5px] text-look">
          The run is closed: a board can be tried, and what comes of it is not kept.
        </p>
      )}
      <div className="no-print mb-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[14.5px]">
        <span className="text-ink-2">Time for a board</span>
        {MINUTES.map((m) => (
          <Tab
            key={m}
            isOn={v.minutes === m}
            onClick={() => v.set({ minutes: m === 5 ? undefined : String(m) })}
          >
            <span className="num">{m} min</span>
          </Tab>
        ))}
        {list && list.probes.length > 0 && (
          <button type="button" className="quiet-link ml-auto" onClick={() => window.print()}>
            print the list
          </button>
        )}
      </div>
      {error ? (
        <Failed error={error} />
      ) : !list ? (
        <Skeleton rows={6} label="Working out what to try" />
      ) : list.reason !== undefined || list.probes.length === 0 ? (
        <p className="text-ink-2">
          {list.reason ?? "There is nothing on this board that two needles could try."}
        </p>
      ) : (
        <Walk key={`${v.boardId} ${v.minutes}`} list={list} view={v} board={board} />
      )}
    </div>
  );
}

function Walk({
  list,
  view: v,
  board,
}: {
  list: ProbeDocument;
  view: BoardView;
  board: BoardConnection | undefined;
}) {
  const { doc } = useRun();
  const { probes } = list;
  const [answers, setAnswers] = useState<Answers>(() => keptAnswers(v.boardId, probes));
  const [isEnough, setEnough] = useState(false);
  const at = answers.length;
  const probe = isEnough ? undefined : probes[at];
  const put = (next: Answers) => {
    setAnswers(next);
    keepAnswers(v.boardId, probes, next);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: put only closes over the list
  const bindings = useMemo(
    () => [
      ...(probe
        ? [
            { keys: "y", does: "it beeps", run: () => put([...answers, true]) },
            { keys: "n", does: "it is silent", run: () => put([...answers, false]) },
          ]
        : []),
      {
        keys: "Backspace",
        does: "back to the statement before",
        run: () => {
          setEnough(false);
          put(answers.slice(0, -1));
        },
      },
    ],
    [probe, answers],
  );
  useKeys(bindings, true);
  const faults = faultsOf(probes, answers);
  return (
    <>
      <div className="no-print">
        {probe && <Needles view={v} board={board} probe={probe} />}
        {probe ? (
          <Question
            probe={probe}
            index={at}
            probes={probes}
            answers={answers}
            onAnswer={(beeped) => put([...answers, beeped])}
            onBack={at === 0 ? undefined : () => put(answers.slice(0, -1))}
            onEnough={at === 0 ? undefined : () => setEnough(true)}
          />
        ) : (
          <KeepTrial
            view={v}
            tried={at}
            faults={faults}
            onAgain={() => {
              setEnough(false);
              put([]);
            }}
          />
        )}
        <Covers list={list} />
      </div>
      <PrintedList
        list={list}
        title={`${doc.product} ${doc.revision}${doc.boards.length > 1 ? `, ${v.board.name}` : ""}`}
      />
    </>
  );
}

/** What the list tries, what it leaves, and what was taken as given. */
function Covers({ list: { probes, minutes, covers: c, outOfReach, findings } }: { list: ProbeDocument }) {
  const left = [
    c.ofNets > c.nets && count(c.ofNets - c.nets, "net"),
    c.ofPairs > c.pairs && `${count(c.ofPairs - c.pairs, "pair")} of neighbours`,
  ].filter(Boolean);
  return (
    <p className="mt-3 max-w-[86ch] text-[14px] text-ink-2">
      {count(probes.length, "statement")}, about {minutes} min at 11 s each: {c.nets} of{" "}
      {count(c.ofNets, "net")} from end to end, {c.pairs} of {count(c.ofPairs, "pair")} apart.{" "}
      {left.length > 0 && `It leaves ${left.join(" and ")}. `}
      {outOfReach.length > 0 &&
        `Out of reach: ${outOfReach.slice(0, 6).join(", ")}${outOfReach.length > 6 ? ` and ${outOfReach.length - 6} more` : ""}. No needle finds two bare places of them. `}
      {findings.map((f) => `${f.text} `)}
    </p>
  );
}
