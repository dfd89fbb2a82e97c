import type { RunAnswer } from "@kobbin/contract";
import {
  type CurvePoint,
  isBeingRead,
  type MemberRole,
  mayChange,
  NO_RECORD,
  type Note,
  type RunChange,
  type RunDocument,
  type RunState as RunLife,
  type RunRecord,
  type RunResult,
  type StageKey,
  type WhatIf,
} from "@kobbin/core";
import { createContext, useContext, useEffect, useMemo } from "react";
import type { Answered } from "../resources/http.ts";
import { useSaving } from "../resources/outbox.ts";
import { type LineChange, refetchRun, useRunAnswer } from "../resources/run.ts";
import { useRole } from "../resources/session.ts";
import { type EffectStage, type EffectsOf, withAll } from "./effectLists.ts";
import { useCurve, useFigures } from "./useFigures.ts";
import type { ProofWork } from "./useProof.ts";
import { type Clash, useRunChanges } from "./useRunChanges.ts";

export interface RunState {
  readonly id: string;
  readonly answer: RunAnswer;
  /** The document with changes that are still being saved. */
  readonly doc: RunDocument;
  readonly result: RunResult;
  /** What single changes would do, as far as somebody looks at it: taken by `useEffects`. */
  readonly foundEffects: Partial<WhatIf> | undefined;
  /** Has the effects of stages computed until what it gives back is called. */
  readonly wantEffects: (stages: readonly EffectStage[]) => () => void;
  /** Figures or effects at hand are of the document before the last change; the right ones are being computed. */
  readonly isBehind: boolean;
  readonly isReleased: boolean;
  /** Where it is in its life, and who looks at it: what may be written is asked of core's policy with both. */
  readonly life: RunLife;
  readonly role: MemberRole;
  /** What happened since the release. */
  readonly record: RunRecord;
  /** Nothing can be chosen here: released, or the person is at the bench. */
  readonly isLocked: boolean;
  readonly change: (change: RunChange, words: string) => void;
  /** Changes a line of the bill, shown at once. */
  readonly changeLine: (lineId: string, change: LineChange, words: string) => void;
  /** Changes several lines as one act: one undo. */
  readonly changeLines: (
    changes: readonly { readonly id: string; readonly change: LineChange }[],
    words: string,
  ) => void;
  /** Says what was done, with undo once the server has it. */
  readonly did: (words: string, changed: Promise<Answered<unknown>>) => void;
  /** A change that somebody else's stands against, until the person chooses. */
  readonly clash: Clash | undefined;
  readonly settleClash: () => void;
  /** The curve as far as it is computed; asking for it starts it. */
  readonly curve: readonly CurvePoint[];
  /** It is of the run before the last change: the right one follows once the run rests. */
  readonly isCurveOld: boolean;
  readonly wantCurve: () => void;
  /** Change of cost per good board by stage since the last choice, for a few seconds. */
  readonly moved: Readonly<Partial<Record<StageKey, number>>>;
  /** What is being done about a basket that is not proven yet. */
  readonly proof: ProofWork;
}

const Context = createContext<RunState | undefined>(undefined);
export const RunProvider = Context.Provider;

/** The run one is in. */
export function useRun(): RunState {
  const run = useContext(Context);
  if (!run) throw new Error("useRun must be used within RunFrame");
  return run;
}

/**
 * The effects of every single change at some stages, computed while a page shows them; undefined until they are.
 */
export function useEffects<S extends EffectStage>(...stages: readonly S[]): EffectsOf<S> | undefined {
  const { foundEffects, wantEffects } = useRun();
  const names = stages.join(" ");
  useEffect(() => wantEffects(names.split(" ") as EffectStage[]), [wantEffects, names]);
  return withAll(foundEffects, stages);
}

/** Files that are being read are asked about until they are: the word that they were may come before the page listens. */
function useReadSoon(id: string, answer: RunAnswer | undefined): void {
  const isReading = answer?.state === "open" && isBeingRead(answer.document);
  useEffect(() => {
    if (!isReading) return;
    let left = 40;
    const again = setInterval(() => {
      if (left-- === 0) clearInterval(again);
      else void refetchRun(id);
    }, 2500);
    return () => clearInterval(again);
  }, [isReading, id]);
}

/** What a run's screen stands on: document, figures, effects, saving. */
export function useRunState(id: string) {
  const { data: answer, error, mutate } = useRunAnswer(id);
  const changes = useRunChanges(id, answer, mutate);
  const { ops } = changes;
  const isAway = useSaving().kind === "waiting";
  const role = useRole() ?? "bench";
  // what the server has, with what is on its way to it laid over
  const doc = useMemo(
    () => (answer ? ops.reduce((d, op) => op.apply(d), answer.document) : undefined),
    [answer, ops],
  );
  useReadSoon(id, answer);
  const figures = useFigures(doc, answer?.record);
  const curve = useCurve(doc);
  const state = useMemo<RunState | undefined>(() => {
    const { result, effects, wantEffects, isBehind, moved, proof } = figures;
    if (!answer || !doc || !result) return undefined;
    const { change, changeLine, changeLines, did, clash, settleClash } = changes;
    return {
      id,
      answer,
      doc,
      result,
      foundEffects: effects,
      wantEffects,
      isBehind,
      moved,
      proof,
      ...curve,
      isReleased: answer.state === "released",
      life: answer.record?.closedOn ? "closed" : answer.state,
      role,
      record: answer.record ?? NO_RECORD,
      isLocked: !mayChange("fork", answer.state, role),
      change,
      changeLine,
      changeLines,
      did,
      clash,
      settleClash,
    };
  }, [id, answer, doc, figures, curve, role, changes]);
  // a lost connection takes nothing from the page that stands
  return {
    state,
    /** What is known before the figures are. */
    first: answer && doc ? { doc, summary: answer.summary } : undefined,
    error: (isAway && state ? undefined : error) ?? figures.failure,
    retry: () => refetchRun(id),
  };
}

/** Notes of one stage, worst first: their position is their number in the margin and on the picture. */
export function notesOf(result: RunResult, stage: string): Note[] {
  const weight = { error: 0, warning: 1, remark: 2 };
  return result.notes
    .filter((n) => n.stage === stage)
    .sort(
      (a, b) =>
        Number(Boolean(a.acceptedBecause)) - Number(Boolean(b.acceptedBecause)) ||
        weight[a.level] - weight[b.level],
    );
}
