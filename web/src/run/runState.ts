import type { ClashDetail, RunAnswer, RunBody } from "@kobbin/contract";
import {
  type CurvePoint,
  curveQuantities,
  type MemberRole,
  mayChange,
  NO_RECORD,
  type Note,
  type RunDocument,
  type RunState as RunLife,
  type RunRecord,
  type RunResult,
  type StageKey,
  type WhatIf,
} from "@kobbin/core";
import {
  createContext,
  startTransition,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { undoChange } from "../resources/history.ts";
import { type Answered, clashesOf } from "../resources/http.ts";
import { useSaving } from "../resources/outbox.ts";
import {
  changedLine,
  type LineChange,
  refetchRun,
  saveLine,
  saveLines,
  saveRun,
  useRunAnswer,
} from "../resources/run.ts";
import { useRole } from "../resources/session.ts";
import { useSay, useSayError } from "../ui/Toast.tsx";
import { runWorker } from "../workers/run.ts";
import { applyChange, type RunChange } from "./runChange.ts";
import { type ProofWork, useProof } from "./useProof.ts";

/** A change on its way: how the document looks with it. */
interface Op {
  readonly apply: (doc: RunDocument) => RunDocument;
}

/** Somebody else set the same meanwhile: both values, and how to insist. */
export interface Clash {
  readonly kind: "edit" | "undo";
  readonly words: string;
  readonly clashes: readonly ClashDetail[];
  readonly insist: () => Promise<void>;
}

export interface RunState {
  readonly id: string;
  readonly answer: RunAnswer;
  /** The document with changes that are still being saved. */
  readonly doc: RunDocument;
  readonly result: RunResult;
  readonly effects: WhatIf | undefined;
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

/** What a run's screen stands on: document, figures, effects, saving. */
export function useRunState(id: string) {
  const { data: answer, error, mutate } = useRunAnswer(id);
  const [ops, setOps] = useState<readonly Op[]>([]);
  const [clash, setClash] = useState<Clash>();
  const [result, setResult] = useState<RunResult>();
  const [failure, setFailure] = useState<{ message: string; hint: string }>();
  const [effects, setEffects] = useState<WhatIf>();
  const [moved, setMoved] = useState<Partial<Record<StageKey, number>>>({});
  const [curve, setCurve] = useState<readonly CurvePoint[]>([]);
  const [wantsCurve, setWantsCurve] = useState(false);
  const [proofs, setProofs] = useState(0);
  const say = useSay();
  const sayError = useSayError();
  const before = useRef<RunResult>(undefined);
  const latest = useRef<RunAnswer>(undefined);
  latest.current = answer;
  const isAway = useSaving().kind === "waiting";
  const role = useRole();

  // what the server has, with what is on its way to it laid over
  const doc = useMemo(
    () => (answer ? ops.reduce((d, op) => op.apply(d), answer.document) : undefined),
    [answer, ops],
  );

  const record = answer?.record;
  // the worker follows the document and what happened: figures first, then the effects of every single change; a proof found elsewhere
  // makes it count again
  // biome-ignore lint/correctness/useExhaustiveDependencies: proofs stands for what the worker has learnt
  useEffect(() => {
    if (!doc) return;
    let isCurrent = true;
    (async () => {
      const rolled = await runWorker().roll(doc, record);
      if (!isCurrent) return;
      if (rolled.kind === "error") {
        setFailure(rolled);
        return;
      }
      setFailure(undefined);
      const old = before.current;
      if (old) {
        const next: Partial<Record<StageKey, number>> = {};
        for (const key of Object.keys(rolled.result.stages) as StageKey[]) {
          const d = (rolled.result.stages[key].micros - old.stages[key].micros) / 1e6;
          if (Math.abs(d) >= 0.005) next[key] = d;
        }
        if (Object.keys(next).length > 0) setMoved(next);
      }
      before.current = rolled.result;
      // rendered in slices: the page stays usable while a large bill is drawn
      startTransition(() => setResult(rolled.result));
      const found = await runWorker().effects(doc);
      if (isCurrent) startTransition(() => setEffects(found));
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, record, proofs]);

  const onProven = useCallback(() => setProofs((n) => n + 1), []);
  const proof = useProof(doc, result, onProven);

  useEffect(() => {
    if (Object.keys(moved).length === 0) return;
    const timer = setTimeout(() => setMoved({}), 8000);
    return () => clearTimeout(timer);
  }, [moved]);

  // the curve comes point by point; coarse first, so that its shape stands early
  useEffect(() => {
    if (!doc || !wantsCurve) return;
    let isCurrent = true;
    (async () => {
      const all = curveQuantities(doc.goodBoards);
      const order = [...all.filter((_, i) => i % 4 === 0), ...all.filter((_, i) => i % 4 !== 0)];
      const points: CurvePoint[] = [];
      for (const [i, q] of order.entries()) {
        const p = await runWorker().point(doc, q);
        if (!isCurrent) return;
        if (p) points.push(p);
        if ((i + 1) % 5 === 0 || i === order.length - 1)
          startTransition(() => setCurve([...points].sort((a, b) => a.quantity - b.quantity)));
      }
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, wantsCurve]);

  const did = useCallback(
    (words: string, changed: Promise<Answered<unknown>>) => {
      const dismiss = say(words, {
        undo: () =>
          void (async () => {
            const { changeId } = await changed;
            if (!changeId) return;
            const back = (force: boolean): Promise<void> =>
              undoChange(changeId, force).then(
                () => undefined,
                (e) =>
                  clashesOf(e).length > 0
                    ? setClash({
                        kind: "undo",
                        words,
                        clashes: clashesOf(e),
                        insist: () => back(true).catch(sayError),
                      })
                    : sayError(e),
              );
            await back(false);
          })().catch(sayError),
      });
      // what was not saved was not done
      changed.catch(dismiss);
    },
    [say, sayError],
  );

  /** Shows a change at once, sends it, and asks when somebody else set the same. */
  const carry = useCallback(
    (apply: Op["apply"], words: string, write: (now: RunAnswer) => Promise<Answered<unknown>>) => {
      const attempt = (): Promise<Answered<unknown>> => {
        const now = latest.current;
        if (!now) return Promise.reject(new Error("no run yet"));
        const op = { apply };
        setOps((old) => [...old, op]);
        return write(now).finally(() => setOps((old) => old.filter((o) => o !== op)));
      };
      const changed = attempt();
      changed.catch(async (e) => {
        const clashes = clashesOf(e);
        await mutate().catch(() => undefined);
        if (clashes.length === 0) return sayError(e);
        setClash({ kind: "edit", words, clashes, insist: () => attempt().then(() => undefined, sayError) });
      });
      if (words) did(words, changed);
    },
    [did, mutate, sayError],
  );

  const change = useCallback(
    (c: RunChange, words: string) =>
      carry(
        (d) => applyChange(d, c),
        words,
        (now) => saveRun(id, { version: now.version, ...c } as RunBody),
      ),
    [carry, id],
  );
  const changeLine = useCallback(
    (lineId: string, c: LineChange, words: string) =>
      carry(
        (d) => ({ ...d, lines: d.lines.map((l) => (l.id === lineId ? changedLine(l, c) : l)) }),
        words,
        (now) => saveLine(id, lineId, now.versions[lineId], c),
      ),
    [carry, id],
  );
  const changeLines = useCallback<RunState["changeLines"]>(
    (changes, words) => {
      const by = new Map(changes.map((c) => [c.id, c.change]));
      carry(
        (d) => ({ ...d, lines: d.lines.map((l) => (by.has(l.id) ? changedLine(l, by.get(l.id)!) : l)) }),
        words,
        (now) =>
          saveLines(
            id,
            now.revisionId,
            changes.map((c) => ({ ...c.change, id: c.id, version: now.versions[c.id] })),
          ),
      );
    },
    [carry, id],
  );
  const settleClash = useCallback(() => setClash(undefined), []);

  const wantCurve = useCallback(() => setWantsCurve(true), []);
  const state = useMemo<RunState | undefined>(
    () =>
      answer && doc && result
        ? {
            id,
            answer,
            doc,
            result,
            effects,
            isReleased: answer.state === "released",
            life: answer.record?.closedOn ? "closed" : answer.state,
            role: role ?? "bench",
            record: answer.record ?? NO_RECORD,
            isLocked: !mayChange("fork", answer.state, role ?? "bench"),
            change,
            changeLine,
            changeLines,
            did,
            clash,
            settleClash,
            curve,
            wantCurve,
            moved,
            proof,
          }
        : undefined,
    [
      id,
      answer,
      doc,
      result,
      effects,
      role,
      change,
      changeLine,
      changeLines,
      did,
      clash,
      settleClash,
      curve,
      wantCurve,
      moved,
      proof,
    ],
  );
  // a lost connection takes nothing from the page that stands
  return { state, error: (isAway && state ? undefined : error) ?? failure, retry: () => refetchRun(id) };
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
