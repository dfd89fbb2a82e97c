import {
  IDLE_MIN,
  isOnce,
  kitLines,
  kitPieces,
  LEAST_PACED,
  minutesOf,
  type Pace,
  type PlanOfRun,
  piecesOf,
  type RunSitting,
  stepOfUnit,
  stepStand,
  unitOf,
  unitOfStep,
} from "@kobbin/core";
import { Link } from "react-router";
import { useAtUnit } from "../../../resources/live.ts";
import { useRun } from "../../../run/runState.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { Button } from "../../../ui/Button.tsx";
import { count, fixed } from "../../../ui/text/format.ts";
import { hours } from "../Boards.tsx";
import { useSendLeft } from "./useSitting.ts";

/** How far each board is at the bench, step by step, and the way on. */
export function Batch({
  plan,
  pace,
  onSit,
  mayWrite,
}: {
  plan: PlanOfRun;
  pace: Pace | undefined;
  onSit: (unit: number) => void;
  mayWrite: boolean;
}) {
  const { doc, record, result: r } = useRun();
  useSendLeft();
  const unit = unitOf(doc);
  const sittings = record.sittings ?? [];
  const { steps } = plan.sheet;
  const begun = [...new Set(sittings.flatMap((s) => (s.unit > 0 ? [s.unit] : [])))].sort((a, b) => a - b);
  const open = begun.find((u) => stepOfUnit(steps, sittings, u) !== undefined);
  const fresh = Array.from({ length: r.start }, (_, i) => i + 1).find((u) => !begun.includes(u));
  if (steps.length === 0) return null;
  return (
    <section aria-labelledby="bench-side" className="mt-6">
      <h2 id="bench-side" className="mb-1">
        At the bench
      </h2>
      <p className="mb-2 text-[14.5px] text-ink-2">
        {begun.length === 0
          ? `One piece at a time, one key each, in the order that was released: ${count(steps.length, "step")} a ${unit}.`
          : `${count(begun.length, unit)} of ${r.start} begun, ${hours(minutesOf(sittings))} of work: pauses of more than ${count(IDLE_MIN, "minute")} are not counted. It resumes where one stopped, on any device.`}
      </p>
      <Kit plan={plan} sittings={sittings} />
      {begun.length > 0 && pace && pace.left > 0 && <Left pace={pace} />}
      {mayWrite && (
        <p className="mb-3 flex flex-wrap gap-2">
          {open !== undefined && (
            <Button look="main" onClick={() => onSit(open)}>
              go on with {unit} {open}
            </Button>
          )}
          {fresh !== undefined && (
            <Button look={open === undefined ? "main" : "plain"} onClick={() => onSit(fresh)}>
              begin {unit} {fresh}
            </Button>
          )}
        </p>
      )}
      {begun.length > 0 && (
        <table className="rows w-full text-[14.5px]" aria-label={`Each ${unit} at the bench`}>
          <thead>
            <tr>
              <th>{unit}</th>
              <th>Steps</th>
              <th>Stands at</th>
              <th className="text-right">worked</th>
            </tr>
          </thead>
          <tbody>
            {begun.map((u) => (
              <UnitRow
                key={u}
                unit={u}
                plan={plan}
                sittings={sittings}
                onSit={mayWrite ? () => onSit(u) : undefined}
              />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** What is left at the bench at the pace so far, and what that pace is from. */
function Left({ pace }: { pace: Pace }) {
  const { doc, result: r } = useRun();
  const { hoursPerDay } = doc.workshop;
  const days = hoursPerDay > 0 ? pace.leftMinutes / 60 / hoursPerDay : 0;
  return (
    <p className="mb-2 text-[14.5px]">
      <b className="num">{hours(pace.leftMinutes)}</b> of work left on {pace.boards} of{" "}
      {count(r.start, unitOf(doc))}
      {days >= 0.1 && `, ${fixed(days, 1)} days of ${hoursPerDay} h`}
      <span className="text-ink-2">
        {pace.of === 0
          ? `: as planned, for fewer than ${LEAST_PACED} steps tell of a pace`
          : `: at ${fixed(pace.factor, 2)} × the planned minutes, as ${count(pace.of, "step")} went so far`}
        .
      </span>
    </p>
  );
}

/** How far the parts are laid out, and what of them was short. */
function Kit({ plan, sittings }: { plan: PlanOfRun; sittings: readonly RunSitting[] }) {
  const step = plan.sheet.steps.find((s) => s.kind === "kit");
  const sat = sittings.find((s) => s.unit === 0 && s.step === step?.n);
  if (!step || !sat) return null;
  const lines = kitLines(plan.sheet.steps, () => []);
  const stand = stepStand(kitPieces(lines), sat.marks);
  const short = Object.values(sat.lost).reduce((n, v) => n + v, 0);
  return (
    <p className="mb-2 text-[14.5px]">
      {sat.isDone ? "Everything is laid out" : `${stand.on} of ${count(stand.of, "kind")} laid out`}
      {short > 0 && <span className="text-stop">, {count(short, "piece")} short</span>}.
    </p>
  );
}

function UnitRow({
  unit: u,
  plan,
  sittings,
  onSit,
}: {
  unit: number;
  plan: PlanOfRun;
  sittings: readonly RunSitting[];
  onSit: (() => void) | undefined;
}) {
  const { id, doc } = useRun();
  const serial = useSerial();
  const inHand = useAtUnit(id)(u);
  const { steps } = plan.sheet;
  const own = sittings.filter((s) => s.unit === u);
  const at = stepOfUnit(steps, sittings, u);
  const of = (n: number, kind: string) =>
    sittings.find((s) => s.step === n && s.unit === unitOfStep(kind, u));
  const stand = at && stepStand(piecesOf(at), of(at.n, at.kind)?.marks ?? {});
  const who = inHand.length > 0 ? inHand.join(", ") : at && (of(at.n, at.kind)?.person ?? own.at(-1)?.person);
  const doubts = own.reduce((n, s) => n + Object.values(s.marks).filter((m) => m === "doubt").length, 0);
  return (
    <tr>
      <td className="num">
        {onSit ? (
          <button type="button" className="quiet-link" onClick={onSit}>
            {u}
          </button>
        ) : (
          u
        )}{" "}
        <Link
          to={`?view=board&unit=${u}`}
          className="quiet-link text-[13px]"
          aria-label={`Passport of ${unitOf(doc)} ${u}`}
        >
          {serial(u) ?? "passport"}
        </Link>
      </td>
      <td>
        <span
          className="flex flex-wrap gap-[3px] max-[480px]:w-[68px]"
          role="img"
          aria-label={saysSteps(steps, (s) => of(s.n, s.kind)?.isDone)}
        >
          {steps.map((s) => (
            <span
              key={s.n}
              title={`${s.n} ${s.words}`}
              className={`inline-block h-[14px] w-[14px] border-[1.5px] ${of(s.n, s.kind)?.isDone ? "border-fine bg-fine" : s === at ? "border-metal bg-metal-soft" : "border-rule"} ${isOnce(s.kind) ? "rounded-full" : ""}`}
            />
          ))}
        </span>
      </td>
      <td>
        {at
          ? `${at.n} ${at.words}${at.side ? `, ${at.side}` : ""}${stand && stand.of > 0 && stand.on > 0 ? `: ${stand.on} of ${stand.of}` : ""}`
          : "all steps done"}
        {doubts > 0 && <span className="text-look">, {doubts} in doubt</span>}
        {who && (
          <span className={`block text-[13px] ${inHand.length > 0 ? "" : "text-ink-2"}`}>
            {inHand.length > 0 ? `${who}, now` : who}
          </span>
        )}
      </td>
      <td className="num whitespace-nowrap text-right">{hours(minutesOf(own))}</td>
    </tr>
  );
}

const saysSteps = <S,>(steps: readonly S[], isDone: (s: S) => boolean | undefined): string =>
  `${steps.filter((s) => isDone(s)).length} of ${steps.length} steps done`;
