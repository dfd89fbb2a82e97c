import { microsToNumber } from "@kobbin/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import { InColours } from "../../proof/InColours.tsx";
import { releaseRun } from "../../resources/run.ts";
import { NoteRow } from "../../run/Margin.tsx";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { count, money } from "../../ui/text/format.ts";

/** The gate between choosing and ordering: blockers first, then what to look at; releasing freezes what the order refers to. */
export function ReleasePage() {
  const { id, doc, result: r, isReleased, isLocked } = useRun();
  const navigate = useNavigate();
  const say = useSay();
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  const cautions = r.notes.filter((n) => n.level === "warning" && !n.acceptedBecause);
  const accepted = r.notes.filter((n) => n.acceptedBecause);
  const release = () => {
    setBusy(true);
    releaseRun(id)
      .then(() => {
        say("Released; the order package is ready");
        navigate(`/runs/${id}/order`);
      })
      .catch(sayError)
      .finally(() => setBusy(false));
  };
  return (
    <section className="max-w-[820px]">
      <div className="mb-4 flex items-start justify-between gap-6 max-md:flex-wrap">
        <div className="min-w-0">
          <h1>Release</h1>
          <p className="text-ink-2">
            The dearest losses come between the finished drawing and the paid order. What is open stands here;
            releasing freezes archive, bill, offers and options, and packs the orders.
          </p>
        </div>
        <InColours size={[130, 90]} />
      </div>
      <div className="mb-5 flex flex-wrap items-center gap-4 border-y border-rule py-4">
        <Mark
          kind={
            isReleased ? "frozen" : r.blockers.length > 0 ? "blocked" : cautions.length > 0 ? "look" : "ready"
          }
          count={isReleased ? undefined : r.blockers.length || cautions.length || undefined}
        />
        <p className="flex-1">
          {isReleased
            ? "This run is released."
            : r.blockers.length > 0
              ? `${count(r.blockers.length, "blocker")} to close before anything goes out.`
              : `Nothing blocks. ${r.start} boards are started for ${doc.goodBoards} good ones; cash needed is ${money(microsToNumber(r.cashNeeded), doc.workshop.currency)}.`}
        </p>
        {!isLocked && (
          <Button look="main" disabled={r.blockers.length > 0 || isBusy} onClick={release}>
            {isBusy ? "Packing …" : "Release and pack"}
          </Button>
        )}
      </div>
      <Group title="Blockers" empty="No blocker is open." notes={r.blockers} />
      <Group title="To look at" empty="Nothing wants a look." notes={cautions} />
      {accepted.length > 0 && <Group title="Accepted with a reason" empty="" notes={accepted} />}
    </section>
  );
}

function Group({
  title,
  empty,
  notes,
}: {
  title: string;
  empty: string;
  notes: ReturnType<typeof useRun>["result"]["notes"];
}) {
  return (
    <section className="mb-6">
      <h2 className="mb-1">{title}</h2>
      {notes.length === 0 ? (
        <p className="border-t border-rule pt-2 text-ink-2">{empty}</p>
      ) : (
        <ol>
          {notes.map((n, i) => (
            <NoteRow key={n.key} note={n} number={i + 1} showStage />
          ))}
        </ol>
      )}
    </section>
  );
}
