import { notCounted, tallyOf } from "@kobbin/core";
import { format } from "date-fns";
import { useState } from "react";
import { addWork } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { useSayError } from "../../ui/toast/Toast.tsx";

const COUNTS = [
  ["started", "Started"],
  ["good", "Good"],
  ["reworked", "Mended"],
  ["scrapped", "Scrapped"],
  ["minutes", "Minutes"],
] as const;
type Key = (typeof COUNTS)[number][0];
const NOTHING: Readonly<Record<Key, string>> = {
  started: "",
  good: "",
  reworked: "",
  scrapped: "",
  minutes: "",
};

/** What was done in one go: how many boards got where, and how long it took. One finger a count. */
export function CountForm({ open }: { open: number }) {
  const { id, did, record } = useRun();
  const sayError = useSayError();
  const [typed, setTyped] = useState(NOTHING);
  const [note, setNote] = useState("");
  const n = (key: Key) => Number(typed[key] || 0);
  const isReady = COUNTS.every(([key]) => /^\d{0,6}$/.test(typed[key])) && COUNTS.some(([key]) => n(key) > 0);
  const step = (key: Key, by: number) => setTyped({ ...typed, [key]: String(Math.max(0, n(key) + by)) });
  const rest = notCounted(record.sittings ?? [], tallyOf(record.work));
  return (
    <form
      className="my-4 border-y border-rule bg-sheet px-4 py-3"
      aria-label="Count"
      onSubmit={(e) => {
        e.preventDefault();
        if (!isReady) return;
        // it is empty at once: what is typed before the answer is the next count, and a second press has nothing to send
        setTyped(NOTHING);
        setNote("");
        const done = addWork(id, {
          on: format(new Date(), "yyyy-MM-dd"),
          started: n("started"),
          good: n("good"),
          reworked: n("reworked"),
          scrapped: n("scrapped"),
          minutes: n("minutes"),
          note: note.trim(),
        });
        did(
          COUNTS.filter(([key]) => n(key) > 0)
            .map(([key, label]) => `${n(key)} ${label.toLowerCase()}`)
            .join(", "),
          done,
        );
        done.catch((error: unknown) => {
          // what was refused stands there again, unless the next is typed already
          setTyped((now) => (now === NOTHING ? typed : now));
          setNote((now) => now || note);
          sayError(error);
        });
      }}
    >
      <p className="mb-2 text-[14px] text-ink-2">
        {open > 0 ? `${open} at work. ` : ""}Air out the fumes, wear glasses, and rest your eyes; leaded
        solder stays away from food.
      </p>
      {rest.started + rest.minutes > 0 && (
        <p className="mb-2 text-[14px]">
          Not counted yet of what was done at the bench:{" "}
          {[
            ...(rest.started > 0 ? [`${rest.started} begun`] : []),
            ...(rest.minutes > 0 ? [`${rest.minutes} min of work`] : []),
          ].join(" and ")}
          .{" "}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              setTyped({ ...typed, started: String(rest.started), minutes: String(rest.minutes) })
            }
          >
            take them over
          </button>
        </p>
      )}
      <div className="flex flex-wrap items-end gap-x-4 gap-y-3">
        {COUNTS.map(([key, label]) => (
          <div key={key} className="flex items-end">
            <Step
              label={`one ${label.toLowerCase()} less`}
              sign="−"
              onClick={() => step(key, key === "minutes" ? -5 : -1)}
            />
            <Field
              label={label}
              className="w-[74px] [&_input]:min-h-11 [&_input]:text-center [&_input]:text-[20px]"
              isNumber
              inputMode="numeric"
              placeholder="0"
              value={typed[key]}
              onChange={(e) => setTyped({ ...typed, [key]: e.target.value.trim() })}
            />
            <Step
              label={`one ${label.toLowerCase()} more`}
              sign="+"
              onClick={() => step(key, key === "minutes" ? 5 : 1)}
            />
          </div>
        ))}
        <Field label="Note" className="w-56 grow" value={note} onChange={(e) => setNote(e.target.value)} />
        <Button type="submit" look="main" className="min-h-11 !text-[16px]" disabled={!isReady}>
          Count it
        </Button>
      </div>
    </form>
  );
}

const Step = ({ label, sign, onClick }: { label: string; sign: string; onClick: () => void }) => (
  <button
    type="button"
    aria-label={label}
    className="grid h-11 w-9 place-items-center border border-rule bg-paper text-[20px] hover:border-ink-3"
    onClick={onClick}
  >
    {sign}
  </button>
);
