import {
  type Claim,
  type ClaimState,
  claimLetter,
  type Disagrees,
  disagreesOf,
  judgeLot,
  type PlannedOrder,
  photosOf,
  type RunDocument,
  type RunRecord,
  type RunResult,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { addClaim, removeClaim, saveClaim } from "../../resources/record.ts";
import { WriteDown } from "../../run/learn/WriteDown.tsx";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { useOnce } from "../../ui/once.ts";
import { todayIso } from "../../ui/text/dates.ts";
import { count, day, typedAmount, written } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { ClaimPaper, seen } from "./ClaimPaper.tsx";

const STATES: Readonly<Record<ClaimState, string>> = {
  open: "not sent yet",
  sent: "sent",
  settled: "settled",
  refused: "refused",
};

/** Boards of an order as they were measured: those that may be used, and those set apart. */
const lotsOf = (o: PlannedOrder, doc: RunDocument, r: RunResult, record: RunRecord) =>
  o.kind === "boards"
    ? doc.boards.flatMap((_, i) => [judgeLot(doc, r, record, i), judgeLot(doc, r, record, i, "apart")])
    : [];

/** What of an order came otherwise than ordered: what to claim, with its letter drafted, and what became of it. */
export function Claims({ order: o, isOpen }: { order: PlannedOrder; isOpen: boolean }) {
  const { doc, record, result } = useRun();
  const [writing, setWriting] = useState<string>();
  const lots = useMemo(() => lotsOf(o, doc, result, record), [o, doc, result, record]);
  const found = useMemo(() => disagreesOf(o, record, lots), [o, record, lots]);
  const claims = (record.claims ?? []).filter((c) => c.order === o.key);
  if (found.length + claims.length === 0) return null;
  return (
    <section aria-label={`Claims at ${o.name}`} className="border-t border-rule px-4 py-2">
      <ul>
        {found.map((d) => (
          <li key={d.item} className="py-1 text-[14.5px]">
            <p className="flex flex-wrap items-baseline gap-x-4">
              <span className="text-look">
                {d.label}: {d.kind === "short" ? `${count(d.pieces, "piece")} short` : d.because}
              </span>
              {isOpen && writing !== d.item && (
                <button
                  type="button"
                  className="quiet-link ml-auto min-h-6"
                  onClick={() => setWriting(d.item)}
                >
                  claim it
                </button>
              )}
            </p>
            {writing === d.item && <Write order={o} found={d} onDone={() => setWriting(undefined)} />}
          </li>
        ))}
        {claims.map((c) => (
          <Standing key={c.id} claim={c} order={o} isOpen={isOpen} />
        ))}
      </ul>
    </section>
  );
}

/** The letter, drafted from what was counted and measured; it is read, changed and sent by a person. */
function Write({
  order: o,
  found: d,
  onDone,
}: {
  order: PlannedOrder;
  found: Disagrees;
  onDone: () => void;
}) {
  const { id, doc, record, result, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const [letter, setLetter] = useState(() => {
    const item = o.items.find((i) => i.key === d.item);
    const lots = lotsOf(o, doc, result, record).filter((l) => l.item === d.item);
    const lot = lots.find((l) => l.notAsOrdered.length > 0);
    return claimLetter(doc, o, item, d, { record, today: todayIso(), ...(lot ? { lot } : {}) });
  });
  return (
    <form
      className="my-2 border-l-[3px] border-metal bg-metal-soft px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        once(() => {
          const done = addClaim(id, {
            order: o.key,
            item: d.item,
            pieces: d.pieces,
            because: d.because,
            letter,
            on: todayIso(),
          });
          did(`A claim at ${o.name} is written down`, done);
          return done.then(onDone, sayError);
        });
      }}
    >
      <label className="block text-[13.5px] text-ink-2">
        Letter
        <textarea
          className="num mt-1 block w-full text-[13.5px]"
          rows={14}
          maxLength={10_000}
          value={letter}
          onChange={(e) => setLetter(e.target.value)}
        />
      </label>
      <div className="mt-2 flex gap-3">
        <Button type="submit" look="main" className="min-h-11">
          Write it down
        </Button>
        <Button className="min-h-11" onClick={onDone}>
          Not now
        </Button>
      </div>
    </form>
  );
}

/** The number of the part a claim is about; nothing of boards. */
const mpnOf = (doc: RunDocument, item: string | undefined): string | undefined => {
  const offer = doc.offers.find((x) => x.id === item);
  const line = offer && doc.lines.find((l) => l.id === offer.line);
  return line?.mpn || undefined;
};

/** A claim as it stands: its letter to copy, whether it is sent, what was answered, what came of it. */
function Standing({ claim: c, order: o, isOpen }: { claim: Claim; order: PlannedOrder; isOpen: boolean }) {
  const { id, doc, record, did } = useRun();
  const [isLearning, setIsLearning] = useState(false);
  const [isPrinting, setPrinting] = useState(false);
  const photos = photosOf(record, o.key, c.item);
  const say = useSay();
  const sayError = useSayError();
  const save = (body: Parameters<typeof saveClaim>[2], words: string) => {
    const done = saveClaim(id, c.id, body);
    done.catch(sayError);
    did(words, done);
  };
  const label = o.items.find((i) => i.key === c.item)?.label ?? o.name;
  return (
    <li className="py-1 text-[14.5px]">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span>
          <b>Claimed on {day(c.openedOn)}</b>, {c.pieces > 0 ? `${c.pieces} × ` : ""}
          {label}: {c.because}
        </span>
        <span
          className={c.state === "refused" ? "text-stop" : c.state === "settled" ? "text-fine" : "text-look"}
        >
          {STATES[c.state]}
          {c.credit ? `, ${written(c.credit)} ${o.currency} back` : ""}
        </span>
      </p>
      {c.answer !== "" && <p className="text-ink-2">“{c.answer}”</p>}
      {isOpen && (
        <button
          type="button"
          className="quiet-link min-h-6"
          aria-label={`${label}: so that it costs once`}
          onClick={() => setIsLearning(true)}
        >
          so that it costs once
        </button>
      )}
      {isPrinting && <ClaimPaper claim={c} photos={photos} onDone={() => setPrinting(false)} />}
      {isLearning && (
        <WriteDown
          of={{
            place: "",
            words: c.because,
            came: `a claim at ${o.name}, ${day(c.openedOn)}`,
            ...(mpnOf(doc, c.item) ? { mpn: mpnOf(doc, c.item)! } : {}),
          }}
          onClose={() => setIsLearning(false)}
        />
      )}
      {isOpen && (
        <details className="mt-1">
          <summary className="quiet-link cursor-pointer">letter and answer</summary>
          <pre className="num my-1 border border-rule bg-paper p-2 text-[13px] whitespace-pre-wrap">
            {c.letter}
          </pre>
          <div className="flex flex-wrap items-end gap-4">
            <Button
              onClick={() =>
                navigator.clipboard.writeText(c.letter).then(
                  () => say("The letter is copied"),
                  () => say("It could not be copied: select it in the text above.", { isProblem: true }),
                )
              }
            >
              Copy the letter
            </Button>
            {photos.length > 0 && (
              <Button onClick={() => void seen(photos).then(() => setPrinting(true))}>
                Print it with {count(photos.length, "photo")}
              </Button>
            )}
            <Pick
              label="It is"
              value={c.state}
              options={(Object.keys(STATES) as ClaimState[]).map((s) => [s, STATES[s]])}
              onChange={(v) =>
                save({ state: v as ClaimState }, `The claim at ${o.name}: ${STATES[v as ClaimState]}`)
              }
            />
            <Kept
              label="They answered"
              className="min-w-[220px] flex-1"
              maxLength={2000}
              value={c.answer}
              onSave={(answer) => save({ answer }, `What ${o.name} answered is kept`)}
            />
            <Kept
              label={`Paid back, ${o.currency}`}
              className="w-[120px]"
              isMono
              value={written(c.credit ?? "")}
              onSave={(text) => {
                const credit = text === "" ? null : typedAmount(text);
                if (credit === undefined)
                  return say(`“${text}” is no amount.`, { isProblem: true, hint: "Write it as 12.50." });
                save({ credit }, `What ${o.name} paid back is kept`);
              }}
            />
            <button
              type="button"
              className="quiet-link min-h-6"
              onClick={() => {
                const gone = removeClaim(id, c.id);
                gone.catch(sayError);
                did(`Nothing is claimed of ${label} after all`, gone);
              }}
            >
              take it back
            </button>
          </div>
        </details>
      )}
    </li>
  );
}
