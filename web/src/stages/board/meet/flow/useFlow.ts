import { type Flow, type FlowPlan, flowPlan, type RunBoard } from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { storedBoard } from "../../../../proof/useBoardWorker.ts";
import { useRun } from "../../../../run/runState.ts";
import { flowStored } from "../../../../workers/board.ts";

/** What was followed last, so that coming back asks for nothing twice: a board's files never change, corrections do. */
const KEPT = 4;
const kept = new Map<string, readonly Flow[]>();

/** The currents of a board at the most, and what they do in its copper once they have been followed. */
export function useFlow(
  board: RunBoard,
  boardId: string,
): { readonly plan?: FlowPlan | undefined; readonly flows?: readonly Flow[]; readonly error?: unknown } {
  const { doc, result } = useRun();
  const { options } = result;
  const plan = useMemo(() => flowPlan(doc, board, options ?? doc.options), [doc, board, options]);
  const of = useMemo(
    () =>
      JSON.stringify([
        boardId,
        board.measure.layers.map((l) => [l.file, l.role, l.side]),
        plan?.asks,
        plan?.copper,
      ]),
    [boardId, board, plan],
  );
  const [found, setFound] = useState<{
    readonly of: string;
    readonly flows?: readonly Flow[];
    readonly error?: unknown;
  }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: `of` stands for the plan, which is another object at each change of the run
  useEffect(() => {
    if (!plan || plan.asks.length === 0) return;
    const known = kept.get(of);
    if (known) {
      setFound({ of, flows: known });
      return;
    }
    let isCurrent = true;
    storedBoard(boardId)
      .then((b) => flowStored(b, { asks: plan.asks, copper: plan.copper }))
      .then((flows) => {
        if ("kind" in flows) {
          if (isCurrent) setFound({ of, error: { message: flows.message, hint: "" } });
          return;
        }
        kept.set(of, flows);
        for (const old of [...kept.keys()].slice(0, -KEPT)) kept.delete(old);
        if (isCurrent) setFound({ of, flows });
      })
      .catch((error) => isCurrent && setFound({ of, error }));
    return () => {
      isCurrent = false;
    };
  }, [of]);
  return { plan, ...(found?.of === of ? found : {}) };
}
