import { type ActualRun, type ActualTerm, mayChange, unitOf } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { Skeleton } from "../../ui/States.tsx";
import { amount, fixed, fromMicros, money, signed } from "../../ui/text/format.ts";
import { hours } from "./Boards.tsx";
import { Close } from "./Close.tsx";
import { NextTime } from "./NextTime.tsx";

/** Why something came otherwise than planned: where it cost more, and where less. */
const WHY = {
  volume: ["for more good boards than planned", "for fewer good boards than planned"],
  yield: ["more boards lost", "fewer boards lost"],
  usage: ["more taken for each", "less taken for each"],
  price: ["dearer", "cheaper"],
} as const;

/** What was planned beside what came, and why they differ; here the run is closed. */
export function PlanAndActual() {
  const { doc, result: r, life, role } = useRun();
  const a = r.actual;
  if (!a) return <Skeleton label="The record is being counted" />;
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  const { started } = a.tally;
  const greatest = Math.max(1, ...a.terms.map((t) => Math.abs((t.actual ?? t.planned) - t.planned)));
  return (
    <>
      <Heads a={a} currency={currency} unit={unit} yieldPlanned={r.yield.final} />
      {a.open.length > 0 && (
        <p className="mb-2 text-[14.5px] text-stop">
          Not written down yet, and counted as planned: {a.open.join(", ")}.
        </p>
      )}
      {life === "released" && started < r.start && (
        <p className="mb-2 text-[14.5px] text-look">
          {started === 0
            ? "Nothing is started yet: only what was paid is compared."
            : `So far: ${started} of ${r.start} are started, and what is paid once is shared by ${a.tally.good} good ones only.`}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="rows tight w-full min-w-[640px]">
          <thead>
            <tr>
              <th>What</th>
              <th className="text-right">Planned, {currency}</th>
              <th className="text-right">As it came</th>
              <th className="text-right">Difference</th>
              <th className="w-[170px]">less | more</th>
              <th>Because</th>
            </tr>
          </thead>
          <tbody>
            {a.terms.map((t) => (
              <Term key={t.key} term={t} currency={currency} greatest={greatest} />
            ))}
            <tr className="font-bold">
              <td>The run</td>
              <td className="num text-right">{amount(fromMicros(a.planned), currency)}</td>
              <td className="num text-right">{amount(fromMicros(a.actual), currency)}</td>
              <td className="num text-right">{signed(fromMicros(a.actual - a.planned))}</td>
              <td colSpan={2} />
            </tr>
          </tbody>
        </table>
      </div>
      <Uses uses={a.uses} />
      <NextTime />
      {mayChange("closing", life, role) && life === "released" && <Close />}
    </>
  );
}

/** What the boards took of the shelf, part by part, where somebody counted. */
function Uses({ uses }: { uses: ActualRun["uses"] }) {
  const counted = uses.flatMap((u) => (u.taken === undefined ? [] : [{ ...u, taken: u.taken }]));
  if (counted.length === 0) return null;
  const more = counted.filter((u) => u.taken > u.planned + 0.5).length;
  return (
    <div className="mt-4">
      <Fold
        id="uses"
        title="Parts, piece by piece"
        verdict={`${counted.length} of ${uses.length} counted, ${more === 0 ? "none took more than planned" : `${more} took more than planned`}`}
      >
        <table className="rows tight w-full max-w-[560px]">
          <thead>
            <tr>
              <th>Part</th>
              <th className="text-right">For the boards started</th>
              <th className="text-right">Taken</th>
              <th className="text-right">Difference</th>
            </tr>
          </thead>
          <tbody>
            {[...counted]
              .sort((x, y) => y.taken - y.planned - (x.taken - x.planned))
              .map((u) => (
                <tr key={u.need}>
                  <td className="num text-[13.5px]">{u.label}</td>
                  <td className="num text-right">{fixed(u.planned, 1)}</td>
                  <td className="num text-right">{u.taken}</td>
                  <td className="num text-right">{pieces(u.taken - u.planned)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </Fold>
    </div>
  );
}
const pieces = (d: number) => (Math.abs(d) < 0.05 ? "0" : `${d > 0 ? "+" : "−"}${fixed(Math.abs(d), 1)}`);

function Heads({
  a,
  currency,
  unit,
  yieldPlanned,
}: {
  a: ActualRun;
  currency: string;
  unit: string;
  yieldPlanned: number;
}) {
  const done = a.tally.good + a.tally.scrapped;
  const rows = [
    [
      `cost per good ${unit}`,
      money(fromMicros(a.plannedPerGood), currency),
      a.actualPerGood === undefined ? "none is good yet" : money(fromMicros(a.actualPerGood), currency),
    ],
    [
      "good of those finished",
      `${fixed(yieldPlanned * 100, 1)} %`,
      done === 0
        ? "none is finished yet"
        : `${fixed((a.tally.good / done) * 100, 1)} %, ${a.tally.good} of ${done}`,
    ],
    [
      "own work",
      `${hours(a.minutes.planned)} for ${a.counts.actual.started} started`,
      a.minutes.actual === 0 ? "not written down" : hours(a.minutes.actual),
    ],
  ] as const;
  return (
    <dl className="my-4 grid grid-cols-3 gap-6 max-md:grid-cols-1 max-md:gap-3">
      {rows.map(([label, planned, actual]) => (
        <div key={label} className="border-t-2 border-ink pt-2">
          <dt className="text-[13.5px] text-ink-2">{label}</dt>
          <dd className="num text-[21px] leading-tight font-bold">{actual}</dd>
          <dd className="text-[14px] text-ink-2">planned {planned}</dd>
        </div>
      ))}
    </dl>
  );
}

function Term({ term: t, currency, greatest }: { term: ActualTerm; currency: string; greatest: number }) {
  const d = (t.actual ?? t.planned) - t.planned;
  const share = Math.min(1, Math.abs(d) / greatest) * 50;
  const told = t.because.filter((v) => Math.abs(v.micros) >= 5000);
  return (
    <tr>
      <td>{t.label}</td>
      <td className="num text-right">{amount(fromMicros(t.planned), currency)}</td>
      <td className="num text-right">
        {t.actual === undefined ? (
          t.open ? (
            <span className="text-stop">not known</span>
          ) : (
            "–"
          )
        ) : (
          amount(fromMicros(t.actual), currency)
        )}
      </td>
      <td className="num text-right">{t.actual === undefined ? "" : signed(fromMicros(d))}</td>
      <td>
        <span aria-hidden className="relative block h-[14px] bg-grid">
          <span className="absolute inset-y-0 left-1/2 w-px bg-ink-3" />
          {Math.abs(d) >= 5000 && (
            <span
              className={`absolute inset-y-[2px] ${d > 0 ? "left-1/2 bg-stop" : "right-1/2 bg-fine"}`}
              style={{ width: `${share}%` }}
            />
          )}
        </span>
      </td>
      <td className="text-[13.5px] text-ink-2">
        {t.actual === undefined && !t.open
          ? "not compared: taken as planned"
          : told
              .map((v) => `${WHY[v.key][v.micros > 0 ? 0 : 1]} ${signed(fromMicros(v.micros))}`)
              .join(", ") || (t.open ? "" : "as planned")}
        {t.open && <span className="block text-stop">not written down: {t.open}</span>}
      </td>
    </tr>
  );
}
