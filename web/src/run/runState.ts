import type { RunAnswer, RunBody } from "@kobbin/contract";
import {
  type CurvePoint,
  curveQuantities,
  type Note,
  type RunDocument,
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
import type { RequestError } from "../resources/http.ts";
import { refetchRun, saveRun, useRunAnswer } from "../resources/run.ts";
import { clock } from "../ui/format.ts";
import { useSay, useSayError } from "../ui/Toast.tsx";
import { runWorker } from "../workers/run.ts";
import { applyChange, inverseOf, type RunChange } from "./runChange.ts";

export interface RunState {
  readonly id: string;
  readonly answer: RunAnswer;
  /** The document with changes that are still being saved. */
  readonly doc: RunDocument;
  readonly result: RunResult;
  readonly effects: WhatIf | undefined;
  readonly isReleased: boolean;
  readonly change: (change: RunChange, words: string) => void;
  /** The curve as far as it is computed; asking for it starts it. */
  readonly curve: readonly CurvePoint[];
  readonly wantCurve: () => void;
  readonly saved: string;
  /** Change of cost per good board by stage since the last choice, for a few seconds. */
  readonly moved: Readonly<Partial<Record<StageKey, number>>>;
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
  const [doc, setDoc] = useState<RunDocument>();
  const [result, setResult] = useState<RunResult>();
  const [failure, setFailure] = useState<{ message: string; hint: string }>();
  const [effects, setEffects] = useState<WhatIf>();
  const [saved, setSaved] = useState("saved");
  const [moved, setMoved] = useState<Partial<Record<StageKey, number>>>({});
  const [curve, setCurve] = useState<readonly CurvePoint[]>([]);
  const [wantsCurve, setWantsCurve] = useState(false);
  const say = useSay();
  const sayError = useSayError();
  const version = useRef(0);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const pending = useRef(0);
  const before = useRef<RunResult>(undefined);
  const latest = useRef<RunDocument>(undefined);

  useEffect(() => {
    if (!answer) return;
    version.current = answer.version;
    if (pending.current === 0) {
      latest.current = answer.document;
      setDoc(answer.document);
    }
  }, [answer]);

  // the worker follows the document: figures first, then the effects of every single change
  useEffect(() => {
    if (!doc) return;
    let isCurrent = true;
    (async () => {
      const rolled = await runWorker().roll(doc);
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
  }, [doc]);

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

  const change = useCallback(
    (c: RunChange, words: string) => {
      const now = latest.current;
      if (!now) return;
      const back = inverseOf(now, c);
      const next = applyChange(now, c);
      latest.current = next;
      setDoc(next);
      setSaved("saving …");
      pending.current++;
      queue.current = queue.current.then(async () => {
        try {
          const stored = await saveRun(id, { version: version.current, ...c } as RunBody);
          version.current = stored.version;
          setSaved(`saved ${clock(new Date())}`);
        } catch (e) {
          setSaved("not saved");
          sayError(e);
          if ((e as RequestError).code !== "OFFLINE") {
            const fresh = await mutate();
            if (fresh) {
              version.current = fresh.version;
              latest.current = fresh.document;
              setDoc(fresh.document);
            }
          }
        } finally {
          pending.current--;
        }
      });
      if (words) say(words, { undo: () => changeRef.current(back, "") });
    },
    [id, mutate, say, sayError],
  );
  const changeRef = useRef(change);
  changeRef.current = change;

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
            change,
            curve,
            wantCurve,
            saved,
            moved,
          }
        : undefined,
    [id, answer, doc, result, effects, change, curve, wantCurve, saved, moved],
  );
  return { state, error: error ?? failure, retry: () => refetchRun(id) };
}

/** Notes of one stage, worst first: their position is their number in the margin and on the picture. */
export function notesOf(result: RunResult, stage: StageKey): Note[] {
  const weight = { error: 0, warning: 1, remark: 2 };
  return result.notes
    .filter((n) => n.stage === stage)
    .sort(
      (a, b) =>
        Number(Boolean(a.acceptedBecause)) - Number(Boolean(b.acceptedBecause)) ||
        weight[a.level] - weight[b.level],
    );
}
