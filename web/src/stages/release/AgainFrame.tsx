import { type AskedAgain, againWrong, askedAgain, typedAgain } from "@kobbin/core";
import { useEffect, useRef, useState } from "react";
import { BigKey, Frame } from "../../bench-side/Frame.tsx";
import { useRun } from "../../run/runState.ts";
import { type KeyBinding, useKeys } from "../../ui/keys.ts";
import { todayIso } from "../../ui/text/dates.ts";
import { Where } from "./Where.tsx";

/** What was typed so far, and which question is next: kept while the page is open, so that leaving loses nothing. */
export interface AgainDraft {
  readonly at: number;
  readonly said: Readonly<Record<string, string>>;
}
export const NOTHING_TYPED: AgainDraft = { at: 0, said: {} };

/** One question after the other over the whole screen, so that nothing on the page tells what is asked. */
export function AgainFrame({
  draft: { at, said },
  onDraft,
  onLeave,
}: {
  draft: AgainDraft;
  onDraft: (draft: AgainDraft) => void;
  onLeave: () => void;
}) {
  const { doc, result, change } = useRun();
  // what is asked stays while one types, whatever others change
  const [asks] = useState(() => askedAgain({ ...result, doc, options: result.options }));
  const ask = asks[at];
  const count = Object.keys(said).length;
  const answer = (text?: string) => {
    if (!ask) return;
    const { [ask.key]: _, ...rest } = said;
    onDraft({ at: at + 1, said: text === undefined ? rest : { ...rest, [ask.key]: text } });
  };
  const back = () => onDraft({ at: Math.max(0, at - 1), said });
  const keep = () => {
    if (count === 0) return;
    change({ again: typedAgain(said, todayIso()) }, "What was typed again, unseen");
    onDraft(NOTHING_TYPED);
    onLeave();
  };
  const bindings: KeyBinding[] = [
    { keys: "Escape", does: "leaves; what was typed waits here", run: onLeave },
    { keys: "PageUp", does: "the question before", run: back },
    { keys: "PageDown", does: "not known", run: () => answer(undefined) },
    ...(ask ? [] : [{ keys: "Enter", does: "holds them against the files", run: keep }]),
  ];
  useKeys(bindings, true);
  return (
    <Frame
      label="Typed again, unseen"
      share={asks.length === 0 ? 1 : at / asks.length}
      onLeave={onLeave}
      head={
        <>
          <b className="text-[19px]">Typed again, unseen</b>
          <span className="text-[15px] text-ink-2">
            {Math.min(at + 1, asks.length)} of {asks.length}
          </span>
        </>
      }
      foot={
        <div className="flex flex-wrap gap-3">
          {!ask && (
            <BigKey keys="Enter" look="main" isOff={count === 0} onPress={keep}>
              hold them against the files
            </BigKey>
          )}
          <BigKey keys="PgUp" isOff={at === 0} onPress={back}>
            back
          </BigKey>
          {ask && (
            <BigKey keys="PgDn" onPress={() => answer(undefined)}>
              not known
            </BigKey>
          )}
        </div>
      }
    >
      {ask ? (
        <Question
          key={ask.key}
          ask={ask}
          was={said[ask.key] ?? ""}
          onAnswer={answer}
          // while one types the page's own keys rest
          onKey={keysOf(onLeave, back, answer)}
        />
      ) : (
        <p className="text-[26px] max-sm:text-[20px]">
          {count === 0
            ? "Nothing was typed."
            : `${count} of ${asks.length} typed. Now they are held against the files.`}
        </p>
      )}
    </Frame>
  );
}

const keysOf = (
  Escape: () => void,
  PageUp: () => void,
  PageDown: () => void,
): Readonly<Record<string, () => void>> => ({
  Escape,
  PageUp,
  PageDown,
});

/** What is asked, where it is on the board, and what is typed. Enter goes on. */
function Question({
  ask,
  was,
  onAnswer,
  onKey,
}: {
  ask: AskedAgain;
  was: string;
  onAnswer: (text: string) => void;
  onKey: Readonly<Record<string, () => void>>;
}) {
  const [text, setText] = useState(was);
  const [wrong, setWrong] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  return (
    <div className="grid grid-cols-[minmax(280px,1fr)_auto] items-start gap-8 max-lg:grid-cols-1 max-lg:gap-3">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const because = againWrong(ask, text);
          if (because) return setWrong(because);
          onAnswer(text.trim());
        }}
      >
        <h2 className="text-[34px] leading-tight first-letter:uppercase max-sm:text-[24px]">{ask.ask}</h2>
        <p className="mt-1 text-[18px] text-ink-2 max-sm:text-[15px]">{ask.how}</p>
        <div className="mt-4 flex items-stretch gap-3">
          <input
            ref={input}
            aria-label={ask.is.kind === "mm" ? `${ask.ask}, mm` : ask.ask}
            inputMode={ask.is.kind === "mm" ? "decimal" : ask.is.kind === "count" ? "numeric" : "text"}
            autoComplete="off"
            className="num w-full max-w-[320px] text-[34px]! max-sm:text-[26px]!"
            value={text}
            onKeyDown={(e) => {
              const run = onKey[e.key];
              if (!run) return;
              e.preventDefault();
              run();
            }}
            onChange={(e) => {
              setText(e.target.value);
              setWrong(undefined);
            }}
          />
          {ask.is.kind === "mm" && <span className="self-center text-[24px] text-ink-2">mm</span>}
          <button
            type="submit"
            className="rounded-[4px] border border-ink bg-ink px-5 text-[19px] font-semibold text-paper"
          >
            on
          </button>
        </div>
        <p role="status" className="mt-2 min-h-[30px] text-[18px] text-look">
          {wrong}
        </p>
      </form>
      {ask.at && <Where ask={ask} at={ask.at} />}
    </div>
  );
}
