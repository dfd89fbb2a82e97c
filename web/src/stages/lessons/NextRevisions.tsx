import type { LearnedAnswer } from "@kobbin/contract";
import { useMemo } from "react";
import { useDone } from "../../history/useDone.ts";
import { savePlan } from "../../resources/learned.ts";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { count, day, written } from "../../ui/text/format.ts";
import { type NextRevision, nextRevisions, type Speaks } from "./nextRevision.ts";

const KIND: Readonly<Record<Speaks["kind"], string>> = {
  fault: "known to be wrong",
  lesson: "does not hold",
  owner: "an owner says",
};

/** Of each product what speaks for a next revision, and what was decided: that none is needed is a decision too. */
export function NextRevisions({ data, isOwner }: { data: LearnedAnswer; isOwner: boolean }) {
  const all = useMemo(() => nextRevisions(data), [data]);
  const told = all.filter((n) => n.speaks.length > 0 || n.plan);
  if (told.length === 0) return null;
  return (
    <section aria-labelledby="next" className="mt-7">
      <h2 id="next" className="mb-1 text-[16px]">
        Next revisions
      </h2>
      <ul>
        {told.map((n) => (
          <OfProduct key={n.productId} of={n} isOwner={isOwner} />
        ))}
      </ul>
    </section>
  );
}

function OfProduct({ of: n, isOwner }: { of: NextRevision; isOwner: boolean }) {
  const done = useDone();
  const decide = (isNeeded: boolean | null, because = "", begins = "") => {
    const words =
      isNeeded === null ? "not decided" : isNeeded ? "a next revision is planned" : "none is needed";
    done(savePlan(n.productId, { isNeeded, because, begins, on: todayIso() }), `${n.product}: ${words}`);
  };
  const { plan } = n;
  return (
    <li className="border-t border-rule py-2 text-[14.5px]">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Mark kind={!plan || n.after.length > 0 ? "look" : "ready"} />
        <p className="min-w-0 flex-1">
          <b>{n.product}</b>, now {n.newest}:{" "}
          {n.speaks.length === 0
            ? "nothing speaks"
            : `${count(n.speaks.length, "thing")} ${n.speaks.length === 1 ? "speaks" : "speak"}`}{" "}
          for another
          {plan && (
            <span className="text-ink-2">
              ; decided on {day(plan.on)} by {plan.person}
            </span>
          )}
        </p>
        {n.after.length > 0 && (
          <span className="text-look">{count(n.after.length, "thing")} came after that</span>
        )}
      </div>
      <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1 pl-7">
        <legend className="sr-only">A next revision of {n.product}</legend>
        {(
          [
            [true, "planned"],
            [false, "none is needed"],
          ] as const
        ).map(([is, words]) => (
          <label key={words} className="flex min-h-7 items-center gap-[6px]">
            <input
              type="radio"
              name={`next ${n.productId}`}
              disabled={!isOwner}
              checked={plan?.isNeeded === is}
              onChange={() => decide(is, plan?.because, plan?.begins)}
            />
            {words}
          </label>
        ))}
        {plan && isOwner && (
          <>
            <Kept
              label={`Why, for ${n.product}`}
              isLabelHidden
              className="min-w-[22ch] flex-1"
              placeholder="because …"
              maxLength={1000}
              value={plan.because}
              onSave={(because) => decide(plan.isNeeded, because, plan.begins)}
            />
            {plan.isNeeded && (
              <Kept
                label={`When the next of ${n.product} begins`}
                isLabelHidden
                className="min-w-[34ch] flex-1"
                placeholder="from when, what is used up first"
                maxLength={300}
                value={plan.begins}
                onSave={(begins) => decide(true, plan.because, begins)}
              />
            )}
            <button type="button" className="quiet-link" onClick={() => decide(null)}>
              open again
            </button>
          </>
        )}
      </fieldset>
      {n.speaks.length > 0 && (
        <ul className="pl-7">
          {n.speaks.map((s) => (
            <li key={`${s.kind} ${s.id}`} className="flex flex-wrap gap-x-3">
              <span className="min-w-[16ch] text-ink-2">{KIND[s.kind]}</span>
              <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
                {s.kind === "owner" ? `“${s.words}”` : s.words}
                <span className="text-ink-2">
                  {" "}
                  since {day(s.since)}
                  {s.minutes > 0 && `, ${written(String(Math.round(s.minutes)))} min of own work so far`}
                  {s.planned && `; to be mended in ${s.planned}`}
                </span>
              </span>
              {n.after.includes(s) && <span className="text-look">new</span>}
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}
