import {
  firstPassOf,
  type ItemSum,
  limitText,
  type PlanOfRun,
  standsOfUnit,
  sumsOfItems,
  type TestItem,
  unitOf,
  verdictOfUnit,
} from "@kobbin/core";
import { useMemo } from "react";
import { Link } from "react-router";
import { useRun } from "../../../run/runState.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { Empty } from "../../../ui/States.tsx";
import { count, fixed, said, written } from "../../../ui/text/format.ts";
import { useByEye } from "../eye/ByEye.tsx";
import { ImagesSoFar } from "../images/ImagesSoFar.tsx";
import { BesideTests } from "./BesideTests.tsx";
import { Faults } from "./Faults.tsx";
import { GoesAgainstPlan } from "./GoesAgainstPlan.tsx";
import { ReadingStrip } from "./ReadingStrip.tsx";
import { TwoWays } from "./TwoWays.tsx";

const NO_PLAN: readonly TestItem[] = [];
const NO_TRIES = [] as const;

/** What the tests say: of each item over all boards, of each board over all items. */
export function TestResults({
  plan,
  mayNote,
  onTry,
}: {
  plan: PlanOfRun;
  mayNote: boolean;
  /** Tries an item on a board, or the whole plan; nothing where nobody may. */
  onTry: ((unit: number, item?: TestItem) => void) | undefined;
}) {
  const { doc, record, result } = useRun();
  const tests = doc.assembly.tests ?? NO_PLAN;
  const tries = record.tries ?? NO_TRIES;
  const sums = useMemo(() => sumsOfItems(tests, tries), [tests, tries]);
  const unit = unitOf(doc);
  if (tests.length === 0)
    return (
      <>
        <Empty>
          Nothing is planned to be tried: a test plan is made under Assemble before the release, and first
          power fills it from the nets.
        </Empty>
        <ImagesSoFar />
        <Faults mayWrite={mayNote} />
        <GoesAgainstPlan plan={plan} />
      </>
    );
  const bench = tests.filter((t) => !t.besides);
  const { tried, passed, failing, first } = firstPassOf(tests, tries);
  const hasStep = plan.sheet.steps.some((s) => s.kind === "test");
  const units = [...new Set(tries.map((t) => t.unit))].sort((a, b) => a - b);
  const fresh = Array.from({ length: result.start }, (_, i) => i + 1).find((u) => !units.includes(u));
  return (
    <section aria-label="Tests">
      <p className="mb-3 text-[17px]">
        {tried === 0 ? (
          `Nothing is tried yet: ${count(bench.length, "item")} a ${unit}.`
        ) : (
          <>
            <b className="num">
              {passed} of {tried}
            </b>{" "}
            {unit}s tried {passed === 1 ? "passes" : "pass"}, {first} at the first try
            {failing > 0 && <span className="text-stop">, {count(failing, "fails", "fail")}</span>}
            {tried - passed - failing > 0 ? `, ${tried - passed - failing} half way` : ""}.
          </>
        )}
      </p>
      {onTry && hasStep && fresh !== undefined && (
        <button
          type="button"
          className="mb-3 rounded-[3px] border border-ink bg-ink px-3 py-1 text-[14.5px] font-semibold text-paper"
          onClick={() => onTry(fresh)}
        >
          try {unit} {fresh}
        </button>
      )}
      {units.length > 0 && (
        <Units
          plan={plan}
          tests={bench.length > 0 ? bench : tests}
          units={units}
          onTry={hasStep ? onTry : undefined}
        />
      )}
      <BesideTests onTry={hasStep ? onTry : undefined} />
      <Items sums={sums.filter((s) => !s.item.besides || s.units > 0)} />
      <ImagesSoFar />
      <Faults mayWrite={mayNote} />
      <GoesAgainstPlan plan={plan} />
      {units.length > 1 && <TwoWays tests={tests} />}
    </section>
  );
}

const MARK = { pass: "✓", fail: "✕", open: "·" } as const;
const LOOK = {
  pass: "border-fine text-fine",
  fail: "border-stop bg-stop-soft text-stop",
  open: "border-rule text-ink-3",
} as const;
const SAYS = { pass: "passes", fail: "fails", open: "open" } as const;

/** A square an item for each board; one that fails or is open is tried at a press. */
function Units({
  plan,
  tests,
  units,
  onTry,
}: {
  plan: PlanOfRun;
  tests: readonly TestItem[];
  units: readonly number[];
  onTry: ((unit: number, item?: TestItem) => void) | undefined;
}) {
  const { doc, record } = useRun();
  const name = unitOf(doc);
  const serial = useSerial();
  const eyeOf = useByEye(plan);
  return (
    <table className="rows mb-5 w-full text-[14.5px]" aria-label={`Each ${name} by its tests`}>
      <tbody>
        {units.map((u) => {
          const stands = standsOfUnit(tests, record.tries ?? [], u);
          const verdict = verdictOfUnit(stands);
          return (
            <tr key={u}>
              <td className="w-[9.5em]">
                <Link to={`?view=board&unit=${u}`} className="quiet-link">
                  {name} <b className="num">{u}</b>
                </Link>
                <span className="num block text-[13px] text-ink-2">{serial(u)}</span>
              </td>
              <td>
                <span className="flex flex-wrap gap-[3px]">
                  {stands.map((s) => (
                    <button
                      key={s.item.id}
                      type="button"
                      disabled={!onTry}
                      title={`${s.item.name}: ${s.because ?? SAYS[s.stand]}`}
                      aria-label={`${s.item.name} of ${name} ${u} ${SAYS[s.stand]}${onTry ? ": try it" : ""}`}
                      className={`h-7 w-7 rounded-[2px] border-[1.5px] text-[14px] font-bold ${LOOK[s.stand]}`}
                      onClick={() => onTry?.(u, s.item)}
                    >
                      {MARK[s.stand]}
                    </button>
                  ))}
                </span>
              </td>
              <td
                className={verdict === "fail" ? "text-stop" : verdict === "pass" ? "text-fine" : "text-ink-2"}
              >
                {verdict === "fail"
                  ? stands
                      .filter((s) => s.stand === "fail")
                      .map((s) => (s.because ? `${s.item.name}, ${said(s.because)}` : s.item.name))
                      .join("; ")
                  : SAYS[verdict]}
                <Eye is={eyeOf(u)?.stand} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const EYE = { good: "looks good", doubt: "in doubt by eye", open: "not looked at" } as const;
/** What the eye says, beside what the tests say. */
const Eye = ({ is }: { is: keyof typeof EYE | undefined }) =>
  is === undefined ? null : (
    <span className={`block text-[13px] ${is === "doubt" ? "text-look" : "text-ink-2"}`}>{EYE[is]}</span>
  );

/** Each item over all boards: how its readings lie within their limits. */
function Items({ sums }: { sums: readonly ItemSum[] }) {
  return (
    <table className="rows mt-5 w-full text-[14.5px]" aria-label="Items of the test plan over all boards">
      <thead>
        <tr>
          <th>Item</th>
          <th>Should be</th>
          <th>Readings</th>
          <th className="text-right">First pass</th>
          <th className="text-right">Room (Cpk)</th>
        </tr>
      </thead>
      <tbody>
        {sums.map((s) => (
          <tr key={s.item.id}>
            <td>
              <b>{s.item.name}</b>
            </td>
            <td className="num text-[13.5px]">{said(limitText(s.item)) || "yes"}</td>
            <td>{s.readings.length > 0 && <ReadingStrip sum={s} />}</td>
            <td className="num text-right">
              {s.units === 0 ? "–" : `${s.firstPass} of ${s.units}`}
              {s.failing > 0 && (
                <span className="block text-[13px] text-stop">{count(s.failing, "fails", "fail")}</span>
              )}
              {s.errors > 0 && <span className="block text-[13px] text-ink-2">{s.errors} not read</span>}
            </td>
            <td className="num text-right">
              <Room sum={s} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Room({ sum: s }: { sum: ItemSum }) {
  const c = s.capability;
  if (!c) return null;
  const mean = written(String(Number(c.mean.toPrecision(5))));
  return (
    <>
      {c.cpk === undefined ? "–" : <span className={c.isNarrow ? "text-look" : ""}>{fixed(c.cpk, 2)}</span>}
      <span className="block text-[13px] text-ink-2">
        mean {mean} {s.item.unit}
        {c.cpk === undefined ? "" : c.isNarrow ? ", narrow" : ""}
        {c.isIndicative ? `; from ${c.n}, a hint` : `; from ${c.n}`}
      </span>
    </>
  );
}
