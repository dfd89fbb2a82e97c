import {
  isTold,
  type OrderKind,
  type OrderStand,
  type OrderState,
  type OrderStep,
  orderOf,
  type PlannedOrder,
  STEP_WORDS,
  stepWords,
  stopsOf,
  tallyOf,
} from "@kobbin/core";
import { Check } from "lucide-react";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { addStep, lookOrder, removeStep, sendOrder } from "../../resources/record.ts";
import { refetchRun, useAsks } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { standOf } from "../../run/useOrders.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useOnce } from "../../ui/once.ts";
import { todayIso } from "../../ui/text/dates.ts";
import { day, said } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { WriteStep } from "./WriteStep.tsx";

/** How an order at a house stands: its way as far as it came, whom it waits for, and what can be done about it. */
export function HowItStands({ order: o, isOpen }: { order: PlannedOrder; isOpen: boolean }) {
  const { id, record, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const say = useSay();
  const { data } = useAsks(id);
  const talk = data?.orders.find((x) => x.order === o.key);
  // what a house says is written down by the server: the run is fetched once it answered
  const before = useRef(talk?.since);
  useEffect(() => {
    if (before.current !== talk?.since && talk?.state === "answered") void refetchRun(id);
    before.current = talk?.since;
  }, [talk?.state, talk?.since, id]);
  const steps = (record.steps ?? []).filter((s) => s.order === o.key);
  const { stand, isHere, promisedOn } = standOf(record, o);
  const write = (state: OrderState, words = "", on = todayIso()) => {
    const done = addStep(id, { order: o.key, state, on, words });
    done.catch(sayError);
    const said = `${o.name}: ${wordsOf(state, o.kind)}`;
    // what a house was told it knows: that is not undone here
    if (talk && (state === "sent" || isTold(state)))
      done.then(
        () => say(said),
        () => undefined,
      );
    else did(said, done);
  };
  const send = () => {
    once(() => sendOrder(id, o.key).then(() => say(`${o.name}: files sent`), sayError));
  };
  const answers = data?.answering.includes(o.party) ?? false;
  // once every board that was started is good or scrapped, its boards were there: nothing is sent any more
  const tally = tallyOf(record.work);
  const isBuilt = tally.started > 0 && tally.open === 0;
  const isSendable = !isBuilt && (stand.state === "open" || stand.state === "withdrawn");
  return (
    <section aria-label={`How the order at ${o.name} stands`} className="mb-2 text-[14px]">
      {steps.length > 0 && <Track stand={stand} kind={o.kind} isHere={isHere} />}
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        {/* what has not come to the house yet, it does not look at */}
        {(talk?.number !== "" || stand.state === "withdrawn") && (
          <Waits name={o.name} stand={stand} promisedOn={promisedOn} />
        )}
        {talk && stand.state !== "withdrawn" && (
          <Talk talk={talk} isOpen={isOpen} onLook={() => lookOrder(id, o.key).catch(sayError)} />
        )}
        {isOpen && isSendable && (
          <>
            {answers && (
              <Button look="main" onClick={send}>
                Send it to {o.name}
              </Button>
            )}
            <button type="button" className="quiet-link" onClick={() => write("sent")}>
              {o.kind === "parts"
                ? "it is ordered"
                : answers
                  ? "it was sent by other means"
                  : "its files are sent"}
            </button>
            {answers && (
              <p className="w-full text-[13px] text-ink-2">
                It gets its files and its order sheet, nothing else of the run. What a house was told is not
                undone here; the order can be taken back.
              </p>
            )}
          </>
        )}
        {isOpen && stand.waits?.what === "to pay" && (
          <Button onClick={() => write("paid")}>It is paid</Button>
        )}
      </div>
      {stand.questions.map((q, i) => (
        <Question
          key={q.id}
          name={o.name}
          question={q}
          // one answer is to all that is open
          onAnswer={
            isOpen && i === stand.questions.length - 1 ? (text) => write("answered", text) : undefined
          }
        />
      ))}
      <div className="mt-1 flex flex-wrap gap-x-4">
        {steps.length > 0 && (
          <Log
            steps={steps}
            mayTake={(s) => isOpen && s.source === "" && !(talk && (s.state === "sent" || isTold(s.state)))}
            onRemove={(s) => {
              const done = removeStep(id, s.id);
              done.catch(sayError);
              did(`${o.name}: not ${wordsOf(s.state, o.kind)} after all`, done);
            }}
          />
        )}
        {isOpen && !isHere && stand.state !== "open" && stand.state !== "withdrawn" && (
          <WriteStep stand={stand} kind={o.kind} name={o.name} onWrite={write} />
        )}
      </div>
    </section>
  );
}

/** The way of an order, stop by stop, each with its day. */
const wordsOf = (state: OrderState, kind: OrderKind): string => stepWords(state, kind) ?? STEP_WORDS[state];

function Track({ stand, kind, isHere }: { stand: OrderStand; kind: OrderKind; isHere: boolean }) {
  const way = stopsOf(kind);
  const dayOf = (state: OrderState) => stand.now.findLast((s) => s.state === state)?.on;
  const reached = stand.state === "withdrawn" ? -1 : way.findLastIndex((s) => dayOf(s) !== undefined);
  const stops = [
    ...way.map((s, i) => ({ label: wordsOf(s, kind), on: dayOf(s), isDone: i <= reached || isHere })),
    { label: "here", on: undefined, isDone: isHere },
  ];
  return (
    <ol
      className={`my-2 grid text-[13px] max-md:grid-cols-3 max-md:gap-y-2 ${stops.length === 6 ? "grid-cols-6" : "grid-cols-5"}`}
    >
      {stops.map((s, i) => (
        <li key={s.label} className="relative pr-2">
          <span
            aria-hidden
            className={`absolute top-[8px] left-[18px] right-0 h-[2px] ${i === stops.length - 1 ? "hidden" : (stops[i + 1]?.isDone ?? false) ? "bg-fine" : "bg-rule"}`}
          />
          <span
            aria-hidden
            className={`relative grid size-[18px] place-items-center rounded-full border-[1.6px] ${s.isDone ? "border-fine bg-sheet text-fine" : "border-rule-2 bg-sheet"}`}
          >
            {s.isDone && <Check className="size-3" strokeWidth={3} />}
          </span>
          <span className={s.isDone ? "" : "text-ink-2"}>{s.label}</span>{" "}
          <span className="num text-ink-2">
            {s.on ? day(s.on) : s.isDone ? "" : <span className="sr-only">not yet</span>}
          </span>
        </li>
      ))}
    </ol>
  );
}

function Waits({
  name,
  stand,
  promisedOn,
}: {
  name: string;
  stand: OrderStand;
  promisedOn: string | undefined;
}) {
  const { waits, state, isOverdue } = stand;
  if (state === "withdrawn") return <p className="text-ink-2">It was taken back; nothing is made of it.</p>;
  if (!waits) return null;
  const who = { shop: "you", house: name, carrier: "the carrier" }[waits.on];
  const isOurs = waits.on === "shop" || isOverdue;
  return (
    <p className={isOurs ? "text-look" : "text-ink-2"}>
      {isOurs && <Mark kind="look" />} Waits for {who} {waits.what}, since {day(waits.since)}
      {waits.on !== "shop" && promisedOn && `; it was promised for ${day(promisedOn)}`}
      {isOverdue && waits.on === "house" && "; longer than usual: ask it"}
      {isOverdue && waits.on === "carrier" && ", which is over"}.
    </p>
  );
}

type OrderTalk = NonNullable<ReturnType<typeof useAsks>["data"]>["orders"][number];

/** How the talk over the network goes. */
function Talk({ talk, isOpen, onLook }: { talk: OrderTalk; isOpen: boolean; onLook: () => void }) {
  const isAsking = talk.state === "waiting" || talk.state === "asking";
  return (
    <p className={talk.state === "failed" ? "text-look" : "text-ink-2"} aria-live="polite">
      {talk.state === "failed" && (
        <>
          <Mark kind="look" />{" "}
          {talk.number === "" ? "It has not got the files yet" : "It could not be reached"}, tried{" "}
          {talk.tries} times: {talk.reason} Tried again by itself.{" "}
        </>
      )}
      {isAsking && (talk.reason ? `Tried again: ${talk.reason} ` : "Asking it… ")}
      {talk.number && `Its number ${talk.number}. `}
      {isOpen && !isAsking && (
        <button type="button" className="quiet-link" onClick={onLook}>
          ask how it stands
        </button>
      )}
    </p>
  );
}

/** What a house asks about the files, and the answer it gets; other files are another order. */
function Question({
  name,
  question: q,
  onAnswer,
}: {
  name: string;
  question: OrderStep;
  onAnswer: ((text: string) => void) | undefined;
}) {
  return (
    <div className="mt-2 border-l-[3px] border-metal pl-3">
      <p>
        <b>{name}</b> asks: {said(q.words || "something that was not written down.")}{" "}
        <span className="text-ink-2">{day(q.on)}</span>
      </p>
      {onAnswer && (
        <form
          className="mt-1 flex flex-wrap items-center gap-3"
          onSubmit={(e: FormEvent<HTMLFormElement>) => {
            e.preventDefault();
            onAnswer(String(new FormData(e.currentTarget).get("answer")).trim());
          }}
        >
          <input
            name="answer"
            required
            maxLength={2000}
            aria-label={`Answer to ${name}`}
            className="w-80 max-w-full"
          />
          <Button type="submit">Answer</Button>
          <span className="text-[13px] text-ink-2">
            Other files are another order: take this one back, drop them as a revision of their own, and
            release a run of it.
          </span>
        </form>
      )}
    </div>
  );
}

/** Everything that was written down of an order, with who said it. */
function Log({
  steps,
  mayTake,
  onRemove,
}: {
  steps: readonly OrderStep[];
  mayTake: (s: OrderStep) => boolean;
  onRemove: (s: OrderStep) => void;
}) {
  const [isShown, setShown] = useState(false);
  return (
    <div className={isShown ? "w-full" : ""}>
      <button type="button" className="quiet-link" aria-expanded={isShown} onClick={() => setShown(!isShown)}>
        {isShown
          ? "hide what was said"
          : `what was said, ${steps.length} ${steps.length === 1 ? "entry" : "entries"}`}
      </button>
      {isShown && (
        <ul className="mt-1">
          {steps.map((s) => (
            <li key={s.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1">
              <span className="num w-16 text-ink-2">{day(s.on)}</span>
              <span>
                {wordsOf(s.state, orderOf(s.order).kind)}
                {s.words && `: ${said(s.words)}`}
              </span>
              <span className="text-ink-2">{s.person}</span>
              {mayTake(s) && (
                <button
                  type="button"
                  className="quiet-link ml-auto"
                  aria-label={`Take away: ${wordsOf(s.state, orderOf(s.order).kind)}`}
                  onClick={() => onRemove(s)}
                >
                  take away
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
