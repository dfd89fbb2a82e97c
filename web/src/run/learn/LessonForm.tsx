import { type LessonProposal, lessonWords, shapes } from "@kobbin/core";
import { useState } from "react";
import { addLesson } from "../../resources/learned.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Skeleton } from "../../ui/States.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { said } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { useRun } from "../runState.ts";
import { CheckDrawing } from "./CheckDrawing.tsx";
import { useProposals } from "./useProposals.ts";
import type { WentWrong } from "./wentWrong.ts";

export const SURE_WORDS = {
  certain: "certain",
  likely: "likely",
  suspected: "only suspected",
} as const;
export const LEVEL_WORDS = { error: "the order stops", warning: "somebody has to look" } as const;

/** Checks that might keep it from happening again, those that would have caught it first; one is taken. */
export function LessonForm({ of, onClose }: { of: WentWrong; onClose: () => void }) {
  const proposals = useProposals(of);
  return proposals ? (
    <Choose of={of} proposals={proposals} onClose={onClose} />
  ) : (
    <div role="status" aria-label="Trying what might have caught it">
      <Skeleton rows={4} />
    </div>
  );
}

function Choose({
  of,
  proposals,
  onClose,
}: {
  of: WentWrong;
  proposals: readonly LessonProposal[];
  onClose: () => void;
}) {
  const { doc, answer, did } = useRun();
  const sayError = useSayError();
  const [at, setAt] = useState(0);
  const chosen = proposals[at]!;
  const [title, setTitle] = useState<string>();
  const [level, setLevel] = useState<"error" | "warning">();
  const [sure, setSure] = useState<"certain" | "likely" | "suspected">();
  const [only, setOnly] = useState(false);
  const words = (title ?? chosen.title).trim();
  const keep = () => {
    const done = addLesson({
      title: words,
      check: chosen.check,
      level: level ?? chosen.level,
      sure: sure ?? chosen.sure,
      came: of.came.slice(0, 300),
      evidence: of.words === words ? "" : of.words,
      since: todayIso(),
      revisionId: answer.revisionId,
      ...(only ? { productId: answer.productId } : {}),
    });
    done.catch(sayError);
    did(`Learned: ${words}`, done);
    onClose();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (words !== "") keep();
      }}
    >
      <fieldset className="mb-3 max-h-[44vh] overflow-y-auto">
        <legend className="sr-only">What is looked at</legend>
        {proposals.map((p, i) => (
          <Proposal
            key={`${p.check.kind} ${p.title}`}
            proposal={p}
            isOn={i === at}
            onTake={() => {
              setAt(i);
              setTitle(undefined);
            }}
          />
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-x-5 gap-y-2 max-sm:grid-cols-1">
        <Field
          label="In a sentence"
          className="col-span-2 max-sm:col-span-1"
          maxLength={shapes.LONGEST_TITLE}
          value={title ?? chosen.title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <Pick
          label="Where it does not hold"
          value={level ?? chosen.level}
          options={Object.entries(LEVEL_WORDS)}
          onChange={(v) => setLevel(v as "error")}
        />
        <Pick
          label="That this was the cause is"
          value={sure ?? chosen.sure}
          options={Object.entries(SURE_WORDS)}
          onChange={(v) => setSure(v as "certain")}
        />
        <label className="col-span-2 flex min-h-8 items-center gap-2 max-sm:col-span-1">
          <input type="checkbox" checked={only} onChange={(e) => setOnly(e.target.checked)} />
          of {doc.product} alone, not of every design
        </label>
      </div>
      <div className="mt-3 flex gap-3">
        <Button type="submit" look="main" disabled={words === ""}>
          Keep it
        </Button>
        <Button look="bare" onClick={onClose}>
          not now
        </Button>
      </div>
    </form>
  );
}

function Proposal({
  proposal: p,
  isOn,
  onTake,
}: {
  proposal: LessonProposal;
  isOn: boolean;
  onTake: () => void;
}) {
  const statement = lessonWords(p.check).replace(/^./, (c) => c.toUpperCase());
  return (
    <label
      className={`flex cursor-pointer items-center gap-4 border-t border-rule px-2 py-[6px] ${isOn ? "bg-metal-soft" : "hover:bg-paper"}`}
    >
      <input type="radio" name="check" checked={isOn} onChange={onTake} />
      <CheckDrawing check={p.check} />
      <span className="min-w-0 text-[14.5px]">
        <b>{p.check.kind === "asked" ? "A question to every later board" : said(statement)}</b>
        <span className="block text-[13.5px] text-ink-2">{tried(p)}</span>
      </span>
    </label>
  );
}

const tried = (p: LessonProposal): string =>
  p.here
    ? `It would have caught it: ${p.here.found}`
    : p.check.kind === "place"
      ? "Not tried: the files of this board could not be read there. It is read in each board’s files, this one’s too."
      : p.check.kind === "asked"
        ? "It cannot be measured: whoever releases it has to look."
        : "Asked of every run that uses it, until it is cleared.";
