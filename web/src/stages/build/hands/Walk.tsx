import {
  isNoPiece,
  isWalked,
  type KitLine,
  type Piece,
  type PieceMark,
  type PlanOfRun,
  type StepStand,
  type StepsDocument,
  type TestItem,
  type ToolAtHand,
} from "@kobbin/core";
import { type ReactNode, useState } from "react";
import { Frame } from "../../../bench-side/Frame.tsx";
import { InHand } from "../../../run/InHand.tsx";
import { useRun } from "../../../run/runState.ts";
import { count } from "../../../ui/text/format.ts";
import { EyeCard } from "../eye/EyeCard.tsx";
import { LoadCard } from "../images/LoadCard.tsx";
import { loadOf } from "../images/loadModel.ts";
import { type Loading, useLoad } from "../images/useLoad.ts";
import { Beside } from "./Beside.tsx";
import { FaultPad } from "./FaultPad.tsx";
import { Foot } from "./Foot.tsx";
import { KitCard } from "./KitCard.tsx";
import { PieceCard } from "./PieceCard.tsx";
import { StepWords } from "./StepWords.tsx";
import { TestCard } from "./TestCard.tsx";
import { TAKEN, type Taken, takenAs } from "./taken.ts";
import { WithWhat } from "./tools/WithWhat.tsx";
import { type Presses, useBenchKeys } from "./useBenchKeys.ts";
import { usePedal } from "./usePedal.ts";
import type { Sitting } from "./useSitting.ts";
import { useTries } from "./useTries.ts";
import { useVoice } from "./useVoice.ts";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];
const NOTHING_OF: StepStand = { on: 0, doubts: 0, skipped: 0, left: 0, of: 0 };

interface WalkProps {
  readonly row: Row;
  readonly plan: PlanOfRun;
  readonly unit: number;
  readonly piece: Piece | undefined;
  readonly line: Line | undefined;
  readonly kit: KitLine | undefined;
  readonly test: TestItem | undefined;
  readonly sitting: Sitting;
  readonly head: ReactNode;
  readonly stand: StepStand;
  /** With what it is done. */
  readonly tools: readonly ToolAtHand[];
  readonly onFinish: () => void;
  /** An item that was asked for came to something. */
  readonly onTried: () => void;
  readonly onBack: () => void;
  readonly onLeave: () => void;
}

/** A step as it is walked: what is done now, how far it is, the keys. */
export function Walk({
  row,
  plan,
  unit,
  piece,
  line,
  kit,
  test,
  sitting,
  head,
  stand,
  tools,
  onFinish,
  onTried,
  onBack,
  onLeave,
}: WalkProps) {
  // said to be laid out or tried as a whole: nothing is counted one by one
  const isAllOfIt = !isWalked(row.kind) && sitting.sat.isDone && stand.left > 0;
  const { doc } = useRun();
  const [isPaused, setPaused] = useState(false);
  const [isNoting, setNoting] = useState(false);
  const [pedal, learn] = usePedal();
  const [hasVoice, setVoice] = useVoice(spokenOf(row, piece, line));
  const put = (mark: PieceMark) => {
    if (!piece) return;
    sitting.mark(piece.name, mark);
    onTried();
  };
  const tried = useAnswer(unit, test);
  const found = loadOf(piece?.name, doc.assembly.images);
  const load = useLoad(found?.image, found?.chip ?? unit);
  const next = () => {
    if (found && load.answer(true)?.is !== "right") return;
    tried("yes");
    return piece ? put("done") : onFinish();
  };
  const lose = () => line && sitting.lose(line.line);
  const pause = () => {
    setPaused(!isPaused);
    if (!isPaused) sitting.pause();
  };
  const on = {
    next,
    back: onBack,
    doubt: () => {
      if (found && load.answer(false)?.is === "refused") return;
      tried("no");
      put("doubt");
    },
    later: () => put("skipped"),
    lost: lose,
    pause,
    all: onFinish,
    fault: () => setNoting(true),
  };
  const isTyped = test?.unit !== undefined;
  useBenchKeys(on, { isPaused, piece, pedal, sat: sitting.sat, of: takenAs(row.kind), isTyped, isNoting });
  return (
    <Frame
      label="At the bench"
      head={
        <>
          {head}
          <Status stand={isAllOfIt ? NOTHING_OF : stand} of={takenAs(row.kind)} sitting={sitting} />
        </>
      }
      share={isAllOfIt || stand.of === 0 ? (sitting.sat.isDone ? 1 : 0) : stand.on / stand.of}
      onLeave={onLeave}
      foot={
        isNoting ? null : (
          <Foot
            isPaused={isPaused}
            of={takenAs(row.kind)}
            hasPiece={piece !== undefined}
            isDone={sitting.sat.isDone}
            isTyped={isTyped}
            on={on}
            beside={
              <ByEar pedal={pedal} onLearn={learn} hasVoice={hasVoice} onVoice={() => setVoice(!hasVoice)} />
            }
          />
        )
      }
    >
      {isNoting ? (
        <FaultPad
          unit={unit}
          step={row.n}
          at={isWalked(row.kind) ? (piece?.name ?? "") : ""}
          onDone={() => setNoting(false)}
        />
      ) : isPaused ? (
        <p className="text-[28px]">
          Paused. {stand.of > 0 ? `${count(stand.of - stand.on, "piece")} left in this step.` : ""}
        </p>
      ) : (
        <>
          <InHand kind={row.kind} isBad className="mb-3 border-l-4 border-stop px-3 text-[18px]" />
          <WithWhat hand={tools} onUse={sitting.use} />
          <What
            plan={plan}
            row={row}
            unit={unit}
            piece={piece}
            line={line}
            kit={kit}
            test={test}
            load={found && { load, chip: found.chip }}
            sitting={sitting}
            stand={isAllOfIt ? NOTHING_OF : stand}
            on={on}
            onPass={() => put("done")}
            onLeave={onLeave}
          />
        </>
      )}
    </Frame>
  );
}

/** What is said aloud of what is next: a mark of something that is no piece is no word. */
const spokenOf = (row: Row, piece: Piece | undefined, line: Line | undefined): string =>
  piece && line ? [...(isNoPiece(piece.name) ? [] : [piece.name]), line.value].join(". ") : row.words;

/** A pedal that is taught, and whether what is next is spoken. */
function ByEar({
  pedal,
  onLearn,
  hasVoice,
  onVoice,
}: {
  pedal: string | undefined;
  onLearn: () => void;
  hasVoice: boolean;
  onVoice: () => void;
}) {
  return (
    <>
      <button type="button" className="quiet-link" onClick={onLearn}>
        {pedal ? `pedal: ${pedal}` : "teach a pedal"}
      </button>
      <button type="button" className="quiet-link" aria-pressed={hasVoice} onClick={onVoice}>
        {hasVoice ? "it is spoken" : "speak it"}
      </button>
    </>
  );
}

/** What is done now: one thing that is tried, laid out or put on, or the step as a whole. */
function What({
  plan,
  row,
  unit,
  piece,
  line,
  kit,
  test,
  load,
  sitting,
  stand,
  on,
  onPass,
  onLeave,
}: Pick<
  WalkProps,
  "onLeave" | "plan" | "row" | "unit" | "piece" | "line" | "kit" | "test" | "sitting" | "stand"
> & {
  on: Presses;
  /** An image that is loaded now, and into which loose chip. */
  load: { readonly load: Loading; readonly chip: number | undefined } | undefined;
  onPass: () => void;
}) {
  if (load) return <LoadCard load={load.load} chip={load.chip} onRight={onPass} />;
  if (test)
    return <TestCard key={test.id} item={test} unit={unit} on={on} onPass={onPass} onLeave={onLeave} />;
  if (kit && line) return <KitCard plan={plan} kit={kit} line={line} sitting={sitting} />;
  if (piece && row.kind === "inspect")
    return <EyeCard line={piece.line} unit={unit} step={row} row={line} sheet={plan.sheet} />;
  if (piece && line)
    return <PieceCard plan={plan} row={row} unit={unit} piece={piece} line={line} sitting={sitting} />;
  return <StepWords row={row} stand={stand} beside={<Beside plan={plan} row={row} unit={unit} />} />;
}

const NO_TEST: TestItem = {
  id: "",
  name: "",
  state: "bare",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 0,
};
/** Keeps the answer to an item of the plan that a press gives; a reading is kept where it is typed, and what failed is kept once. */
function useAnswer(unit: number, test: TestItem | undefined) {
  const { tries, answer } = useTries(unit, test ?? NO_TEST);
  return (says: "yes" | "no") => {
    const isKept = test?.unit !== undefined && (says === "yes" || tries.at(-1)?.verdict === "fail");
    if (test && !isKept) answer({ says }, "");
  };
}

/** How many are on, left, in doubt, and whether the server has it. */
function Status({ stand, of, sitting }: { stand: StepStand; of: Taken; sitting: Sitting }) {
  return (
    <>
      {stand.of > 0 && (
        <p className="num text-[18px]" role="status">
          {stand.on} of {stand.of} {TAKEN[of].are}
          {stand.skipped > 0 ? `, ${stand.skipped} left for later` : ""}
          {stand.doubts > 0 ? `, ${stand.doubts} ${TAKEN[of].doubtful}` : ""}
        </p>
      )}
      <span className="text-[14px] text-ink-2">{sitting.isAllSent ? "kept" : "keeping …"}</span>
    </>
  );
}
