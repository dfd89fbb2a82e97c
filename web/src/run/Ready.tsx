import {
  judgeLot,
  type Pace,
  type Readiness,
  type ReadyFrom,
  type ReadyItem,
  readinessOf,
  type ToCome,
  unitOf,
} from "@kobbin/core";
import { useMemo } from "react";
import { Coverage } from "../ui/Coverage.tsx";
import { Fold } from "../ui/Fold.tsx";
import { Mark } from "../ui/Mark.tsx";
import { todayIso } from "../ui/text/dates.ts";
import { count, day, dayRange } from "../ui/text/format.ts";
import { InHand } from "./InHand.tsx";
import { RunBags } from "./RunBags.tsx";
import { useRun } from "./runState.ts";

/** So many kinds from one sender stand by themselves; more are folded under who sends them. */
const FEW = 2;

/**
 * Whether a run can begin, how many can be made whole from what is here, and what stops more: one light with its reason.
 * @param pace what is left at the bench, once somebody sat down there
 */
export function Ready({ pace }: { pace: Pace | undefined }) {
  const { doc, result, record, answer } = useRun();
  const today = todayIso();
  const ready = useMemo(
    () =>
      readinessOf(doc, result, record, {
        today,
        ...(pace ? { leftMinutes: pace.leftMinutes } : {}),
        releasedOn: answer.releasedAt?.slice(0, 10) ?? today,
        stops: doc.boards.flatMap((b, i) =>
          judgeLot(doc, result, record, i).verdict === "fails"
            ? [`${b.name} did not measure as it must`]
            : [],
        ),
      }),
    [doc, result, record, today, answer.releasedAt, pace],
  );
  const unit = unitOf(doc);
  if (record.closedOn) return null;
  return (
    <section aria-label="Ready to build" className="mb-5 border border-rule bg-sheet px-4 py-3">
      <p className="mb-1 flex items-start gap-3 text-[19px]">
        <span className="pt-[3px]">
          <Mark kind={MARK[ready.light]} />
        </span>
        <span>
          <Says ready={ready} unit={unit} />
          {ready.doneOn && ready.stops.length === 0 && (
            <span className="block text-[15px] text-ink-2">
              All could be finished by {day(ready.doneOn)}, at the hours of the settings
              {pace && pace.of > 0 ? " and the pace so far" : ""}.
            </span>
          )}
        </span>
      </p>
      {ready.light !== "ready" && (
        <>
          <Ahead ready={ready} today={today} unit={unit} />
          <fieldset aria-label="What is missing" className="border-t border-rule">
            {bySender(ready.short).map(({ key, name, items }) =>
              items.length <= FEW ? (
                <ul key={key}>
                  {items.map((i) => (
                    <Missing key={i.key} item={i} unit={unit} />
                  ))}
                </ul>
              ) : (
                <Fold
                  key={key}
                  id={`missing-${key.replace(/\W+/g, "-")}`}
                  title={name}
                  verdict={
                    <>
                      {count(items.length, "kind")} short, the scarcest enough for{" "}
                      {count(items[0]!.products, unit)}; <Comes of={items[0]!.comes[0]} />
                    </>
                  }
                >
                  <ul>
                    {items.map((i) => (
                      <Missing key={i.key} item={i} unit={unit} />
                    ))}
                  </ul>
                </Fold>
              ),
            )}
          </fieldset>
        </>
      )}
      {ready.unknown.length > 0 && (
        <p className="border-t border-rule pt-2 text-[13.5px] text-ink-2">
          Nobody keeps a count of {ready.unknown.join("; ")}: have a look before you begin.
        </p>
      )}
      <InHand className="mt-1 text-[13.5px]" />
      <RunBags className="mt-1 border-t border-rule pt-1 text-[13.5px]" />
    </section>
  );
}

const MARK = { ready: "ready", some: "look", blocked: "blocked" } as const;

/** The one sentence of it. */
function Says({ ready: r, unit }: { ready: Readiness; unit: string }) {
  const [scarce] = r.short;
  if (r.stops.length > 0)
    return (
      <>
        Do not begin: {r.stops.join("; ")}.
        <span className="block text-[15px] text-ink-2">
          Set what is bad apart, or find out that it may be used; then measure the rest.
        </span>
      </>
    );
  if (r.over >= r.wanted)
    return (
      <>
        None of the <b className="num">{r.wanted}</b> {unit}s is left to build.
      </>
    );
  if (r.light === "ready")
    return (
      <>
        Everything is here for all <b className="num">{r.wanted}</b> {unit}s.
      </>
    );
  const more = r.now - r.begun;
  return (
    <>
      {r.light === "some" ? (
        <>
          <b className="num">{more}</b> {r.begun > 0 ? "more of" : "of"} {r.wanted} can be made whole now.
        </>
      ) : r.begun > 0 ? (
        <>No more than the {r.begun} that were begun can be made whole now.</>
      ) : (
        <>None can be made whole yet.</>
      )}
      {scarce && (
        <span className="block text-[15px] text-ink-2">
          The next one is stopped by {scarce.label}: {scarce.have} here, {scarce.each} in each
          {scarce.faulty ? `, ${scarce.faulty} did not hold when tried bare` : ""}.
        </span>
      )}
    </>
  );
}

const [WIDE, HIGH] = [420, 78];

/** How many can be made whole from which day on: a step for each day something comes, with what stops the next one. */
function Ahead({ ready: r, today, unit }: { ready: Readiness; today: string; unit: string }) {
  const steps = r.ahead;
  if (steps.length < 2)
    return (
      <p className="mt-1 mb-2 text-[14px] text-ink-2">
        Of what is missing no day is known, so it is open when more can be made.
      </p>
    );
  const last = steps.at(-1)!;
  if (last.products <= steps[0]!.products)
    return (
      <p className="mt-1 mb-2 text-[14px] text-ink-2">
        What is on its way does not suffice for one more: {last.by} is missing still.
      </p>
    );
  const at = (iso: string) => (Date.parse(iso) - Date.parse(today)) / 86_400_000;
  const days = Math.max(7, at(last.on) + 3);
  const x = (iso: string) => 34 + ((WIDE - 44) * at(iso)) / days;
  const y = (n: number) => HIGH - 20 - ((HIGH - 34) * n) / Math.max(1, r.wanted);
  const path = steps
    .map(
      (s, i) =>
        `${i === 0 ? "M" : "H"}${x(s.on).toFixed(1)}${i === 0 ? ` ${y(s.products)}` : `V${y(s.products)}`}`,
    )
    .join("");
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="my-2 w-full max-w-[560px]"
      role="img"
      aria-label={`How many ${unit}s can be made whole: ${steps.map(stepWords).join("; ")}`}
    >
      <line
        x1="34"
        x2={WIDE - 4}
        y1={y(r.wanted)}
        y2={y(r.wanted)}
        stroke="var(--rule)"
        strokeDasharray="4 3"
      />
      <line x1="34" x2={WIDE - 4} y1={y(0)} y2={y(0)} stroke="var(--rule)" />
      <text x="28" y={y(r.wanted) + 4} fontSize="12" textAnchor="end" fill="var(--ink-2)" className="num">
        {r.wanted}
      </text>
      <text x="28" y={y(0) + 4} fontSize="12" textAnchor="end" fill="var(--ink-2)" className="num">
        0
      </text>
      <path d={`${path}H${WIDE - 4}`} fill="none" stroke="var(--metal)" strokeWidth="3" />
      {steps.map((s) => (
        <g key={`${s.on} ${s.products}`}>
          <circle cx={x(s.on)} cy={y(s.products)} r="3.5" fill="var(--metal)" />
          <text x={x(s.on)} y={HIGH - 4} fontSize="12" textAnchor="middle" fill="var(--ink-2)">
            {s.on === today ? "today" : day(s.on)}
          </text>
        </g>
      ))}
    </svg>
  );
}

const stepWords = (s: ReadyFrom): string =>
  `${s.products} from ${day(s.on)}${s.by ? `, stopped by ${s.by}` : ""}`;

/** One thing that does not suffice: how much is here, and what is to come. */
function Missing({ item: i, unit }: { item: ReadyItem; unit: string }) {
  const need = Math.ceil(i.need);
  return (
    <li className="grid grid-cols-[minmax(120px,1fr)_minmax(90px,160px)_minmax(0,1.4fr)] items-center gap-x-4 border-b border-rule py-[6px] text-[14.5px] last:border-b-0 max-sm:grid-cols-1">
      <span>
        <b>{i.label}</b>
        <span className="block text-[13px] text-ink-2">
          <span className="num">
            {i.have} of {need}
          </span>
          , for {count(i.products, unit)}
        </span>
      </span>
      <Coverage need={need} parts={i.have > 0 ? [{ label: "what is here", qty: i.have, index: 0 }] : []} />
      <span className="text-[13.5px] text-ink-2">
        {i.comes.length === 0 ? (
          <span className="text-stop">nothing more of it is on its way</span>
        ) : (
          i.comes.map((c) => (
            <span key={c.order} className="block">
              <span className="num">{c.qty}</span> from {c.name}, <Comes of={c} />
            </span>
          ))
        )}
      </span>
    </li>
  );
}

/** When something is to come, as far as anybody said. */
function Comes({ of: c }: { of: ToCome | undefined }) {
  if (!c) return <span className="text-stop">nothing more is on its way</span>;
  const when =
    c.from && c.to
      ? c.isPromised
        ? `promised for ${day(c.to)}`
        : dayRange(c.from, c.to)
      : "not ordered yet";
  return (
    <span className={c.isLate || c.isSilent ? "text-look" : ""}>
      {when}
      {c.isLate ? ", late" : c.isSilent ? ", no word from them" : ""}
    </span>
  );
}

/** What is short by who is to send it, in the order of the scarcest of each. */
function bySender(short: readonly ReadyItem[]): { key: string; name: string; items: ReadyItem[] }[] {
  const groups = new Map<string, { key: string; name: string; items: ReadyItem[] }>();
  for (const i of short) {
    const [from] = i.comes;
    const key = from?.order ?? "nobody";
    const group = groups.get(key) ?? { key, name: from?.name ?? "Nobody sends more", items: [] };
    group.items.push(i);
    groups.set(key, group);
  }
  return [...groups.values()];
}
