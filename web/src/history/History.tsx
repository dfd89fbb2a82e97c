import type { HistoryRow } from "@kobbin/contract";
import { addTo } from "@kobbin/core";
import { useState } from "react";
import { Link } from "react-router";
import { type HistoryOf, undoChange, useHistory } from "../resources/history.ts";
import { clashesOf } from "../resources/http.ts";
import { useRole } from "../resources/session.ts";
import { Button } from "../ui/Button.tsx";
import { Empty, Failed, Skeleton } from "../ui/States.tsx";
import { clock, dayName, said } from "../ui/text/format.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";

/** What was done, newest first, in sentences; each may be taken back or brought again. */
export function History({ of, isShort = false }: { of: HistoryOf; isShort?: boolean }) {
  const { data, error, isLoading, size, setSize, mutate } = useHistory(of);
  if (error && !data) return <Failed error={error} again={() => void mutate()} />;
  if (isLoading || !data) return <Skeleton rows={8} label="The history is being fetched" />;
  const rows = data.flatMap((p) => p.changes);
  if (rows.length === 0)
    return <Empty>Nothing was changed yet. Every change will stand here, and can be taken back.</Empty>;
  const days = new Map<string, HistoryRow[]>();
  for (const r of rows) {
    const d = dayName(r.at);
    addTo(days, d, r);
  }
  return (
    <div>
      {[...days].map(([d, list]) => (
        <section key={d} aria-label={d} className="mb-5">
          <h2 className="mb-1 text-[14px] text-ink-2">{d}</h2>
          <ul>
            {list.map((r) => (
              <Row key={r.id} row={r} isShort={isShort} />
            ))}
          </ul>
        </section>
      ))}
      {data.at(-1)?.before && <Button onClick={() => void setSize(size + 1)}>Show earlier</Button>}
    </div>
  );
}

function Row({ row: r, isShort }: { row: HistoryRow; isShort: boolean }) {
  const isOwner = useRole() === "owner";
  const say = useSay();
  const sayError = useSayError();
  const [since, setSince] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const isBack = r.state === "taken back";
  const act = (force: boolean) => {
    setBusy(true);
    undoChange(isBack ? r.undoneBy! : r.id, force)
      .then(() => {
        setSince(undefined);
        say(isBack ? "Brought again" : "Taken back");
      })
      .catch((e) => {
        const [c] = clashesOf(e);
        if (c) setSince(`${c.person ?? "Somebody"} set the ${c.field} to “${String(c.theirs)}” since.`);
        else sayError(e);
      })
      .finally(() => setBusy(false));
  };
  return (
    <li className="grid grid-cols-[52px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-t border-rule py-[7px] max-sm:grid-cols-[46px_1fr]">
      <time className="num text-ink-2" dateTime={r.at}>
        {clock(new Date(r.at))}
      </time>
      <div className="min-w-0">
        <span className={isBack ? "text-ink-2 line-through" : "break-words"}>{said(r.sentence)}</span>
        <span className="block text-[13px] text-ink-2">
          {r.isMine ? "you" : r.person}
          {!isShort && (
            <>
              {", "}
              {r.runId ? (
                <Link className="hover:underline" to={`/runs/${r.runId}/board`}>
                  {r.about}
                </Link>
              ) : (
                r.about
              )}
            </>
          )}
          {isBack && "; taken back"}
          {r.state === "final" && "; stays as it is"}
        </span>
        {since && (
          <p role="alert" className="mt-1 border-l-[3px] border-look pl-3 text-[14px]">
            {since} It was not taken back.{" "}
            <button type="button" className="quiet-link" onClick={() => act(true)}>
              take it back all the same
            </button>
          </p>
        )}
      </div>
      {r.state === "stands" || (isOwner && isBack) ? (
        <button
          type="button"
          className="quiet-link max-sm:col-start-2 max-sm:justify-self-start"
          disabled={isBusy}
          aria-label={`${isBack ? "Bring again" : "Take back"}: ${r.sentence}`}
          onClick={() => act(false)}
        >
          {isBack ? "bring again" : "take back"}
        </button>
      ) : (
        <span />
      )}
    </li>
  );
}
