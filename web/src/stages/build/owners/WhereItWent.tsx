import type { UnitOut } from "@kobbin/contract";
import { mayChange, unitOf } from "@kobbin/core";
import { useState } from "react";
import { forgetHolder, putOuts, removeOut, useOuts } from "../../../resources/owners.ts";
import { unitsIn } from "../../../run/owners/unitsIn.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { DateField } from "../../../ui/DateField.tsx";
import { Field } from "../../../ui/Field.tsx";
import { todayIso } from "../../../ui/text/dates.ts";
import { count, day } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** Where a board went and who has it; several that went together are said at once. */
export function WhereItWent({ unit }: { unit: number }) {
  const { id, doc, life, role, did } = useRun();
  const { data } = useOuts(id);
  const sayError = useSayError();
  const [isWriting, setIsWriting] = useState(false);
  const mayWrite = mayChange("unit_out", life, role);
  const out = data?.find((o) => o.unit === unit);
  const say = (words: string, done: ReturnType<typeof removeOut>) => {
    done.catch(sayError);
    did(words, done);
  };
  if (!data || (!out && !mayWrite)) return null;
  return (
    <section aria-label="Where it went" className="mt-5">
      <h2 className="mb-1 text-[16px]">Where it went</h2>
      {out && (
        <p className="flex flex-wrap items-baseline gap-x-4 border-t border-rule py-1 text-[14.5px]">
          <span className="min-w-0 flex-1">
            <b>{out.towards}</b>, {day(out.on)}
            {/* who has it is on no paper */}
            {(out.holder || out.reach) && (
              <span className="block text-[13.5px] text-ink-2 print:hidden">
                {[out.holder, out.reach].filter((x) => x !== "").join(", ")}
              </span>
            )}
          </span>
          {mayWrite && (
            <span className="flex flex-wrap gap-3 print:hidden">
              <button type="button" className="quiet-link" onClick={() => setIsWriting(!isWriting)}>
                put right
              </button>
              {(out.holder || out.reach) && role === "owner" && (
                <button
                  type="button"
                  className="quiet-link"
                  title="Name and address are wiped, from the history too; that cannot be taken back"
                  onClick={() => say(`${unitOf(doc)} ${unit}: who has it is forgotten`, forgetHolder(out.id))}
                >
                  forget who has it
                </button>
              )}
              <button
                type="button"
                className="quiet-link"
                onClick={() => say(`${unitOf(doc)} ${unit} did not go out`, removeOut(out.id))}
              >
                not after all
              </button>
            </span>
          )}
        </p>
      )}
      {mayWrite && (!out || isWriting) && (
        <OutForm
          unit={unit}
          was={out}
          onSent={(units, towards, done) => {
            setIsWriting(false);
            say(`${count(units.length, unitOf(doc))} to ${towards}`, done);
          }}
        />
      )}
    </section>
  );
}

function OutForm({
  unit,
  was,
  onSent,
}: {
  unit: number;
  was: UnitOut | undefined;
  onSent: (units: readonly number[], towards: string, done: ReturnType<typeof putOuts>) => void;
}) {
  const { id, doc } = useRun();
  const [which, setWhich] = useState(String(unit));
  const [towards, setTowards] = useState(was?.towards ?? "");
  const [holder, setHolder] = useState(was?.holder ?? "");
  const [reach, setReach] = useState(was?.reach ?? "");
  const [on, setOn] = useState(was?.on ?? todayIso());
  const read = unitsIn(which);
  return (
    <form
      className="grid grid-cols-[8rem_minmax(0,1fr)_minmax(0,1fr)_minmax(0,1fr)_9rem_auto] items-end gap-x-3 gap-y-2 border-t border-rule pt-2 max-lg:grid-cols-2 max-sm:grid-cols-1 print:hidden"
      onSubmit={(e) => {
        e.preventDefault();
        if ("wrong" in read || towards.trim() === "") return;
        const body = { units: [...read.units], towards: towards.trim(), on: on || todayIso() };
        onSent(
          read.units,
          towards.trim(),
          putOuts(id, { ...body, holder: holder.trim(), reach: reach.trim() }),
        );
      }}
    >
      <Field
        label={`Which ${unitOf(doc)}s`}
        value={which}
        error={"wrong" in read ? read.wrong : undefined}
        onChange={(e) => setWhich(e.target.value)}
      />
      <Field
        label="Where to"
        placeholder="a fair, order 1042"
        maxLength={200}
        value={towards}
        onChange={(e) => setTowards(e.target.value)}
      />
      <Field
        label="Who has it"
        placeholder="need not be known"
        maxLength={200}
        value={holder}
        onChange={(e) => setHolder(e.target.value)}
      />
      <Field label="Reached by" maxLength={300} value={reach} onChange={(e) => setReach(e.target.value)} />
      <DateField label="On" value={on} onSave={setOn} className="" />
      <Button type="submit">Write it down</Button>
    </form>
  );
}
