import { type FormEvent, useEffect, useRef } from "react";
import { answerQuote, askHouses, refetchRun, useAsks } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count, day, money, said } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** Asks the houses themselves for their price, in the background; what they ask back is answered here. */
export function AskHouses() {
  const { id, doc, result: r, did, isLocked } = useRun();
  const sayError = useSayError();
  const say = useSay();
  const { data } = useAsks(id);
  const asks = data?.houses ?? [];
  const open = asks.filter((a) => a.state === "waiting" || a.state === "asking");
  const failed = asks.filter((a) => a.state === "failed");
  const answered = asks.filter((a) => a.state === "answered").length;
  // an answer that came is a quotation of the run
  const before = useRef(answered);
  useEffect(() => {
    if (answered > before.current) void refetchRun(id);
    before.current = answered;
  }, [answered, id]);
  const name = (house: string) => doc.houses?.find((h) => h.id === house)?.name ?? "A house";
  const questions = doc.quotes.filter((q) => q.kind === "fab" && q.question);
  return (
    <div className="mt-2 text-[14px]">
      {!isLocked && (
        <p className="flex flex-wrap items-baseline gap-x-4" aria-live="polite">
          <button
            type="button"
            className="quiet-link"
            disabled={open.length > 0}
            onClick={() =>
              askHouses(id, r.start).then((a) => {
                if (a?.houses.length === 0)
                  say("None of these houses answers over the network: type what they quote.");
              }, sayError)
            }
          >
            ask the houses for their price
          </button>
          {open.length > 0 && (
            <span className="text-ink-2">
              {answered} of {asks.length} answered; waiting for {open.map((a) => a.house).join(", ")}
            </span>
          )}
          {open.length === 0 && answered > 0 && (
            <span className="text-ink-2">
              {count(answered, "house")} answered; a quotation holds for what was asked
            </span>
          )}
          {failed.map((a) => (
            <span key={a.houseId} className="text-look">
              <Mark kind="look" /> {a.house}: nothing usable after {count(a.tries, "try", "tries")}.{" "}
              {a.reason}
            </span>
          ))}
        </p>
      )}
      {questions.map((q) => (
        <div key={q.house} className="mt-2 border-l-[3px] border-metal pl-3">
          <p>
            <b>{name(q.house)}</b> asks: {said(q.question!)}{" "}
            <span className="text-ink-2">
              Its {money(Number(q.total), q.currency)} of {day(q.capturedOn)}
              {q.validUntil && `, valid until ${day(q.validUntil)}`}.
            </span>
          </p>
          {q.answer ? (
            <p className="text-ink-2">Answered: {q.answer}</p>
          ) : (
            !isLocked && (
              <form
                className="mt-1 flex flex-wrap items-center gap-3"
                onSubmit={(e: FormEvent<HTMLFormElement>) => {
                  e.preventDefault();
                  const answer = String(new FormData(e.currentTarget).get("answer")).trim();
                  const done = answerQuote(id, q.house, answer);
                  done.then(() => did(`${name(q.house)} was answered`, done), sayError);
                }}
              >
                <input
                  name="answer"
                  required
                  maxLength={500}
                  aria-label={`Answer to ${name(q.house)}`}
                  defaultValue="Yes, as they are."
                  className="w-72"
                />
                <Button type="submit">Answer</Button>
              </form>
            )
          )}
        </div>
      ))}
    </div>
  );
}
