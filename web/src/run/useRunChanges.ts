import type { ClashDetail, RunAnswer, RunBody } from "@kobbin/contract";
import { layChange, type RunChange, type RunDocument } from "@kobbin/core";
import { useCallback, useMemo, useRef, useState } from "react";
import { undoChange } from "../resources/history.ts";
import { type Answered, clashesOf } from "../resources/http.ts";
import { changedLine, type LineChange, saveLine, saveLines, saveRun } from "../resources/run.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";

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

/** Says what was done, with undo once the server has it; a clash of the undo is handed on. */
function useDid(setClash: (clash: Clash) => void) {
  const say = useSay();
  const sayError = useSayError();
  return useCallback(
    (words: string, changed: Promise<Answered<unknown>>) => {
      const back = (changeId: string, force: boolean): Promise<void> =>
        undoChange(changeId, force).then(
          () => undefined,
          (e) =>
            clashesOf(e).length > 0
              ? setClash({
                  kind: "undo",
                  words,
                  clashes: clashesOf(e),
                  insist: () => back(changeId, true).catch(sayError),
                })
              : sayError(e),
        );
      const dismiss = say(words, {
        undo: () =>
          void changed.then(({ changeId }) => (changeId ? back(changeId, false) : undefined)).catch(sayError),
      });
      // what was not saved was not done
      changed.catch(dismiss);
    },
    [say, sayError, setClash],
  );
}

/** Changes of a run: shown at once, sent, taken back, and asked about where somebody else set the same. */
export function useRunChanges(id: string, answer: RunAnswer | undefined, refetch: () => Promise<unknown>) {
  const [ops, setOps] = useState<readonly Op[]>([]);
  const [clash, setClash] = useState<Clash>();
  const sayError = useSayError();
  const latest = useRef<RunAnswer>(undefined);
  latest.current = answer;
  const did = useDid(setClash);

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
        await refetch().catch(() => undefined);
        if (clashes.length === 0) return sayError(e);
        setClash({ kind: "edit", words, clashes, insist: () => attempt().then(() => undefined, sayError) });
      });
      if (words) did(words, changed);
    },
    [did, refetch, sayError],
  );

  const change = useCallback(
    (c: RunChange, words: string) =>
      carry(
        (d) => layChange(d, c),
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
  const changeLines = useCallback(
    (changes: readonly { readonly id: string; readonly change: LineChange }[], words: string) => {
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
  return useMemo(
    () => ({ ops, clash, did, change, changeLine, changeLines, settleClash }),
    [ops, clash, did, change, changeLine, changeLines, settleClash],
  );
}
