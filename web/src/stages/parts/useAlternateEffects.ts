import { type Candidate, lineKey, type RunDocument, type RunLine } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { runWorker } from "../../workers/run.ts";

/**
 * What approving each candidate would change per good board, by part: the whole run computed with it.
 * Candidates nobody offers have no effect to tell.
 */
export function useAlternateEffects(
  line: RunLine,
  candidates: readonly Candidate[],
): ReadonlyMap<string, number> {
  const { doc, result } = useRun();
  const [effects, setEffects] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    let isCurrent = true;
    const key = lineKey(line);
    const priced = candidates.filter(
      (c) =>
        !c.isUsable &&
        c.comparison.verdict !== "forbidden" &&
        doc.offers.some((o) => o.part === c.part.id && o.line === line.id),
    );
    (async () => {
      const found = new Map<string, number>();
      for (const c of priced.slice(0, 6)) {
        const approved: RunDocument = {
          ...doc,
          library: [...(doc.library ?? []).filter((p) => p.id !== c.part.id), c.part],
          alternates: [
            ...(doc.alternates ?? []).filter((a) => a.part !== c.part.id || a.original !== key),
            { original: key!, part: c.part.id, state: "approved", because: "", by: "", at: doc.today },
          ],
        };
        const rolled = await runWorker().roll(approved);
        if (!isCurrent) return;
        if (rolled.kind === "ok") found.set(c.part.id, (rolled.result.perGood - result.perGood) / 1e6);
      }
      setEffects(found);
    })();
    return () => {
      isCurrent = false;
    };
  }, [line, candidates, doc, result]);
  return effects;
}
