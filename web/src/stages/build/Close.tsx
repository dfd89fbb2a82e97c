import { type Defect, leftOnShelf } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useLots } from "../../resources/library.ts";
import { closeRun } from "../../resources/record.ts";
import { WriteDown } from "../../run/learn/WriteDown.tsx";
import type { WentWrong } from "../../run/learn/wentWrong.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { count, day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { oftenest, wentWrong } from "./tests/faultLesson.ts";
import { useBesideTests } from "./tests/useBesideTests.ts";

const NONE: readonly Defect[] = [];

/** Ends the run: what is left on the shelf, what is to be remembered. The next run of the product begins with its yield and hours. */
export function Close() {
  const { id, doc, result: r, record, did } = useRun();
  const sayError = useSayError();
  const { data: lots, error, mutate } = useLots();
  /** Lot → pieces left, of those somebody counted. */
  const [counted, setCounted] = useState<Readonly<Record<string, string>>>({});
  const [lesson, setLesson] = useState("");
  const [isBusy, setBusy] = useState(false);
  const left = useMemo(() => (lots ? leftOnShelf(doc, r, record, lots) : []), [doc, r, record, lots]);
  const open = r.actual?.tally.open ?? 0;
  const besides = useBesideTests().filter((t) => t.is === "due" || t.is === "coming");
  const isOdd = Object.values(counted).some((t) => !/^\d{1,7}$/.test(t));
  const close = () => {
    setBusy(true);
    const done = closeRun(id, {
      lesson: lesson.trim(),
      stays: Object.fromEntries(left.map((l) => [l.lot, Number(counted[l.lot] ?? l.stays)])),
      counted: left.flatMap((l) => (counted[l.lot] === undefined ? [] : [l.lot])),
    });
    done.catch(sayError).finally(() => setBusy(false));
    did("The run is closed", done);
  };
  return (
    <div className="mt-6 border-t border-rule pt-4">
      <h2>Close the run</h2>
      <p className="mb-3 max-w-[70ch] text-ink-2">
        Its yield and hours become the next run's beginning, said with their count. What it took from the
        shelf is worked out from the boards started and the usual losses; count where it matters, and what was
        really used is set against the plan.
      </p>
      {error ? (
        <Failed error={error} again={() => mutate()} />
      ) : !lots ? (
        <Skeleton rows={3} />
      ) : left.length === 0 ? (
        <p className="mb-3 text-[14.5px] text-ink-2">No lot on the shelf belongs to this run.</p>
      ) : (
        <table className="rows tight mb-4 w-full max-w-[680px]">
          <thead>
            <tr>
              <th>Lot</th>
              <th>Place</th>
              <th className="text-right">There</th>
              <th className="text-right">Taken, about</th>
              <th className="text-right">Left</th>
              <th>Counted</th>
            </tr>
          </thead>
          <tbody>
            {left.map((l) => (
              <tr key={l.lot}>
                <td className="num text-[13.5px]">{l.mpn}</td>
                <td className="text-ink-2">{l.place}</td>
                <td className="num text-right">{l.had}</td>
                <td className="num text-right">
                  {l.used}
                  {l.bench && (
                    <span className="block text-[12.5px] text-ink-2">
                      by the bench{l.bench.lost > 0 ? `, ${l.bench.lost} lost` : ""}
                    </span>
                  )}
                </td>
                <td className="text-right">
                  <input
                    aria-label={`Left of ${l.mpn}`}
                    className="num !min-h-7 w-20 text-right"
                    inputMode="numeric"
                    value={counted[l.lot] ?? String(l.stays)}
                    onChange={(e) => setCounted({ ...counted, [l.lot]: e.target.value.trim() })}
                  />
                </td>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`${l.mpn} is counted`}
                    checked={counted[l.lot] !== undefined}
                    onChange={(e) => {
                      const { [l.lot]: now, ...rest } = counted;
                      setCounted(e.target.checked ? { ...rest, [l.lot]: now ?? String(l.stays) } : rest);
                    }}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Leaves />
      {besides.length > 0 && (
        <p className="mb-3 max-w-[70ch] text-[14.5px] text-look">
          {count(besides.length, "test")} besides the bench {besides.length === 1 ? "is" : "are"} to come
          still, the last on {day(besides.at(-1)!.from)}: a closed run takes none.
        </p>
      )}
      <label className="block max-w-[680px] text-[13.5px] text-ink-2">
        What is to be remembered
        <textarea
          className="mt-1 block min-h-16 w-full text-[15px]"
          maxLength={2000}
          value={lesson}
          onChange={(e) => setLesson(e.target.value)}
        />
      </label>
      {open > 0 && (
        <p className="mt-2 text-[14.5px] text-look">
          {open} boards are neither good nor scrapped; they count as neither.
        </p>
      )}
      <Button look="main" className="mt-3" disabled={isBusy || isOdd || !lots} onClick={close}>
        {isBusy ? "Closing …" : "Close the run"}
      </Button>
    </div>
  );
}

/** What went wrong in the run, each kind once: a check for later boards, or a fault of the revision, in two presses. */
function Leaves() {
  const { doc, record } = useRun();
  const [of, setOf] = useState<WentWrong>();
  const faults = oftenest(record.defects ?? NONE);
  const claims = record.claims ?? [];
  if (faults.length + claims.length === 0) return null;
  return (
    <section aria-label="What it leaves behind" className="mb-4 max-w-[680px]">
      <h3 className="text-[15px] font-semibold">What it leaves behind</h3>
      <ul>
        {faults.map(({ n, first }) => (
          <li key={first.id} className="flex items-baseline gap-4 border-t border-rule py-1 text-[14.5px]">
            <span className="min-w-0 flex-1">
              <b className="num">{n} ×</b> {first.code}
              {first.at ? ` at ${first.at.split(/[. ]/)[0]}` : ""}
            </span>
            <button type="button" className="quiet-link" onClick={() => setOf(wentWrong(doc, first))}>
              so that it costs once
            </button>
          </li>
        ))}
        {claims.map((c) => (
          <li key={c.id} className="flex items-baseline gap-4 border-t border-rule py-1 text-[14.5px]">
            <span className="min-w-0 flex-1">claimed: {c.because}</span>
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                setOf({
                  place: "",
                  words: c.because,
                  came: `a claim of ${doc.name}, ${day(c.openedOn)}`,
                })
              }
            >
              so that it costs once
            </button>
          </li>
        ))}
      </ul>
      {of && <WriteDown of={of} onClose={() => setOf(undefined)} />}
    </section>
  );
}
