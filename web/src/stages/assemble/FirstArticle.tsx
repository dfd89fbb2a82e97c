import {
  firstArticlePlan,
  isComplete,
  microsToNumber,
  planOfRun,
  type RunDocument,
  type RunLine,
  type RunResult,
} from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { beginFirstArticle } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { count, fixed, money } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { runWorker } from "../../workers/run.ts";

/** So many of the dearest parts are offered a socket. */
const OFFERED = 5;

/** One is built and tested before the rest is ordered, what is dear on it plugged into sockets; the run waits for it. */
export function FirstArticle() {
  const { doc, isLocked } = useRun();
  if (doc.choices.first) return <Begun />;
  if (isLocked) return <p className="text-[14.5px] text-ink-2">It was released without a first article.</p>;
  return <Begin />;
}

/** How far the first article is; what waits for it can be let go again. */
function Begun() {
  const { doc, change, isLocked } = useRun();
  const { first } = doc;
  const words = !first
    ? "is not there any more"
    : first.good > 0
      ? `came good (${first.good}): nothing waits for it any more`
      : first.scrapped > 0
        ? `did not come good: ${first.scrapped} scrapped`
        : first.state === "open"
          ? "is not released yet"
          : "is under way";
  return (
    <p className="flex flex-wrap items-baseline gap-x-4 text-[14.5px]">
      <span>
        {first ? <Link to={`/runs/${doc.choices.first}/assemble`}>{first.name}</Link> : "Its first article"}{" "}
        {words}.
      </span>
      {!isLocked && (
        <button
          type="button"
          className="quiet-link"
          onClick={() => change({ first: null } as never, "The run waits for no first article")}
        >
          wait for none
        </button>
      )}
    </p>
  );
}

const nameOf = (l: RunLine) => `${l.refs.join(", ")} ${l.valueText || l.mpn}`;

function Begin() {
  const { id, answer, doc, result, did } = useRun();
  const sayError = useSayError();
  const [boards, setBoards] = useState("1");
  const [sockets, setSockets] = useState<Readonly<Record<string, string>>>({});
  const [isBusy, setBusy] = useState(false);
  const dear = useMemo(() => dearest(doc, result), [doc, result]);
  const many = Math.max(1, Math.min(100, Math.round(Number(boards)) || 1));
  const chosen = useMemo(
    () => Object.entries(sockets).map(([line, mpn]) => ({ line, mpn, valueText: "socket" })),
    [sockets],
  );
  const begin = () => {
    setBusy(true);
    const begun = beginFirstArticle(id, { version: answer.version, boards: many, sockets: chosen });
    begun.then(
      () => setBusy(false),
      (e) => {
        setBusy(false);
        sayError(e);
      },
    );
    did(`A first article of ${many} was begun`, begun);
  };
  return (
    <form
      className="text-[14.5px]"
      onSubmit={(e) => {
        e.preventDefault();
        begin();
      }}
    >
      <p className="mb-2 max-w-[62ch] text-ink-2">
        A run of its own beside this one: what is ticked goes into a socket there and can be pulled if the
        board is wrong. This run is not released before it came good.
      </p>
      <ul>
        {dear.map(({ line, each }) => (
          <li key={line.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1">
            <label className="flex min-w-[220px] flex-1 items-center gap-2">
              <input
                type="checkbox"
                checked={line.id in sockets}
                onChange={(e) => {
                  const { [line.id]: _, ...rest } = sockets;
                  setSockets(e.target.checked ? { ...rest, [line.id]: "" } : rest);
                }}
              />
              {nameOf(line)} in a socket
            </label>
            <span className="num text-ink-2">{money(each / 1e6, doc.workshop.currency)} each</span>
            {line.id in sockets && (
              <Field
                label={`Number of the socket for ${line.refs[0]}`}
                maxLength={120}
                value={sockets[line.id]}
                onChange={(e) => setSockets({ ...sockets, [line.id]: e.target.value })}
              />
            )}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <Field
          label="Good ones of it"
          isNumber
          inputMode="numeric"
          className="w-[110px]"
          value={boards}
          onChange={(e) => setBoards(e.target.value)}
        />
        <Button type="submit" disabled={isBusy}>
          Begin a first article of {many}
        </Button>
        <Cost doc={doc} many={many} sockets={chosen} />
      </div>
    </form>
  );
}

/** The dearest soldered parts, the price of one beside each. */
function dearest(doc: RunDocument, result: RunResult): { readonly line: RunLine; readonly each: number }[] {
  const { work } = planOfRun(doc, result);
  const each = new Map<string, number>();
  for (const p of work.parts) each.set(p.line, Math.max(each.get(p.line) ?? 0, p.micros));
  return (
    doc.lines
      // what is a plug, a switch or a link itself needs no socket
      .filter((l) => !l.dnp && l.mount !== "none" && l.refs.some((r) => !/^(J|JP|P|X|CN|CON|SW|S)\d/.test(r)))
      .map((line) => ({ line, each: each.get(line.id) ?? 0 }))
      .sort((a, b) => b.each - a.each)
      .slice(0, OFFERED)
  );
}

/** What it would cost by itself, beside what one of this run costs. */
function Cost({
  doc,
  many,
  sockets,
}: {
  doc: RunDocument;
  many: number;
  sockets: readonly { readonly line: string; readonly mpn: string; readonly valueText: string }[];
}) {
  const { result: own } = useRun();
  const [alone, setAlone] = useState<RunResult>();
  useEffect(() => {
    let isCurrent = true;
    setAlone(undefined);
    const plan = firstArticlePlan(doc.lines, sockets);
    const lines = [
      ...doc.lines.map((l) => (plan.sockets[l.id] ? { ...l, ...plan.sockets[l.id] } : l)),
      ...plan.added.map((l, i) => ({ ...l, dnp: false, id: `plugged ${i}` })),
    ];
    runWorker()
      .roll({ ...doc, goodBoards: many, lines })
      .then((rolled) => isCurrent && rolled.kind === "ok" && setAlone(rolled.result));
    return () => {
      isCurrent = false;
    };
  }, [doc, many, sockets]);
  if (!alone) return <span className="text-ink-3">its cost is being worked out …</span>;
  const { currency } = doc.workshop;
  return (
    <span className="text-ink-2">
      costs {isComplete(alone.unpriced) ? "" : "at least "}
      <b className="num text-ink">{money(microsToNumber(alone.total), currency)}</b> by itself,{" "}
      {count(Math.ceil(alone.ready.days), "day")} before the rest; a good one of this run costs{" "}
      {fixed(microsToNumber(own.perGood), 2)}
    </span>
  );
}
