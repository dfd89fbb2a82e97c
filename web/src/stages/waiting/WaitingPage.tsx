import type { WaitingRow, WaitingTest } from "@kobbin/contract";
import { stepWords } from "@kobbin/core";
import { Link } from "react-router";
import { useWaiting } from "../../resources/bench.ts";
import { DryBags, useOpenBags } from "../../shelf/DryBags.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { count, day, dayRange, money } from "../../ui/text/format.ts";
import { InCalendar } from "./InCalendar.tsx";
import { type Line, lineOf, mondaysOf, toPay } from "./line.ts";

const WIDTH = 340;

/** Every order of every run that is not all there yet: whom it waits for, when it is to be here, what is still to be paid. */
export function WaitingPage() {
  const { data, error, mutate } = useWaiting();
  const today = todayIso();
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-6 max-sm:px-3">
      <h1>Waiting</h1>
      {error && !data ? (
        <Failed error={error} again={() => mutate()} />
      ) : !data ? (
        <Skeleton rows={6} />
      ) : (
        <>
          <p className="mb-4 text-ink-2">{saysAll(data.orders, data.tests)}</p>
          {data.counting.map((r) => (
            <p key={r.runId} className="text-[14px] text-ink-2">
              <Link className="quiet-link" to={`/runs/${r.runId}/order`}>
                {r.product}, {r.run}
              </Link>
              : its orders are being counted.
            </p>
          ))}
          {data.orders.length > 0 && (
            <Orders rows={data.orders} line={lineOf(data.orders, today)} today={today} />
          )}
          <Tests rows={data.tests} />
          <OpenBags />
          {data.orders.length + data.counting.length + data.tests.length === 0 && (
            <Empty>Orders of released runs stand here until all of them came.</Empty>
          )}
          <InCalendar />
        </>
      )}
    </main>
  );
}

function saysAll(rows: readonly WaitingRow[], tests: readonly WaitingTest[]): string {
  const due = tests.filter((t) => t.isDue).length;
  const tried = tests.length === 0 ? "" : `${count(tests.length, "test")} besides the bench, ${due} by now`;
  if (rows.length === 0) return tried === "" ? "Nothing is waited for." : `No order is waited for; ${tried}.`;
  const late = rows.filter((r) => r.isLate).length;
  const ours = rows.filter((r) => r.waits.on === "shop").length;
  const pay = toPay(rows).map(([currency, sum]) => money(sum, currency));
  return [
    `${count(rows.length, "order")} not all here yet`,
    late > 0 ? `${late} late` : "none late",
    ours > 0 ? `${ours} ${ours === 1 ? "waits" : "wait"} for you` : "none waits for you",
    pay.length > 0 ? `still to be paid, before freight and fees: ${pay.join(" and ")}` : "all paid",
    ...(tried === "" ? [] : [tried]),
  ].join("; ");
}

/** What is tried besides the bench, by day: after a week, in the cold, at somebody else's. */
function Tests({ rows }: { rows: readonly WaitingTest[] }) {
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="to-try" className="mt-7">
      <h2 id="to-try" className="mb-1 text-[16px]">
        To be tried besides the bench
      </h2>
      <table className="rows w-full max-w-[860px]" aria-labelledby="to-try">
        <tbody>
          {rows.map((t) => (
            <tr key={`${t.runId} ${t.item} ${t.from}`}>
              <td className={`w-[9em] ${t.isDue ? "text-look" : "text-ink-2"}`}>
                {t.isDue ? <Mark kind="look" /> : "from"} {day(t.from)}
              </td>
              <td>
                <Link to={`/runs/${t.runId}/build?view=tests`} className="font-semibold hover:underline">
                  {t.name}
                </Link>
                <span className="block text-[13px] text-ink-2">
                  {t.product}, {t.run}; {t.words}
                </span>
              </td>
              <td className="num">
                {t.units.length === 1 ? "board" : "boards"} {t.units.join(", ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Dry bags that lie open, or that may not go through heat as they are: their hours run whoever looks. */
function OpenBags() {
  const bags = useOpenBags();
  if (bags.length === 0) return null;
  return (
    <section aria-labelledby="open-bags" className="mt-7">
      <h2 id="open-bags" className="mb-1 text-[16px]">
        Out of their dry bags
      </h2>
      <DryBags lots={bags} className="max-w-[860px] text-[14px]" />
    </section>
  );
}

function Orders({ rows, line, today }: { rows: readonly WaitingRow[]; line: Line; today: string }) {
  return (
    <div className="overflow-x-auto">
      <table
        className="rows w-full min-w-[760px] [&_td]:align-middle"
        aria-label="Orders that are not all here"
      >
        <thead>
          <tr>
            <th>Order</th>
            <th>Waits for</th>
            <th className="w-[340px] p-0!">
              <Weeks line={line} today={today} />
            </th>
            <th className="text-right">To pay</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={`${r.runId} ${r.order}`}>
              <td>
                <Link to={`/runs/${r.runId}/order`} className="font-semibold hover:underline">
                  {r.name}
                </Link>
                <span className="block text-[13px] text-ink-2">
                  {KINDS[r.kind]} for {r.product}, {r.run}
                </span>
              </td>
              <td
                className={`text-[14px] ${r.isLate ? "text-look" : r.waits.on === "shop" ? "" : "text-ink-2"}`}
              >
                {(r.isLate || r.waits.on === "shop") && <Mark kind="look" />} {whoOf(r)} {r.waits.what}
                <span className="block text-[13px] text-ink-2">
                  {r.state === "open" ? "" : `${stepWords(r.state, r.kind)}, `}since {day(r.waits.since)}
                  {r.came > 0 ? `; ${r.came} of ${r.of} came` : ""}
                </span>
                {r.questions.map((q) => (
                  <span key={q} className="block text-[13px]">
                    “{q}”
                  </span>
                ))}
              </td>
              <td className="p-0!">
                <Row row={r} line={line} today={today} />
              </td>
              <td className="num text-right whitespace-nowrap">
                {r.isPaid ? <span className="text-ink-2">paid</span> : money(Number(r.total), r.currency)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const KINDS = { parts: "parts", boards: "bare boards", assembly: "assembly" } as const;
const whoOf = (r: WaitingRow): string => ({ shop: "you", house: r.name, carrier: "the carrier" })[r.waits.on];

/** The weeks the rows are drawn over, and today. */
function Weeks({ line, today }: { line: Line; today: string }) {
  return (
    <svg width={WIDTH} height="34" className="block" aria-hidden="true">
      {mondaysOf(line)
        .filter((d) => WIDTH * (1 - line.at(d)) > 44)
        .map((d) => (
          <g key={d}>
            <line x1={WIDTH * line.at(d)} x2={WIDTH * line.at(d)} y1="24" y2="34" stroke="var(--rule-2)" />
            <text x={WIDTH * line.at(d) + 3} y="33" fontSize="11" fill="var(--ink-2)">
              {day(d).replace(/ \d{4}$/, "")}
            </text>
          </g>
        ))}
      <text
        x={WIDTH * line.at(today)}
        y="12"
        fontSize="11"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--ink)"
      >
        today
      </text>
      <line x1={WIDTH * line.at(today)} x2={WIDTH * line.at(today)} y1="15" y2="34" stroke="var(--ink)" />
    </svg>
  );
}

/** From since when it is waited for to the days it is to be here: a band as wide as nobody knows better. */
function Row({ row: r, line, today }: { row: WaitingRow; line: Line; today: string }) {
  const x = (d: string) => WIDTH * line.at(d);
  const said =
    r.from === undefined || r.to === undefined
      ? "no day yet: it is not ordered"
      : `${r.isPromised ? "promised for" : "to be here"} ${r.from === r.to ? day(r.to) : dayRange(r.from, r.to)}${today > r.to ? ", which is over" : ""}`;
  const end = r.from ?? today;
  return (
    <svg width={WIDTH} height="46" className="block" role="img" aria-label={`${r.name}: ${said}`}>
      <line x1={x(today)} x2={x(today)} y1="0" y2="46" stroke="var(--ink)" strokeWidth="1" />
      <line
        x1={x(r.waits.since)}
        x2={Math.max(x(r.waits.since), x(end))}
        y1="18"
        y2="18"
        stroke="var(--ink-3)"
        strokeWidth="2"
        strokeDasharray={r.from === undefined ? "3 4" : undefined}
      />
      <circle
        cx={x(r.waits.since)}
        cy="18"
        r="3.4"
        fill="var(--sheet)"
        stroke="var(--ink-2)"
        strokeWidth="1.6"
      />
      {r.from !== undefined && r.to !== undefined && (
        <>
          {r.isLate && today > r.to && (
            <line x1={x(r.to)} x2={x(today)} y1="18" y2="18" stroke="var(--stop)" strokeWidth="3" />
          )}
          <rect
            x={x(r.from) - 3}
            y="12"
            width={Math.max(6, x(r.to) - x(r.from) + 6)}
            height="12"
            rx="2"
            fill={r.isPromised ? "var(--metal)" : "var(--metal-soft)"}
            stroke={today > r.to ? "var(--stop)" : "var(--metal)"}
            strokeWidth="1.4"
          />
        </>
      )}
      <text
        x={Math.min(WIDTH - 4, Math.max(4, x(r.to ?? r.waits.since) + 3))}
        y="40"
        fontSize="11.5"
        textAnchor={line.at(r.to ?? r.waits.since) > 0.5 ? "end" : "start"}
        fill={today > (r.to ?? today) ? "var(--stop)" : "var(--ink-2)"}
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {said}
      </text>
    </svg>
  );
}
