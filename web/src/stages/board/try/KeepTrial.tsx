import { type BareFault, type BareTest, boardKey, isOrderOf, mayChange, type RunReceipt } from "@kobbin/core";
import { format } from "date-fns";
import { useState } from "react";
import { Link } from "react-router";
import { addBareTest, removeBareTest } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Field, Pick } from "../../../ui/Field.tsx";
import { useOnce } from "../../../ui/once.ts";
import { count, day } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import type { BoardView } from "../useBoardView.ts";
import { faultMap, faultWords, nextLabel } from "./trial.ts";

/** What came of one board, which board it is, and what came of the others of its lot. */
export function KeepTrial({
  view: v,
  tried,
  faults,
  onAgain,
}: {
  view: BoardView;
  tried: number;
  faults: readonly BareFault[];
  onAgain: () => void;
}) {
  const { id, doc, record, isReleased, life, role } = useRun();
  const item = boardKey(doc, v.index);
  const tests = (record.bareTests ?? []).filter((t) => t.item === item);
  const mayKeep = isReleased && mayChange("bare_test", life, role);
  return (
    <section aria-label="This board" className="border-y border-rule bg-sheet px-4 py-3">
      <p className={`text-[24px] font-bold ${faults.length > 0 ? "text-stop" : "text-fine"}`}>
        {faults.length === 0
          ? `All ${tried} hold`
          : `${faults.length} of ${tried} ${faults.length === 1 ? "does" : "do"} not hold`}
      </p>
      <ul className="mb-2 text-[16px]">
        {faults.map((f) => (
          <li key={`${f.at} ${f.expect}`}>{faultWords(f)}</li>
        ))}
      </ul>
      {mayKeep ? (
        <KeepForm
          runId={id}
          item={item}
          deliveries={record.receipts.filter((r) => r.item === item && isOrderOf("boards", r.order))}
          tests={tests}
          tried={tried}
          faults={faults}
          onKept={onAgain}
        />
      ) : (
        <p className="text-ink-2">
          {isReleased
            ? "The run is closed; trials are kept while it is open."
            : "Trials are kept with a delivery, once the run is released and its boards came."}{" "}
          <button type="button" className="quiet-link" onClick={onAgain}>
            the next board
          </button>
        </p>
      )}
      <Lot tests={tests} runId={id} mayRemove={mayKeep} />
    </section>
  );
}

function KeepForm({
  runId,
  item,
  deliveries,
  tests,
  tried,
  faults,
  onKept,
}: {
  runId: string;
  item: string;
  deliveries: readonly RunReceipt[];
  tests: readonly BareTest[];
  tried: number;
  faults: readonly BareFault[];
  onKept: () => void;
}) {
  const { did } = useRun();
  const sayError = useSayError();
  const [label, setLabel] = useState(nextLabel(tests));
  const [receipt, setReceipt] = useState(deliveries.at(-1)?.id ?? "");
  const once = useOnce();
  const keep = () => {
    once(() => {
      const done = addBareTest(runId, {
        item,
        ...(receipt ? { receipt } : {}),
        label: label.trim(),
        on: format(new Date(), "yyyy-MM-dd"),
        tried,
        faults: [...faults].map((f) => ({ ...f, nets: [...f.nets] })),
        note: "",
      });
      did(`Board ${label.trim()}: ${faults.length === 0 ? "all hold" : count(faults.length, "fault")}`, done);
      return done.then(onKept, sayError);
    });
  };
  return (
    <form
      aria-label="Keep this board's trial"
      className="flex flex-wrap items-end gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (tried > 0 && label.trim()) keep();
      }}
    >
      <Field
        label="Which board"
        className="w-32 [&_input]:min-h-11 [&_input]:text-[19px]"
        autoFocus
        maxLength={80}
        value={label}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setLabel(e.target.value)}
      />
      {deliveries.length > 0 ? (
        <Pick
          label="Of the delivery"
          value={receipt}
          options={deliveries.map((r) => [
            r.id,
            `${day(r.arrivedOn)}, ${count(r.qty, "board")}${r.isApart ? ", set apart" : ""}`,
          ])}
          onChange={setReceipt}
        />
      ) : (
        <p className="pb-2 text-[14px] text-ink-2">
          No delivery of these boards is written down.{" "}
          <Link className="quiet-link" to={`/runs/${runId}/receive`}>
            to Receive
          </Link>
        </p>
      )}
      <Button type="submit" look="main" className="min-h-11" disabled={tried === 0 || label.trim() === ""}>
        Keep, and the next board
      </Button>
      <button type="button" className="quiet-link pb-2" onClick={onKept}>
        do not keep it
      </button>
    </form>
  );
}

/** Boards of the lot that were tried, and where their faults lie. */
function Lot({ tests, runId, mayRemove }: { tests: readonly BareTest[]; runId: string; mayRemove: boolean }) {
  const { did } = useRun();
  const sayError = useSayError();
  if (tests.length === 0) return null;
  const bad = tests.filter((t) => t.faults.length > 0).length;
  const map = faultMap(tests);
  return (
    <div className="mt-4 border-t border-rule pt-2 text-[14.5px]">
      <h2 className="text-[15px] font-semibold">
        {count(tests.length, "board")} tried, {bad === 0 ? "all hold" : `${bad} with faults`}
      </h2>
      {map
        .filter((f) => f.boards > 1)
        .map(({ fault, boards }) => (
          <p key={`${fault.at} ${fault.expect}`} className="text-stop">
            {faultWords(fault)} on {boards} of {tests.length}: it returns, so look at the files and ask the
            house.
          </p>
        ))}
      <ul>
        {[...tests].reverse().map((t) => (
          <li key={t.id} className="flex flex-wrap items-baseline gap-x-3">
            <span className="num font-bold">{t.label}</span>
            <span className={t.faults.length > 0 ? "text-stop" : ""}>
              {t.faults.length === 0 ? `all ${t.tried} hold` : t.faults.map(faultWords).join("; ")}
            </span>
            <span className="text-ink-2">
              {day(t.on)}
              {t.receipt === undefined ? ", of no delivery that is written down" : ""}
            </span>
            {mayRemove && (
              <button
                type="button"
                className="quiet-link"
                aria-label={`Remove the trial of board ${t.label}`}
                onClick={() => {
                  const gone = removeBareTest(runId, t.id);
                  gone.catch(sayError);
                  did(`The trial of board ${t.label} is gone`, gone);
                }}
              >
                remove
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
