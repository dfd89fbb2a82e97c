import { undoChange } from "../resources/history.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";

/** Says what was done, with undo. */
export function useDone() {
  const say = useSay();
  const sayError = useSayError();
  return (done: Promise<{ readonly changeId?: string | undefined }>, words: string) =>
    void done.then(
      ({ changeId }) =>
        say(words, { ...(changeId ? { undo: () => void undoChange(changeId).catch(sayError) } : {}) }),
      sayError,
    );
}
