import {
  type CurvePoint,
  curveQuantities,
  type RunDocument,
  type RunRecord,
  type RunResult,
  type StageKey,
  type WhatIf,
} from "@kobbin/core";
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { pointsOf, runWorker } from "../workers/run.ts";
import type { EffectStage } from "./effectLists.ts";
import { useProof } from "./useProof.ts";

type Moved = Partial<Record<StageKey, number>>;
/** So long the rows that moved say by how much. */
const TELLS_MS = 8000;

/** Figures of a run, and the effects of every single change where they are looked at, computed by the page's worker as the document changes. */
export function useFigures(doc: RunDocument | undefined, record: RunRecord | undefined) {
  const [rolled, setRolled] = useState<{ readonly of: RunDocument; readonly result: RunResult }>();
  const [failure, setFailure] = useState<{ message: string; hint: string }>();
  const [effects, setEffects] = useState<{ readonly of: RunDocument; readonly found: Partial<WhatIf> }>();
  const [lookers, setLookers] = useState<readonly EffectStage[]>([]);
  const lookedAt = [...new Set(lookers)].sort().join(" ");
  const [moved, setMoved] = useState<Moved>({});
  const [proofs, setProofs] = useState(0);
  const before = useRef<RunResult>(undefined);

  // the worker starts while the run is still being fetched
  useEffect(() => void runWorker(), []);
  // the worker follows the document and what happened; a proof found elsewhere makes it count again
  // biome-ignore lint/correctness/useExhaustiveDependencies: proofs stands for what the worker has learnt
  useEffect(() => {
    if (!doc) return;
    let isCurrent = true;
    (async () => {
      const answer = await runWorker().roll(doc, record);
      if (!isCurrent) return;
      if (answer.kind === "error") {
        setFailure(answer);
        return;
      }
      setFailure(undefined);
      const next = before.current ? movedBetween(before.current, answer.result) : {};
      if (Object.keys(next).length > 0) setMoved(next);
      before.current = answer.result;
      // rendered in slices: the page stays usable while a large bill is drawn
      startTransition(() => setRolled({ of: doc, result: answer.result }));
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, record, proofs]);

  // after the figures, since they stand on the same baskets
  const isRolled = rolled?.of === doc;
  // biome-ignore lint/correctness/useExhaustiveDependencies: figures that were counted again have other effects
  useEffect(() => {
    if (!doc || lookedAt === "" || !isRolled) return;
    let isCurrent = true;
    runWorker()
      .effects(doc, lookedAt.split(" ") as EffectStage[])
      .then((found) => isCurrent && startTransition(() => setEffects({ of: doc, found })));
    return () => {
      isCurrent = false;
    };
  }, [doc, lookedAt, isRolled, rolled]);
  const wantEffects = useCallback((stages: readonly EffectStage[]) => {
    setLookers((all) => [...all, ...stages]);
    return () =>
      setLookers((all) => {
        const left = [...all];
        for (const s of stages) left.splice(left.indexOf(s), 1);
        return left;
      });
  }, []);

  useEffect(() => {
    if (Object.keys(moved).length === 0) return;
    const timer = setTimeout(() => setMoved({}), TELLS_MS);
    return () => clearTimeout(timer);
  }, [moved]);

  const onProven = useCallback(() => setProofs((n) => n + 1), []);
  const result = rolled?.result;
  const proof = useProof(doc, result, onProven);
  return useMemo(
    () => ({
      result,
      failure,
      effects: effects?.found,
      wantEffects,
      isBehind:
        rolled !== undefined &&
        (rolled.of !== doc || (lookedAt !== "" && effects !== undefined && effects.of !== doc)),
      moved,
      proof,
    }),
    [doc, rolled, result, failure, effects, wantEffects, lookedAt, moved, proof],
  );
}

/** Change of cost per good board by stage, where a cent or more moved. */
function movedBetween(old: RunResult, now: RunResult): Moved {
  const next: Moved = {};
  for (const key of Object.keys(now.stages) as StageKey[]) {
    const d = (now.stages[key].micros - old.stages[key].micros) / 1e6;
    if (Math.abs(d) >= 0.005) next[key] = d;
  }
  return next;
}

const NO_CURVE: readonly CurvePoint[] = [];
/** A run that is being changed is counted at forty quantities once it rests. */
const RESTED_MS = 700;

/** The curve over quantity, point by point once it is wanted; coarse first, so that its shape stands early. */
export function useCurve(doc: RunDocument | undefined) {
  const [found, setFound] = useState<{ readonly of: RunDocument; readonly points: readonly CurvePoint[] }>();
  const [isWanted, setWanted] = useState(false);
  useEffect(() => {
    if (!doc || !isWanted) return;
    let isCurrent = true;
    (async () => {
      await new Promise((rested) => setTimeout(rested, RESTED_MS));
      if (!isCurrent) return;
      const all = curveQuantities(doc.goodBoards);
      const order = [...all.filter((_, i) => i % 4 === 0), ...all.filter((_, i) => i % 4 !== 0)];
      const points: CurvePoint[] = [];
      const pointAt = pointsOf(doc);
      for (const [i, q] of order.entries()) {
        const p = await pointAt(q);
        if (!isCurrent) return;
        if (p) points.push(p);
        if ((i + 1) % 5 === 0 || i === order.length - 1)
          startTransition(() =>
            setFound({ of: doc, points: [...points].sort((a, b) => a.quantity - b.quantity) }),
          );
      }
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, isWanted]);
  const wantCurve = useCallback(() => setWanted(true), []);
  const isOld = found !== undefined && found.of !== doc;
  return useMemo(
    () => ({ curve: found?.points ?? NO_CURVE, isCurveOld: isOld, wantCurve }),
    [found, isOld, wantCurve],
  );
}
