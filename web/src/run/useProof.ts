import { type RunDocument, type RunResult, suppliersOf } from "@kobbin/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { connectProof } from "../workers/proof.ts";
import { runWorker } from "../workers/run.ts";

/** What is being done about a basket that is not proven yet. */
export interface ProofWork {
  readonly kind: "none" | "working" | "stopped";
  readonly stop: () => void;
  readonly again: () => void;
}

/** For the solver; what is left open then stays told by its gap. */
const SECONDS = 20;
/** A run that is being changed is not proven at every keystroke. */
const RESTS_MS = 400;

/**
 * Has the best basket proven in a worker of its own where the figures left a gap. The next figures stand on what was
 * found; whatever changes the run stops it.
 */
export function useProof(
  doc: RunDocument | undefined,
  result: RunResult | undefined,
  onFound: () => void,
): ProofWork {
  const [kind, setKind] = useState<ProofWork["kind"]>("none");
  const [round, setRound] = useState(0);
  const stopped = useRef<RunResult>(undefined);
  const latest = useRef(doc);
  latest.current = doc;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a round more asks again for the same figures
  useEffect(() => {
    const proof = result?.baskets[0]?.proof;
    if (!result || !proof || proof.isProven || stopped.current === result) {
      setKind((old) => (stopped.current === result && old === "stopped" ? old : "none"));
      return;
    }
    setKind("working");
    let worker: ReturnType<typeof connectProof> | undefined;
    const timer = setTimeout(async () => {
      const now = latest.current;
      if (!now) return;
      worker = connectProof();
      const suppliers = suppliersOf(now);
      const baskets = await worker.prove(result.needs, suppliers, SECONDS).catch(() => undefined);
      // what could not be proven in this time will not be in the same time again
      stopped.current = result;
      const after = baskets?.[0]?.proof;
      if (!baskets || !after || after.gap >= proof.gap) return setKind("stopped");
      await runWorker().learn(now, result.needs, baskets);
      setKind(after.isProven ? "working" : "stopped");
      onFound();
    }, RESTS_MS);
    return () => {
      clearTimeout(timer);
      worker?.close();
    };
  }, [result, round, onFound]);
  const stop = useCallback(() => {
    stopped.current = result;
    setKind("stopped");
    setRound((r) => r + 1);
  }, [result]);
  const again = useCallback(() => {
    stopped.current = undefined;
    setRound((r) => r + 1);
  }, []);
  return useMemo(() => ({ kind, stop, again }), [kind, stop, again]);
}
