import type { LotRow } from "@kobbin/contract";
import {
  eyePieces,
  isWalked,
  type KitLine,
  kitPieces,
  nextPiece,
  type Piece,
  type PlanOfRun,
  pieceBefore,
  piecesOf,
  readBag,
  type StepsDocument,
  stepOfUnit,
  stepStand,
  type TestItem,
  unitOf,
  unitOfStep,
} from "@kobbin/core";
import { type RefObject, useEffect, useMemo, useRef } from "react";
import { useSearchParams } from "react-router";
import { BigKey, Frame } from "../../../bench-side/Frame.tsx";
import { useLots } from "../../../resources/library.ts";
import { useAtUnit } from "../../../resources/live.ts";
import { useRun } from "../../../run/runState.ts";
import { useSerial, useUnitOf } from "../../../run/useSerial.ts";
import { type KeyBinding, useKeys, useScans } from "../../../ui/keys.ts";
import { useSay } from "../../../ui/toast/Toast.tsx";
import { loadPieces } from "../images/loadModel.ts";
import { bagAtKit } from "./bagAtKit.ts";
import { useKit } from "./KitCard.tsx";
import { testName, testPieces } from "./TestCard.tsx";
import { useTools } from "./tools/useTools.ts";
import { type Sitting, useSitting } from "./useSitting.ts";
import { Walk } from "./Walk.tsx";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];
const NO_TESTS: readonly TestItem[] = [];

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
  // a bag is told to the step at hand, which knows what is laid out
  const onBag = useRef<(number: number) => void>(undefined);
  const scanned = useScanned(go, onBag);
  useScans(scanned);
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
  return (
    <AtStep
      key={`${unit} ${now.n}`}
      plan={plan}
      row={now}
      unit={unit}
      go={go}
      onBag={onBag}
      onLeave={onLeave}
    />
  );
}

type OnBag = RefObject<((number: number) => void) | undefined>;

/** A label that is scanned brings its board, where it stands; one of a bag lays out what is in it. */
function useScanned(go: Go, onBag: OnBag): (text: string) => boolean {
  const unitNamed = useUnitOf();
  const say = useSay();
  return (text) => {
    const bag = readBag(text);
    if (bag !== undefined && onBag.current) {
      onBag.current(bag);
      return true;
    }
    const found = unitNamed(text);
    if ("unit" in found) go({ unit: found.unit, step: undefined });
    else say(found.wrong, { isProblem: true, hint: "Nothing was pressed by it." });
    return "unit" in found;
  };
}

type Go = (to: { unit?: number; step?: number | undefined }) => void;

/** Which board it is, to be changed by hand. */
function Head({ unit, row, of, go }: { unit: number; row?: Row; of?: number; go: Go }) {
  const { id, doc, result } = useRun();
  const serial = useSerial();
  const others = useAtUnit(id)(unit);
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
        <span className="num text-[15px] font-normal max-sm:hidden">{serial(unit)}</span>
      </label>
      {others.length > 0 && (
        <span aria-live="polite" className="text-[15px] text-look">
          {others.join(", ")} {others.length === 1 ? "has" : "have"} it in hand too
        </span>
      )}
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
  onBag,
  onLeave,
}: {
  plan: PlanOfRun;
  row: Row;
  unit: number;
  go: Go;
  onBag: OnBag;
  onLeave: () => void;
}) {
  const { doc, result } = useRun();
  const say = useSay();
  const sitting = useSitting(unitOfStep(row.kind, unit), row.n);
  const { marks } = sitting.sat;
  const kit = useKit(plan, row);
  const [params, setParams] = useSearchParams();
  const asked = params.get("test");
  const tests = useMemo(
    () =>
      row.kind === "test"
        ? // what is tried besides the bench is there when it is asked for
          (doc.assembly.tests ?? NO_TESTS).filter((t) => !t.besides || t.id === asked)
        : NO_TESTS,
    [row.kind, doc.assembly.tests, asked],
  );
  const pieces = useMemo(
    () =>
      isWalked(row.kind)
        ? piecesOf(row)
        : [
            ...kitPieces(kit),
            ...testPieces(tests),
            ...loadPieces(doc.assembly, row, result.start),
            ...(row.kind === "inspect" ? eyePieces(result.parts) : []),
          ],
    [row, kit, tests, doc.assembly, result.start, result.parts],
  );
  useBags(onBag, kit, sitting);
  const tools = useTools(row.kind, unit, sitting.sat.used);
  const stand = stepStand(pieces, marks);
  // what was said to be laid out or tried as a whole is not asked for one by one
  // an item that is asked for is tried again, whatever it came to before
  const again = pieces.find((p) => p.name === testName({ id: asked ?? "" }));
  const piece = again ?? (!isWalked(row.kind) && sitting.sat.isDone ? undefined : nextPiece(pieces, marks));
  const tried = () => again && setParams({ view: "tests" }, { replace: true });
  const line = lineOf(plan, row, piece);
  const { steps } = plan.sheet;
  const finish = () => {
    sitting.finish(true, tools.used);
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
      tools={tools.hand}
      onFinish={finish}
      onTried={tried}
      onBack={back}
      onLeave={onLeave}
    />
  );
}

/** A bag that is scanned while things are laid out is a press for its kind, or says what it is. */
function useBags(onBag: OnBag, kit: readonly KitLine[], sitting: Sitting): void {
  const { id, doc, record } = useRun();
  const { data: lots, error } = useLots();
  const say = useSay();
  /** Scanned before the shelf was read: taken when it is. */
  const early = useRef<number>(undefined);
  useEffect(() => {
    const take = (number: number, shelf: readonly LotRow[]) => {
      const bag = bagAtKit(number, shelf, kit, { doc, record, runId: id }, sitting.sat.marks);
      if ("wrong" in bag) return say(bag.wrong, { isProblem: true, hint: "Nothing was pressed by it." });
      if (bag.isAgain) return say(`${bag.lot.mpn} is laid out already`);
      sitting.mark(bag.kind.name, "done");
      say(`${bag.lot.mpn} laid out${bag.lot.place ? ` from ${bag.lot.place}` : ""}`);
    };
    onBag.current = (number) => {
      if (lots) return take(number, lots);
      if (error)
        return say("The shelf cannot be read at the moment.", {
          isProblem: true,
          hint: "Nothing was pressed by it: scan it again.",
        });
      early.current = number;
    };
    if (lots && early.current !== undefined) {
      const number = early.current;
      early.current = undefined;
      take(number, lots);
    }
    return () => {
      onBag.current = undefined;
    };
  });
}

/** The line of a piece: of the step, or of any where everything is laid out or looked at. */
const lineOf = (plan: PlanOfRun, row: Row, piece: Piece | undefined): Line | undefined =>
  piece &&
  (row.kind === "kit" || row.kind === "inspect" ? plan.sheet.steps.flatMap((s) => s.lines) : row.lines).find(
    (l) => l.line === piece.line,
  );
