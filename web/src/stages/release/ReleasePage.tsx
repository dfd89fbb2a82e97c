import { type AtStake, microsToNumber, stakesOf } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { InColours } from "../../proof/InColours.tsx";
import { releaseRun, takeBackRelease } from "../../resources/run.ts";
import { NoteRow } from "../../run/Margin.tsx";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count, money } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { Again } from "./Again.tsx";
import { LeftOpen } from "./LeftOpen.tsx";
import { Rights } from "./Rights.tsx";
import { Stake } from "./Stake.tsx";

/** The gate between choosing and ordering: what is open, by what it costs not to look; releasing freezes what the order refers to. */
export function ReleasePage() {
  const { doc, result: r, isReleased } = useRun();
  const list = useMemo(() => stakesOf(doc, r), [doc, r]);
  const groups = groupsOf(list);
  const order = groups.flatMap((g) => g.list);
  const accepted = r.notes.filter((n) => n.acceptedBecause);
  const most = Math.max(1, ...list.map((s) => s.expected));
  return (
    <section className="max-w-[900px]">
      <div className="mb-4 flex items-start justify-between gap-6 max-md:flex-wrap">
        <div className="min-w-0">
          <h1>Release</h1>
          <p className="text-ink-2">
            The dearest losses come between the finished drawing and the paid order. What is open stands here,
            by what it costs not to look; releasing freezes archive, bill, offers and options, and packs the
            orders.
          </p>
        </div>
        <InColours size={[130, 90]} />
      </div>
      <Gate list={list} />
      {!isReleased && <LeftOpen order={order} />}
      <div className="mb-5 border-b border-rule">
        <Again />
      </div>
      {groups.map((g) => (
        <Group key={g.title} {...g} order={order} most={most} />
      ))}
      <div className="mb-6">
        <Rights />
      </div>
      {accepted.length > 0 && (
        <section aria-label="Accepted with a reason" className="mb-6">
          <h2 className="mb-1">Accepted with a reason</h2>
          <ol>
            {accepted.map((n, i) => (
              <NoteRow key={n.key} note={n} number={order.length + i + 1} showStage />
            ))}
          </ol>
        </section>
      )}
    </section>
  );
}

interface OfSort {
  readonly title: string;
  readonly empty: string;
  readonly list: readonly AtStake[];
}

/** What blocks; what is odd enough to be looked at; what is only not known. */
function groupsOf(list: readonly AtStake[]): OfSort[] {
  const blocks = list.filter((s) => s.note.level === "error");
  const rest = list.filter((s) => s.note.level !== "error");
  return [
    { title: "Blockers", empty: "No blocker is open.", list: blocks },
    { title: "To look at", empty: "Nothing wants a look.", list: rest.filter((s) => s.sure !== "unknown") },
    { title: "Only not known", empty: "", list: rest.filter((s) => s.sure === "unknown") },
  ].filter((g) => g.list.length > 0 || g.empty !== "");
}

/** Whether it may go, and the button. */
function Gate({ list }: { list: readonly AtStake[] }) {
  const { id, doc, result: r, record, life, role, isReleased, isLocked } = useRun();
  const navigate = useNavigate();
  const say = useSay();
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  /** Why it did not go: it stands here until the next try, whatever is said in passing. */
  const [refused, setRefused] = useState<{ readonly message?: string; readonly hint?: string }>();
  const isUntouched =
    record.purchases.length + record.receipts.length + record.work.length === 0 &&
    (record.bareTests ?? []).length + (record.steps ?? []).length === 0;
  const cautions = list.filter((s) => s.note.level === "warning").length;
  const release = () => {
    setBusy(true);
    setRefused(undefined);
    releaseRun(id)
      .then(() => {
        say("Released; the order package is ready");
        navigate(`/runs/${id}/order`);
      })
      .catch(setRefused)
      .finally(() => setBusy(false));
  };
  const takeBack = () => {
    setBusy(true);
    takeBackRelease(id)
      .then(() => say("The release is taken back; the run can be changed again"))
      .catch(sayError)
      .finally(() => setBusy(false));
  };
  return (
    <div className="mb-3 flex flex-wrap items-center gap-4 border-y border-rule py-4">
      <Mark
        kind={isReleased ? "frozen" : r.blockers.length > 0 ? "blocked" : cautions > 0 ? "look" : "ready"}
        count={isReleased ? undefined : r.blockers.length || cautions || undefined}
      />
      <p className="flex-1">
        {isReleased
          ? `This run is released.${isUntouched ? "" : " Something was already done of it, so it stays so."}`
          : r.blockers.length > 0
            ? `${count(r.blockers.length, "blocker")} to close before anything goes out.`
            : `Nothing blocks. ${r.start} boards are started for ${doc.goodBoards} good ones; cash needed is ${money(microsToNumber(r.cashNeeded), doc.workshop.currency)}.`}
      </p>
      {isReleased && isUntouched && life === "released" && role === "owner" && (
        <Button disabled={isBusy} onClick={takeBack}>
          Take the release back
        </Button>
      )}
      {!isLocked && (
        <Button look="main" disabled={r.blockers.length > 0 || isBusy} onClick={release}>
          {isBusy ? "Packing …" : "Release and pack"}
        </Button>
      )}
      {refused && (
        <p role="alert" className="w-full border-l-[3px] border-stop px-3 py-1">
          <b className="text-stop">{refused.message ?? "It was not released."}</b>{" "}
          <span className="text-ink-2">{refused.hint}</span>
        </p>
      )}
    </div>
  );
}

function Group({ title, empty, list, order, most }: OfSort & { order: readonly AtStake[]; most: number }) {
  return (
    <section aria-label={title} className="mb-6">
      <h2 className="mb-1">{title}</h2>
      {list.length === 0 ? (
        <p className="border-t border-rule pt-2 text-ink-2">{empty}</p>
      ) : (
        <ol>
          {list.map((s) => (
            <NoteRow
              key={s.note.key}
              note={s.note}
              number={order.indexOf(s) + 1}
              showStage
              beside={<Stake stake={s} most={most} />}
            />
          ))}
        </ol>
      )}
    </section>
  );
}
