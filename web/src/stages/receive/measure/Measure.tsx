import {
  boardKey,
  type FitJudged,
  judgeLot,
  type LotMeasured,
  type MeasurePoint,
  readReading,
} from "@kobbin/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { BigKey, Frame } from "../../../bench-side/Frame.tsx";
import { addMeasured } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { type KeyBinding, useKeys } from "../../../ui/keys.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { mm } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { CalliperPicture } from "./CalliperPicture.tsx";
import {
  type Ask,
  answered,
  answersOf,
  asksOf,
  type Draft,
  draftFrom,
  emptyDraft,
  nextLabel,
} from "./measureModel.ts";

/** One board under the calliper: a size at a time, drawn where it is, judged at once against the order and what it must go into. */
export function Measure({ index, onLeave }: { index: number; onLeave: () => void }) {
  const { id, doc, record, result, did } = useRun();
  const sayError = useSayError();
  const board = doc.boards[index]!;
  const lot = useMemo(() => judgeLot(doc, result, record, index), [doc, result, record, index]);
  const asks = useMemo(() => asksOf(lot), [lot]);
  const store = `kobbin measure ${id} ${lot.item}`;
  const labels = useMemo(() => lot.boards.map((b) => b.board.label), [lot]);
  const [draft, setDraft] = useState<Draft>(() =>
    draftFrom(localStorage.getItem(store), nextLabel(labels), asks),
  );
  const keep = (d: Draft) => {
    setDraft(d);
    localStorage.setItem(store, JSON.stringify(d));
  };
  const ask = asks[draft.at];
  const back = () => draft.at > 0 && keep({ ...draft, at: draft.at - 1 });
  const save = () => {
    if (answersOf(draft) === 0) return;
    // of the delivery that came last: what was measured goes where that goes
    const receipt = record.receipts.filter((r) => r.item === lot.item && !r.isApart).at(-1)?.id;
    const done = addMeasured(id, {
      item: boardKey(doc, index),
      ...(receipt === undefined ? {} : { receipt }),
      label: draft.label,
      on: todayIso(),
      readings: draft.readings,
      looks: draft.looks,
    });
    done.catch((error) => {
      sayError(error);
      // it is not kept: it stands here again, unless another board was begun
      setDraft((now) => {
        if (answersOf(now) > 0) return now;
        localStorage.setItem(store, JSON.stringify(draft));
        return draft;
      });
    });
    did(`Board ${draft.label} is measured`, done);
    keep(emptyDraft(nextLabel([...labels, draft.label])));
  };
  const answer = (value: readonly number[] | boolean | undefined) => ask && keep(answered(draft, ask, value));
  return (
    <Frame
      label={`Measuring ${board.name}`}
      share={asks.length === 0 ? 0 : draft.at / asks.length}
      onLeave={onLeave}
      head={
        <>
          <b className="text-[19px]">Board {draft.label}</b>
          <span className="text-[15px] text-ink-2">
            {new Set(labels).size} of {lot.sample} measured, {lot.lot} came
          </span>
        </>
      }
      foot={<Foot ask={ask} draft={draft} onAnswer={answer} onBack={back} onSave={save} onLeave={onLeave} />}
    >
      <div className="grid grid-cols-[auto_minmax(280px,1fr)] items-start gap-8 max-lg:grid-cols-1 max-lg:gap-3">
        <CalliperPicture board={board} point={ask?.kind === "size" ? ask.point : undefined} />
        {ask?.kind === "size" ? (
          <Size
            key={`${draft.label} ${ask.key}`}
            ask={ask}
            draft={draft}
            lot={lot}
            onAnswer={answer}
            // while one types the page's own keys rest
            onKey={(key) => keysOf(back, () => answer(undefined), onLeave)[key]}
          />
        ) : ask ? (
          <LookAt ask={ask} draft={draft} />
        ) : (
          <Done draft={draft} lot={lot} />
        )}
      </div>
    </Frame>
  );
}

const keysOf = (
  PageUp: () => unknown,
  PageDown: () => unknown,
  Escape: () => unknown,
): Readonly<Record<string, () => unknown>> => ({ PageUp, PageDown, Escape });

function Foot({
  ask,
  draft,
  onAnswer,
  onBack,
  onSave,
  onLeave,
}: {
  ask: Ask | undefined;
  draft: Draft;
  onAnswer: (v: boolean | undefined) => void;
  onBack: () => void;
  onSave: () => void;
  onLeave: () => void;
}) {
  const isLook = ask?.kind === "look";
  const bindings: KeyBinding[] = [
    { keys: "Escape", does: "leaves the measuring", run: onLeave },
    { keys: "PageUp", does: "the size before", run: onBack },
    { keys: "PageDown", does: "leaves this size away", run: () => ask && onAnswer(undefined) },
    ...(isLook
      ? [
          { keys: "y", does: "it is as ordered", run: () => onAnswer(true) },
          { keys: "n", does: "it is not", run: () => onAnswer(false) },
        ]
      : []),
    ...(ask ? [] : [{ keys: "Enter", does: "keeps this board", run: onSave }]),
  ];
  useKeys(bindings, true);
  return (
    <div className="flex flex-wrap gap-3">
      {isLook && (
        <>
          <BigKey keys="y" look="main" onPress={() => onAnswer(true)}>
            yes
          </BigKey>
          <BigKey keys="n" onPress={() => onAnswer(false)}>
            no
          </BigKey>
        </>
      )}
      {!ask && (
        <BigKey keys="Enter" look="main" isOff={answersOf(draft) === 0} onPress={onSave}>
          keep board {draft.label}
        </BigKey>
      )}
      <BigKey keys="PgUp" isOff={draft.at === 0} onPress={onBack}>
        back
      </BigKey>
      {ask && (
        <BigKey keys="PgDn" onPress={() => onAnswer(undefined)}>
          leave it away
        </BigKey>
      )}
    </div>
  );
}

/** A size to read: what it should be, and what is read. Enter goes on. */
function Size({
  ask,
  draft,
  lot,
  onAnswer,
  onKey,
}: {
  ask: Extract<Ask, { kind: "size" }>;
  draft: Draft;
  lot: LotMeasured;
  onAnswer: (v: readonly number[]) => void;
  onKey: (key: string) => (() => unknown) | undefined;
}) {
  const { doc, result, record } = useRun();
  const { point: p } = ask;
  const [text, setText] = useState((draft.readings[p.key] ?? []).join(" "));
  const [asked, setAsked] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const read = text.trim() === "" ? undefined : readReading(text, p.mm);
  const isIn = read && "values" in read && read.values.every((v) => Math.abs(v - p.mm) <= p.tolMm + 1e-9);
  const fits = read && "values" in read ? fitsSoFar({ doc, result, record }, lot, draft, p, read.values) : [];
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (!read || "wrong" in read) return;
        if (read.doubt && asked !== text) return setAsked(text);
        onAnswer(read.values);
      }}
    >
      <h2 className="text-[30px] leading-tight max-sm:text-[22px]">{p.what}</h2>
      <p className="text-[17px] text-ink-2">{p.how}</p>
      <p className="num mt-2 text-[26px] max-sm:text-[20px]">
        {mm(p.mm)} ± {mm(p.tolMm)} mm
      </p>
      <p className="text-[14px] text-ink-2">{p.whose}</p>
      <div className="mt-3 flex items-stretch gap-3">
        <input
          ref={input}
          aria-label={`${p.what}, mm`}
          inputMode="decimal"
          autoComplete="off"
          className="num w-full max-w-[300px] text-[34px]! max-sm:text-[26px]!"
          value={text}
          onKeyDown={(e) => {
            const run = onKey(e.key);
            if (!run) return;
            e.preventDefault();
            run();
          }}
          onChange={(e) => {
            setText(e.target.value);
            setAsked(undefined);
          }}
        />
        <button
          type="submit"
          className="rounded-[4px] border border-ink bg-ink px-5 text-[19px] font-semibold text-paper"
        >
          on
        </button>
      </div>
      <p role="status" className="mt-2 min-h-[56px] text-[18px]">
        {read && "wrong" in read ? (
          <span className="text-look">{read.wrong}</span>
        ) : read?.doubt ? (
          <span className="text-look">
            {read.doubt}
            {asked === text ? " Enter takes it." : ""}
          </span>
        ) : read ? (
          <span className={isIn ? "text-fine" : "text-stop"}>
            {isIn ? "as ordered" : `not as ordered: beyond ± ${mm(p.tolMm)} mm`}
          </span>
        ) : (
          <span className="text-ink-3">One reading or several, apart by a blank; Enter goes on.</span>
        )}
        {fits.map((f) => (
          <span
            key={f.row.id}
            className={`block text-[16px] ${f.verdict === "does-not-fit" ? "text-stop" : f.verdict === "fits" ? "text-fine" : "text-look"}`}
          >
            {f.row.label}: {FIT[f.verdict]}
          </span>
        ))}
      </p>
    </form>
  );
}

/** What the readings of a board so far mean for what it must go into, as far as this size has a say. */
function fitsSoFar(
  { doc, result, record }: Pick<ReturnType<typeof useRun>, "doc" | "result" | "record">,
  lot: LotMeasured,
  draft: Draft,
  point: MeasurePoint,
  values: readonly number[],
): readonly FitJudged[] {
  const readings = { ...draft.readings, [point.key]: values };
  const now = {
    id: "now",
    item: lot.item,
    label: draft.label,
    on: todayIso(),
    readings,
    looks: {},
    note: "",
  };
  const index = doc.boards.findIndex((_, i) => boardKey(doc, i) === lot.item);
  const [board] = judgeLot(doc, result, { ...record, measured: [now] }, index).boards;
  return board!.fits.filter((f) => point.fits.includes(f.row.id));
}

const FIT = {
  fits: "goes together",
  loose: "goes together, loosely",
  "may-not-fit": "not settled by this: try it in",
  "does-not-fit": "does not go together",
  unknown: "nothing can be said",
} as const;

function LookAt({ ask, draft }: { ask: Extract<Ask, { kind: "look" }>; draft: Draft }) {
  const was = draft.looks[ask.key];
  return (
    <div>
      <p className="text-[17px] text-ink-2">Look at it: is it so?</p>
      <h2 className="text-[30px] leading-tight max-sm:text-[22px]">{ask.words}</h2>
      {was !== undefined && <p className="text-[16px] text-ink-2">answered: {was ? "yes" : "no"}</p>}
    </div>
  );
}

/** What was answered of a board, before it is kept. */
function Done({ draft, lot }: { draft: Draft; lot: LotMeasured }) {
  return (
    <div>
      <h2 className="text-[26px]">Board {draft.label}</h2>
      {answersOf(draft) === 0 && <p className="text-[17px] text-ink-2">Nothing was read or looked at.</p>}
      <ul className="text-[17px]">
        {lot.points.flatMap((p) => {
          const values = draft.readings[p.key];
          if (!values) return [];
          const isIn = values.every((v) => Math.abs(v - p.mm) <= p.tolMm + 1e-9);
          return [
            <li key={p.key} className={isIn ? "" : "text-stop"}>
              {p.what} <span className="num">{values.map(mm).join(" ")}</span>
              {isIn ? "" : `, ordered ${mm(p.mm)} ± ${mm(p.tolMm)}`}
            </li>,
          ];
        })}
        {lot.looks.flatMap((l) =>
          draft.looks[l.key] === undefined
            ? []
            : [
                <li key={l.key} className={draft.looks[l.key] ? "" : "text-stop"}>
                  {draft.looks[l.key] ? "" : "not: "}
                  {l.words}
                </li>,
              ],
        )}
      </ul>
    </div>
  );
}
