import { nextTime, ownFaultWords, sentence, type NextTime as Told, unitOf } from "@kobbin/core";
import { type ReactNode, useMemo, useRef } from "react";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { printAlone } from "../../ui/printed.ts";
import { count, day, fixed, fromMicros, money, said, signed } from "../../ui/text/format.ts";
import { hours } from "./Boards.tsx";

const WHY = {
  volume: "by how many came out good",
  yield: "by boards lost",
  usage: "by what each took",
  price: "by its price",
} as const;

/** What this run says for the next one, on one page: what cost otherwise, what went wrong and what it took, how estimates move. */
export function NextTime() {
  const { doc, result: r, record } = useRun();
  const paper = useRef<HTMLElement>(null);
  const model = r.yield.record?.model ?? r.yield.final;
  const told = useMemo(
    () => (r.actual ? nextTime(doc, { model, actual: r.actual, parts: r.parts }, record) : undefined),
    [doc, model, r.actual, r.parts, record],
  );
  if (!told || !r.actual || r.actual.tally.started === 0) return null;
  const { currency } = doc.workshop;
  return (
    <section ref={paper} aria-label="For the next run" className="mt-6 border-t-2 border-ink pt-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h2 className="text-[19px]">For the next run of {doc.product}</h2>
        <span className="text-[14px] text-ink-2">
          from “{doc.name}”, revision {doc.revision}
          {record.closedOn ? `, closed on ${day(record.closedOn)}` : ", not closed yet"}
        </span>
        <Button className="ml-auto print:hidden" onClick={() => paper.current && printAlone(paper.current)}>
          Print it
        </Button>
      </div>
      {record.lesson && (
        <p className="mb-3 border-l-[3px] border-metal bg-metal-soft px-3 py-2 text-[16px]">
          {said(sentence(record.lesson))}
        </p>
      )}
      <dl className="grid grid-cols-[190px_minmax(0,1fr)] gap-x-5 text-[14.5px] max-sm:grid-cols-1">
        <Row label="It begins with">
          <Estimates told={told} />
        </Row>
        {told.terms.length > 0 && (
          <Row label="It cost otherwise">
            {told.terms.slice(0, 6).map((t) => (
              <p key={t.label}>
                <b className="num">{signed(fromMicros(t.by))}</b> {currency} {t.label}
                {t.why && `, mostly ${WHY[t.why]}`}
              </p>
            ))}
          </Row>
        )}
        {told.faults.length > 0 && (
          <Row label="It went wrong">
            {told.faults.slice(0, 8).map((f) => (
              <p key={f.code}>
                <b>{f.code}</b> {count(f.times, "time")} on {count(f.boards, unitOf(doc))}
                {f.timed > 0 && (
                  <span className="text-ink-2">
                    {", "}
                    {f.timed < f.times ? "at least " : ""}
                    {fixed(f.minutes, 0)} min, {money(fromMicros(f.cost), currency)} of own work
                  </span>
                )}
              </p>
            ))}
          </Row>
        )}
        {told.scrapped.boards > 0 && (
          <Row label="It was given up">
            {count(told.scrapped.boards, unitOf(doc))}, about{" "}
            {money(fromMicros(told.scrapped.cost), currency)} by their share of the run
          </Row>
        )}
        {told.parts.length > 0 && (
          <Row label="It took more of">
            {told.parts
              .slice(0, 8)
              .map((p) => `${p.label} (${p.taken} for ${fixed(p.planned, 0)})`)
              .join("; ")}
          </Row>
        )}
        {told.claims.length > 0 && (
          <Row label="Is claimed still">
            {told.claims.map((c) => (
              <p key={c.id}>
                {c.because}, since {day(c.openedOn)}
              </p>
            ))}
          </Row>
        )}
      </dl>
    </section>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="border-t border-rule py-2 text-ink-2 max-sm:pb-0">{label}</dt>
      <dd className="border-t border-rule py-2 max-sm:border-t-0 max-sm:pt-0">{children}</dd>
    </>
  );
}

/** Yield and own time as estimates stand with this run, beside how they stood. */
function Estimates({ told }: { told: Told }) {
  const { doc, result: r } = useRun();
  const e = told.estimates;
  if (!e)
    return (
      <p>
        the estimates as they are: a run whose parts go several ways, or of which no board is finished, tells
        nothing of one way.
      </p>
    );
  const now = e.after.a / (e.after.a + e.after.b);
  return (
    <>
      <p>
        <b className="num">{fixed(100 * now, 1)} %</b> good of those started, from{" "}
        {count(e.after.runs, "run")} and {count(e.after.boards, unitOf(doc))}; before it was{" "}
        {fixed(100 * e.before, 1)} %
      </p>
      <p>
        <b className="num">{fixed(e.after.timeFactor, 2)} ×</b> the model’s own time
        {r.actual!.minutes.actual > 0
          ? `; this run took ${hours(r.actual!.minutes.actual)} where ${hours(r.actual!.minutes.planned)} were planned`
          : "; of this run no time was written down"}
      </p>
      {e.faults && (
        <p>
          <b className="num">{fixed(100 * e.clean, 1)} %</b> without a fault at first, from{" "}
          {said(ownFaultWords(e.faults))}; by the model alone {fixed(100 * e.cleanByModel, 1)} %
        </p>
      )}
    </>
  );
}
