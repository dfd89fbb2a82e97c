import { microsToNumber, saysUnpriced, unitOf } from "@kobbin/core";
import { useEffect, useRef } from "react";
import { NavLink } from "react-router";
import { Mark } from "../ui/Mark.tsx";
import { Sum } from "../ui/Sum.tsx";
import { amount, day, dayRange, fixed, fromMicros, money, signed } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";
import { stages, stateOf, type WebStage } from "./stages.ts";

/** A figure at the foot: its name may break, the figure does not. */
const FIGURE =
  "flex items-baseline justify-between gap-x-2 max-md:justify-start max-md:gap-x-1 max-md:whitespace-nowrap";

/** A stage's code is there when it is pressed. */
const fetchCode = (s: WebStage) => void s.load().catch(() => undefined);

/** The stages in working order; each row is its share of cost per good board. The navigation is the cost breakdown. */
export function Spine({ stage }: { stage: string }) {
  const { id, doc, result: r, moved, isReleased, record } = useRun();
  const { currency } = doc.workshop;
  // on a phone the stages are a strip: the one that is open is brought into it
  const strip = useRef<HTMLOListElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: follows the stage
  useEffect(() => {
    const at = strip.current?.querySelector<HTMLElement>('[aria-current="page"]')?.parentElement;
    if (at && strip.current && strip.current.scrollWidth > strip.current.clientWidth)
      strip.current.scrollLeft = at.offsetLeft - strip.current.clientWidth / 3;
  }, [stage]);
  const unit = unitOf(doc);
  // while something is not priced, the figures are of the rest: at least so much, not before then
  const open = saysUnpriced(r.unpriced);
  const greatest = Math.max(...Object.values(r.stages).map((s) => s.micros), 1);
  return (
    <nav
      aria-label="Stages of the run"
      className="no-print flex min-h-0 flex-col border-r border-rule max-md:border-r-0 max-md:border-b"
    >
      <div className="px-5 pt-4 pb-3 max-md:px-3 max-md:pt-2 max-md:pb-1">
        <p className="text-[17px] font-bold">
          {doc.goodBoards} good {unit}s
        </p>
        <p className="text-[13.5px] text-ink-2">
          revision {doc.revision}; {r.start} to start
        </p>
      </div>
      <ol ref={strip} className="min-h-0 flex-1 overflow-y-auto max-md:flex max-md:overflow-x-auto">
        {stages().map((s) => {
          const state = stateOf(s, doc, r, isReleased, record);
          const stageCost = s.key in r.stages ? r.stages[s.key as keyof typeof r.stages].micros : 0;
          const days = s.key in r.stages ? r.stages[s.key as keyof typeof r.stages].days : 0;
          const delta = s.key in moved ? moved[s.key as keyof typeof moved] : undefined;
          const isOn = s.key === stage;
          return (
            <li key={s.key} className="max-md:shrink-0" onPointerEnter={() => fetchCode(s)}>
              <NavLink
                to={`/runs/${id}/${s.key}`}
                aria-current={isOn ? "page" : undefined}
                className={`relative grid grid-cols-[20px_1fr_auto] items-baseline gap-x-2 px-5 pt-[4px] pb-[5px] leading-tight max-md:px-3 ${isOn ? "bg-sheet shadow-[inset_3px_0_0_var(--metal)]" : "hover:bg-sheet/60"}`}
              >
                <span className="self-center">
                  <Mark kind={state.kind} count={state.count} />
                </span>
                <span className="min-w-0">
                  <b className={isOn ? "font-bold" : "font-semibold"}>{s.label}</b>
                  <span className="block truncate text-[12.5px] leading-tight text-ink-2 max-md:hidden">
                    {s.says(doc, r, isReleased, record)}
                  </span>
                </span>
                <span className="num text-right max-md:hidden">
                  {stageCost > 0 ? amount(fromMicros(stageCost), currency) : ""}
                  {days > 0 && delta === undefined && (
                    <span className="block text-[12px] leading-tight text-ink-3">
                      {fixed(days, days < 10 ? 1 : 0)} d
                    </span>
                  )}
                  {delta !== undefined && (
                    <span className={`block text-[12px] ${delta < 0 ? "text-fine" : "text-stop"}`}>
                      {signed(delta)}
                    </span>
                  )}
                </span>
                {stageCost > 0 && (
                  <span
                    aria-hidden
                    className="absolute bottom-[3px] left-[48px] h-[2px] bg-metal opacity-75 max-md:hidden"
                    style={{ width: `${(150 * stageCost) / greatest}px` }}
                  />
                )}
              </NavLink>
            </li>
          );
        })}
      </ol>
      <div className="border-t border-rule bg-sheet px-5 pt-3 pb-4 text-[13.5px] max-md:px-3 max-md:py-2">
        {open && (
          <p className="pb-[3px] text-[13px] font-semibold text-stop" data-testid="unpriced">
            {r.unpriced.lines.length > 0 ? (
              <NavLink
                to={`/runs/${id}/source`}
                className="hover:underline"
                title={r.unpriced.lines.join(", ")}
              >
                {open}
              </NavLink>
            ) : (
              open
            )}
          </p>
        )}
        <dl className="flex flex-col gap-y-[3px] max-md:flex-row max-md:gap-x-3 max-md:overflow-x-auto max-md:text-[13px]">
          <div className={FIGURE}>
            <dt className="text-ink-2">
              {open && "at least "}per good {unit}
              <span className="block text-[12px] leading-tight text-ink-3 max-md:hidden">
                of {fixed(r.expectedGood, 1)} expected
              </span>
            </dt>
            <dd
              className="num shrink-0 text-right whitespace-nowrap text-[25px] leading-tight font-bold tracking-tight max-md:text-[15px]"
              data-testid="per-good"
            >
              <Sum
                title={`${open ? "at least: " : ""}cost per good ${unit}`}
                formula={`${open ? `${open}, and counted as nothing; ` : ""}total of the run ÷ expected good ${unit}s (${r.start} started × ${fixed(r.yield.final * 100, 2)} % final yield)`}
                terms={r.tree.children.map((c) => ({
                  label: c.label,
                  value: amount(fromMicros(c.micros / r.expectedGood), currency, 3),
                }))}
                result={`${open ? "at least " : ""}${money(microsToNumber(r.perGood), currency)}`}
              >
                {amount(microsToNumber(r.perGood), currency)}
              </Sum>
            </dd>
          </div>
          <div className={FIGURE}>
            <dt className="text-ink-2">{open ? "cash, at least" : "cash needed"}</dt>
            <dd className="num shrink-0 text-right whitespace-nowrap">
              <Sum
                title={`${open ? "at least: " : ""}cash needed`}
                formula="all that is paid before the first board is sold, recoverable tax included, own hours left out"
                terms={r.cash.map((c) => ({
                  label: c.label,
                  value: amount(fromMicros(c.micros), currency),
                  note: c.note,
                }))}
                result={`${open ? "at least " : ""}${money(microsToNumber(r.cashNeeded), currency)}`}
              >
                {money(microsToNumber(r.cashNeeded), currency)}
              </Sum>
            </dd>
          </div>
          <div className={FIGURE}>
            <dt className="text-ink-2">{open ? "not before" : "ready by"}</dt>
            <dd className="num shrink-0 text-right whitespace-nowrap">
              <Sum
                title="days until ready"
                formula="the later of parts and boards, then the work after them; 10 to 90 % of cases"
                terms={r.ready.sum.map((t) => ({
                  label: t.label,
                  value: `${fixed(t.days, 1)} d`,
                  note: t.note,
                }))}
                result={`${fixed(r.ready.days, 1)} d`}
              >
                {open ? day(r.ready.p10) : dayRange(r.ready.p10, r.ready.p90)}
              </Sum>
            </dd>
          </div>
          <div className={FIGURE}>
            <dt className="text-ink-2">blockers left</dt>
            <dd className={`num shrink-0 text-right ${r.blockers.length > 0 ? "font-bold text-stop" : ""}`}>
              {isReleased ? "–" : r.blockers.length}
            </dd>
          </div>
        </dl>
      </div>
    </nav>
  );
}
