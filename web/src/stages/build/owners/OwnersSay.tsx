import type { ShopReport } from "@kobbin/contract";
import { unitOf } from "@kobbin/core";
import { useState } from "react";
import { useLearned } from "../../../resources/learned.ts";
import { WriteDown } from "../../../run/learn/WriteDown.tsx";
import { ReportForm } from "../../../run/owners/ReportForm.tsx";
import { ReportRow } from "../../../run/owners/ReportRow.tsx";
import { useRun } from "../../../run/runState.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** What the owner of a board says of it, and what came of that. */
export function OwnersSay({ unit }: { unit: number }) {
  const { id, doc, answer, role, did } = useRun();
  const sayError = useSayError();
  const { data } = useLearned();
  const serial = useSerial()(unit);
  const [learning, setLearning] = useState<ShopReport>();
  if (!data) return null;
  const reports = data.reports.filter((r) => r.runId === id && r.unit === unit);
  const errata = data.errata.filter((e) => e.productId === answer.productId);
  const name = serial ?? `${unitOf(doc)} ${unit}`;
  return (
    <section aria-label="What its owner says" className="mt-5">
      <h2 className="mb-1 text-[16px]">What its owner says</h2>
      <ul>
        {reports.map((r) => (
          <ReportRow
            key={r.id}
            report={r}
            errata={errata}
            isOwner={role === "owner"}
            more={
              <button type="button" className="quiet-link min-h-6" onClick={() => setLearning(r)}>
                so that it costs once
              </button>
            }
          />
        ))}
      </ul>
      <ReportForm
        about={{ productId: answer.productId, runId: id, unit }}
        onSent={(done) => {
          done.catch(sayError);
          did(`What the owner of ${name} says is written down`, done);
        }}
      />
      {learning && (
        <WriteDown
          of={{ came: `the owner of ${name}`, words: learning.says, place: "" }}
          begin="erratum"
          onClose={() => setLearning(undefined)}
        />
      )}
    </section>
  );
}
