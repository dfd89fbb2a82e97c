import type { NewReportBody } from "@kobbin/contract";
import { useState } from "react";
import { addReport } from "../../resources/owners.ts";
import { Button } from "../../ui/Button.tsx";
import { DateField } from "../../ui/DateField.tsx";
import { Field } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";

/** What an owner says, in their words, and what it hangs on. */
export function ReportForm({
  about,
  onSent,
}: {
  about: Pick<NewReportBody, "productId" | "runId" | "unit">;
  onSent: (done: ReturnType<typeof addReport>) => void;
}) {
  const [says, setSays] = useState("");
  const [conditions, setConditions] = useState("");
  const [workaround, setWorkaround] = useState("");
  const [on, setOn] = useState(todayIso());
  return (
    <form
      className="mt-1 grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)_minmax(0,1fr)_9rem_auto] items-end gap-x-3 gap-y-2 max-lg:grid-cols-2 max-sm:grid-cols-1 print:hidden"
      onSubmit={(e) => {
        e.preventDefault();
        if (says.trim() === "") return;
        onSent(
          addReport({
            ...about,
            on: on || todayIso(),
            says: says.trim(),
            conditions: conditions.trim(),
            workaround: workaround.trim(),
          }),
        );
        setSays("");
        setConditions("");
        setWorkaround("");
      }}
    >
      <Field
        label="What an owner says"
        maxLength={2000}
        value={says}
        onChange={(e) => setSays(e.target.value)}
      />
      <Field
        label="When it is so"
        placeholder="in the cold, after a year"
        maxLength={1000}
        value={conditions}
        onChange={(e) => setConditions(e.target.value)}
      />
      <Field
        label="How they get by"
        maxLength={1000}
        value={workaround}
        onChange={(e) => setWorkaround(e.target.value)}
      />
      <DateField label="Said on" value={on} onSave={setOn} className="" />
      <Button type="submit">Write it down</Button>
    </form>
  );
}
