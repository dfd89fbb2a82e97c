import {
  isWalked,
  type KitLine,
  kitPieces,
  nextPiece,
  type Piece,
  type PieceMark,
  type PlanOfRun,
  pieceBefore,
  piecesOf,
  type StepStand,
  type StepsDocument,
  stepOfUnit,
  stepStand,
  type TestItem,
  unitOf,
  unitOfStep,
} from "@kobbin/core";
import { type ReactNode, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { BigKey, Frame } from "../../../bench-side/Frame.tsx";
import { useRun } from "../../../run/runState.ts";
import { type KeyBinding, useKeys } from "../../../ui/keys.ts";
import { useSay } from "../../../ui/Toast.tsx";
import { count } from "../../../ui/text/format.ts";
import { Beside } from "./Beside.tsx";
import { Foot } from "./Foot.tsx";
import { KitCard, useKit } from "./KitCard.tsx";
import { PieceCard } from "./PieceCard.tsx";
import { StepWords } from "./StepWords.tsx";
import { TestCard, testName, testPieces } from "./TestCard.tsx";
import { TAKEN, type Taken, takenAs } from "./taken.ts";
import { useBenchKeys } from "./useBenchKeys.ts";
import { usePedal } from "./usePedal.ts";
import { type Sitting, useSitting } from "./useSitting.ts";
import { useTries } from "./useTries.ts";
import { useVoice } from "./useVoice.ts";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];
const NO_TESTS: readonly TestItem[] = [];
const NOTHING_OF: StepStand = { on: 0, doubts: 0, skipped: 0, left: 0, of: 0 };

/** At the bench: one piece, or one step without pieces, at a time; one key each; resumed where one stopped, on any device. */
export function Hands({ plan, onLeave }: { plan: PlanOfRun; onLeave: () => void }) {
  const { doc, record, result } = useRun();
  const [params, setParams] = useSearchParams();
  const { steps } = plan.sheet;
  const unit = Math.max(1, Math.min(result.start, Math.trunc(Number(params.get("unit"))) || 1));
  const asked = steps.find((s) => s.n === Number(params.get("step")));
  const now = asked ?? stepOfUnit(steps, record.sittings ?? [], unit);
  const go: Go = (to) => {
    const next = new URLSearchParams(params);
    if (to.unit !== undefined) next.set("unit", String(to.unit));
    if (to.step === undefined) next.delete("step");
    else next.set("step", String(to.step));
    setParams(next, { replace: true });
  };
  const leave = useMemo<KeyBinding[]>(
    () => [{ keys: "Escape", does: "leave the bench", run: onLeave }],
    [onLeave],
  );
  useKeys(leave, true);
  if (!now)
    return (
      <Frame
        label="At the bench"
        head={<Head unit={unit} go={go} />}
        share={1}
        onLeave={onLeave}
        foot={
          unit < result.start ? (
            <BigKey keys="" look="main" onPress={() => go({ unit: unit + 1 })}>
              on to {unitOf(doc)} {unit + 1}
            </BigKey>
          ) : null
        }
      >
        <p className="text-[28px]">
          Every step of {unitOf(doc)} {unit} is done.
        </p>
      </Frame>
    );
  return <AtStep key={`${unit} ${now.n}`} plan={plan} row={now} unit={unit} go={go} onLeave={onLeave} />;
}

type Go = (to: { unit?: number; step?: number | undefined }) => void;

/** Which board it is, to be changed by hand. */
function Head({ unit, row, of, go }: { unit: number; row?: Row; of?: number; go: Go }) {
  const { doc, result } = useRun();
  return (
    <>
      <label className="flex items-center gap-2 text-[18px] font-semibold">
        {unitOf(doc)}
        <select
          value={unit}
          className="min-h-9 text-[18px]"
          aria-label={`Which ${unitOf(doc)}`}
          onChange={(e) => go({ unit: Number(e.target.value) })}
        >
          {Array.from({ length: result.start }, (_, i) => i + 1).map((u) => (
            <option key={u} value={u}>
              {u}
            </option>
          ))}
        </select>
        <span className="font-normal text-ink-2">of {result.start}</span>
      </label>
      {row && (
        <h1 className="text-[18px]!">
          step {row.n} of {of}: {row.words}
          {row.board ? `, ${row.board}` : ""}
          {row.side ? `, ${row.side}` : ""}
        </h1>
      )}
    </>
  );
}

function AtStep({
  plan,
  row,
  unit,
  go,
  onLeave,
}: {
  plan: PlanOfRun;
  row: Row;
  unit: number;
  go: Go;
  onLeave: () => void;
}) {
  const { doc } = useRun();
  const say = useSay();
  const sitting = useSitting(unitOfStep(row.kind, unit), row.n);
  const { marks } = sitting.sat;
  const kit = useKit(plan, row);
  const tests = row.kind === "test" ? (doc.assembly.tests ?? NO_TESTS) : NO_TESTS;
  const pieces = useMemo(
    () => (isWalked(row.kind) ? piecesOf(row) : [...kitPieces(kit), ...testPieces(tests)]),
    [row, kit, tests],
  );
  const stand = stepStand(pieces, marks);
  // what was said to be laid out or tried as a whole is not asked for one by one
  // an item that is asked for is tried again, whatever it came to before
  const [params, setParams] = useSearchParams();
  const again = pieces.find((p) => p.name === testName({ id: params.get("test") ?? "" }));
  const piece = again ?? (!isWalked(row.kind) && sitting.sat.isDone ? undefined : nextPiece(pieces, marks));
  const tried = () => again && setParams({ view: "tests" }, { replace: true });
  const line = lineOf(plan, row, piece);
  const { steps } = plan.sheet;
  const finish = () => {
    sitting.finish(true);
    const after = steps.find((s) => s.n > row.n);
    go({ step: after?.n });
    if (!after) say(`Step ${row.n} is done, the last one`);
  };
  const back = () => {
    const before = pieceBefore(pieces, marks);
    if (before) sitting.mark(before.name, undefined);
    else if (row.n > 1) go({ step: steps[steps.indexOf(row) - 1]!.n });
  };
  return (
    <Walk
      row={row}
      plan={plan}
      unit={unit}
      piece={piece}
      line={line}
      sitting={sitting}
      kit={kit.find((k) => k.name === piece?.name)}
      test={tests.find((t) => testName(t) === piece?.name)}
      head={<Head unit={unit} row={row} of={steps.length} go={go} />}
      stand={stand}
      onFinish={finish}
      onTried={tried}
      onBack={back}
      onLeave={onLeave}
    />
  );
}

/** The line of a piece: of the step, or of any where everything is laid out. */
const lineOf = (plan: PlanOfRun, row: Row, piece: Piece | undefined): Line | undefined =>
  piece &&
  (row.kind === "kit" ? plan.sheet.steps.flatMap((s) => s.lines) : row.lines).find(
    (l) => l.line === piece.line,
  );

function Walk({
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
  onFinish,
  onTried,
  onBack,
  onLeave,
}: {
  row: Row;
  plan: PlanOfRun;
  unit: number;
  piece: Piece | undefined;
  line: Line | undefined;
  kit: KitLine | undefined;
  test: TestItem | undefined;
  sitting: Sitting;
  head: ReactNode;
  stand: StepStand;
  onFinish: () => void;
  /** An item that was asked for came to something. */
  onTried: () => void;
  onBack: () => void;
  onLeave: () => void;
}) {
  // said to be laid out or tried as a whole: nothing is counted one by one
  const isAllOfIt = !isWalked(row.kind) && sitting.sat.isDone && stand.left > 0;
  const [isPaused, setPaused] = useState(false);
  const [pedal, learn] = usePedal();
  const [hasVoice, setVoice] = useVoice(piece && line ? `${piece.name}. ${line.value}` : row.words);
  const put = (mark: PieceMark) => {
    if (!piece) return;
    sitting.mark(piece.name, mark);
    onTried();
  };
  const tried = useAnswer(unit, test);
  const next = () => {
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
      tried("no");
      put("doubt");
    },
    later: () => put("skipped"),
    lost: lose,
    pause,
    all: onFinish,
  };
  const isTyped = test?.unit !== undefined;
  useBenchKeys(on, { isPaused, piece, pedal, sat: sitting.sat, of: takenAs(row.kind), isTyped });
  return (
    <Frame
      label="At the bench"
      head={
        <>
          {head}
          {!isAllOfIt && <Status stand={stand} of={takenAs(row.kind)} />}
          <span className="text-[14px] text-ink-2">{sitting.isAllSent ? "kept" : "keeping …"}</span>
        </>
      }
      share={isAllOfIt || stand.of === 0 ? (sitting.sat.isDone ? 1 : 0) : stand.on / stand.of}
      onLeave={onLeave}
      foot={
        <Foot
          isPaused={isPaused}
          of={takenAs(row.kind)}
          hasPiece={piece !== undefined}
          isDone={sitting.sat.isDone}
          isTyped={isTyped}
          on={on}
          beside={
            <>
              <button type="button" className="quiet-link" onClick={learn}>
                {pedal ? `pedal: ${pedal}` : "teach a pedal"}
              </button>
              <button
                type="button"
                className="quiet-link"
                aria-pressed={hasVoice}
                onClick={() => setVoice(!hasVoice)}
              >
                {hasVoice ? "it is spoken" : "speak it"}
              </button>
            </>
          }
        />
      }
    >
      {isPaused ? (
        <p className="text-[28px]">
          Paused. {stand.of > 0 ? `${count(stand.of - stand.on, "piece")} left in this step.` : ""}
        </p>
      ) : test ? (
        <TestCard key={test.id} item={test} unit={unit} on={on} onPass={() => put("done")} />
      ) : kit && line ? (
        <KitCard plan={plan} kit={kit} line={line} sitting={sitting} />
      ) : piece && line ? (
        <PieceCard plan={plan} row={row} unit={unit} piece={piece} line={line} sitting={sitting} />
      ) : (
        <StepWords
          row={row}
          stand={isAllOfIt ? NOTHING_OF : stand}
          beside={<Beside plan={plan} row={row} unit={unit} />}
        />
      )}
    </Frame>
  );
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

/** How many are on, left, in doubt. */
function Status({ stand, of }: { stand: StepStand; of: Taken }) {
  if (stand.of === 0) return null;
  return (
    <p className="num text-[18px]" role="status">
      {stand.on} of {stand.of} {TAKEN[of].are}
      {stand.skipped > 0 ? `, ${stand.skipped} left for later` : ""}
      {stand.doubts > 0 ? `, ${stand.doubts} ${TAKEN[of].doubtful}` : ""}
    </p>
  );
}
