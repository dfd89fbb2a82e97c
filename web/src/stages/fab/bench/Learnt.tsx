import { PATCH_MM } from "@kobbin/core";
import { useState } from "react";
import { saveHouse } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { mm, written } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

const WIDTHS = PATCH_MM.map((w) => [String(w), `${written(String(w))} mm`] as const);
/** What is drawn keeps so much more than what just came out. */
const MARGIN = 1.25;

/** What the test patch taught: the narrowest line that stayed whole and gap that stayed open become the bench's limits. */
export function Learnt() {
  const { id, answer, doc, did, isLocked } = useRun();
  const sayError = useSayError();
  const bench = doc.houses?.find((h) => h.bench);
  const [line, setLine] = useState("0.25");
  const [gap, setGap] = useState("0.25");
  if (!bench || isLocked) return null;
  const limit = (came: string) => Math.round(Number(came) * MARGIN * 100) / 100;
  const save = () => {
    const { id: houseId, ...profile } = bench;
    const limits = { ...profile.limits, minTrackMm: limit(line), minNetSpaceMm: limit(gap) };
    const done = saveHouse(id, houseId, answer.versions[houseId], { ...profile, limits });
    done.then(
      () => did(`${bench.name} makes tracks of ${mm(limit(line))} mm and gaps of ${mm(limit(gap))} mm`, done),
      sayError,
    );
  };
  return (
    <section aria-labelledby="learnt" className="mt-6">
      <h2 id="learnt" className="mb-1">
        What the test patch taught
      </h2>
      <p className="mb-2 text-[14px] text-ink-2">
        Now: tracks from {mm(bench.limits.minTrackMm ?? 0)} mm, gaps from{" "}
        {mm(bench.limits.minNetSpaceMm ?? 0)} mm. A quarter is kept above what just came out.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <Pick label="Narrowest line that came out whole" value={line} options={WIDTHS} onChange={setLine} />
        <Pick label="Narrowest gap that came out open" value={gap} options={WIDTHS} onChange={setGap} />
        <Button onClick={save}>
          Take {mm(limit(line))} and {mm(limit(gap))} mm as limits
        </Button>
      </div>
    </section>
  );
}
