import {
  judgeRight,
  openQuestions,
  RIGHT_WORDS,
  type Right,
  type RightKind,
  SALE_WORDS,
  shapes,
} from "@kobbin/core";
import { useState } from "react";
import { addRight, removeRight, saveRight } from "../../resources/rights.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

const NONE: readonly Right[] = [];
const STATES = {
  unknown: "nobody has looked",
  own: "our own",
  granted: "granted to us",
  refused: "not granted",
} as const;
const MARK = { proven: "ready", open: "look", refused: "blocked" } as const;

/** Whose the marks, pictures, files and designs of the product are, and whether the run is made to be sold. */
export function Rights() {
  const { doc, isLocked, change } = useRun();
  const all = doc.rights ?? NONE;
  const rights = all.filter((r) => r.kind !== "question");
  const unproven = rights.filter((r) => judgeRight(r) !== "proven").length;
  const use = doc.choices.use;
  return (
    <Fold
      id="rights"
      title="Whose it is"
      verdict={`${use === "private" ? "for this shop alone" : use === "sold" ? "made to be sold" : "not said whether it is sold"}; ${
        rights.length === 0
          ? "no mark, picture or borrowed thing is written down"
          : unproven === 0
            ? `all ${rights.length} may be used`
            : `${count(unproven, "thing")} of ${rights.length} nobody has shown to be allowed`
      }`}
    >
      <fieldset className="mb-3 flex flex-wrap gap-x-6" disabled={isLocked}>
        <legend className="sr-only">What the run is made for</legend>
        {(
          [
            ["sold", "made to be sold or given away"],
            ["private", "for this shop alone"],
          ] as const
        ).map(([v, words]) => (
          <label key={v} className="flex min-h-8 items-center gap-2">
            <input
              type="radio"
              name="use"
              checked={use === v}
              onChange={() => change({ use: v }, `The run is ${words}`)}
            />
            {words}
          </label>
        ))}
      </fieldset>
      <ul>
        {rights.map((r) => (
          <Row key={r.id} right={r} isLocked={isLocked} />
        ))}
      </ul>
      {!isLocked && <Another />}
      {use === "sold" && <Questions rights={all} isLocked={isLocked} />}
    </Fold>
  );
}

/** What was done to a row, with undo. */
function useDone() {
  const { did } = useRun();
  const sayError = useSayError();
  return (done: ReturnType<typeof saveRight | typeof addRight>, words: string) => {
    done.catch(sayError);
    did(words, done);
  };
}

type Save = (change: Parameters<typeof saveRight>[1], words: string) => void;

function Row({ right: r, isLocked }: { right: Right; isLocked: boolean }) {
  const done = useDone();
  const verdict = judgeRight(r);
  const save: Save = (change, words) => done(saveRight(r.id, change), `${r.what}: ${words}`);
  return (
    <li className="border-t border-rule py-2 text-[14.5px]">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <Mark kind={MARK[verdict]} />
        <b>{r.what}</b>
        <span className="min-w-0 flex-1 text-ink-2">{RIGHT_WORDS[r.kind]}</span>
        {!isLocked && (
          <button
            type="button"
            className="quiet-link min-h-6"
            aria-label={`${r.what} is not on the product`}
            onClick={() => done(removeRight(r.id), `No longer on the product: ${r.what}`)}
          >
            not on it
          </button>
        )}
      </p>
      {isLocked ? (
        <p className="pl-7 text-ink-2">
          {[STATES[r.state], r.owner && `of ${r.owner}`, r.place, r.evidence].filter(Boolean).join("; ")}
        </p>
      ) : (
        <Fields right={r} save={save} />
      )}
    </li>
  );
}

/** What is said of it; of a borrowed design also what one has to know before money is spent on it. */
function Fields({ right: r, save }: { right: Right; save: Save }) {
  return (
    <div className="mt-1 grid grid-cols-4 gap-x-4 items-end gap-y-1 pl-7 max-md:grid-cols-2 max-sm:grid-cols-1 max-sm:pl-0">
      <Pick
        label="May it be used"
        value={r.state}
        options={Object.entries(STATES)}
        onChange={(v) => save({ state: v as Right["state"] }, STATES[v as Right["state"]])}
      />
      <Kept
        label="Whose it is"
        maxLength={200}
        value={r.owner}
        onSave={(owner) => save({ owner }, "whose it is, is kept")}
      />
      <Kept
        label="Where it is"
        maxLength={120}
        placeholder="top silkscreen, font.zip"
        value={r.place}
        onSave={(place) => save({ place }, "where it is, is kept")}
      />
      <Kept
        label="What you would show"
        maxLength={1000}
        placeholder="licence, letter, report"
        value={r.evidence}
        onSave={(evidence) => save({ evidence }, "what entitles to it is kept")}
      />
      {r.kind === "design" && (
        <>
          <Pick
            label="Has anybody got it working"
            value={r.facts.built ?? ""}
            options={[
              ["", "not known"],
              ["yes", "yes"],
              ["no", "no"],
            ]}
            onChange={(v) => {
              const { built: _, ...facts } = r.facts;
              save({ facts: v === "" ? facts : { ...facts, built: v as "yes" } }, "who built it is kept");
            }}
          />
          {(
            [
              ["version", "Version that was taken"],
              ["status", "What its author says of it"],
              ["limits", "Its limits"],
            ] as const
          ).map(([key, label]) => (
            <Kept
              key={key}
              label={label}
              maxLength={key === "version" ? 120 : 500}
              value={r.facts[key] ?? ""}
              onSave={(v) => {
                const { [key]: _, ...facts } = r.facts;
                save({ facts: v === "" ? facts : { ...facts, [key]: v } }, `${label.toLowerCase()} is kept`);
              }}
            />
          ))}
        </>
      )}
    </div>
  );
}

const KINDS = shapes.RIGHT_KINDS.filter((k) => k !== "question");

function Another() {
  const { answer } = useRun();
  const done = useDone();
  const [kind, setKind] = useState<RightKind>("logo");
  const [what, setWhat] = useState("");
  return (
    <form
      className="flex flex-wrap items-end gap-4 border-t border-rule py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (what.trim() === "") return;
        done(addRight(answer.productId, { kind, what: what.trim() }), `On the product: ${what.trim()}`);
        setWhat("");
      }}
    >
      <Pick
        label="There is"
        value={kind}
        options={KINDS.map((k) => [k, RIGHT_WORDS[k]])}
        onChange={(v) => setKind(v as RightKind)}
      />
      <Field
        label="called"
        className="min-w-[22ch] flex-1"
        maxLength={200}
        placeholder="emblem of the pottery fair"
        value={what}
        onChange={(e) => setWhat(e.target.value)}
      />
      <Button type="submit" disabled={what.trim() === ""}>
        Add it
      </Button>
    </form>
  );
}

/** Questions before it is sold: each with what one would show. Kobbin asks them and answers none. */
function Questions({ rights, isLocked }: { rights: readonly Right[]; isLocked: boolean }) {
  const { answer } = useRun();
  const done = useDone();
  const open = openQuestions(rights);
  return (
    <section aria-label="Before it is sold" className="border-t border-rule pt-2">
      <h3 className="text-[15px] font-semibold">
        Before it is sold:{" "}
        {open.length === 0 ? "every question has an answer" : `${count(open.length, "question")} open`}
      </h3>
      <p className="mb-1 text-[13.5px] text-ink-2">
        Kobbin asks and does not judge. Local law, and where it is required a licensed person, come first.
      </p>
      {shapes.SALE_QUESTIONS.map((q) => {
        const r = rights.find((x) => x.kind === "question" && x.what === q);
        const keep = (evidence: string) => {
          const words = "The answer is kept";
          if (!r)
            return done(
              addRight(answer.productId, { kind: "question", what: q, state: "own", evidence }),
              words,
            );
          done(evidence === "" ? removeRight(r.id) : saveRight(r.id, { state: "own", evidence }), words);
        };
        return isLocked ? (
          <p key={q} className="text-[14.5px]">
            {SALE_WORDS[q]} <b>{r?.evidence ?? "Not answered."}</b>
          </p>
        ) : (
          <Kept
            key={q}
            label={SALE_WORDS[q]}
            maxLength={1000}
            value={r?.evidence ?? ""}
            onSave={keep}
            className="mb-1"
          />
        );
      })}
    </section>
  );
}
