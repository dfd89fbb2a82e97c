import type { HistoryAnswer } from "@kobbin/contract";
import { useEffect } from "react";
import { mutate } from "swr";
import useSWRInfinite from "swr/infinite";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

/** Whose history: a run's (its bill included), a product's, or all of the shop. */
export type HistoryOf = { readonly run: string } | { readonly product: string } | Record<string, never>;

const keyFor = (of: HistoryOf) => (index: number, before: HistoryAnswer | null) =>
  index > 0 && !before?.before
    ? null
    : `/api/history?${new URLSearchParams({ ...of, ...(before?.before ? { before: before.before } : {}) })}`;

/** Changes, newest first, page by page. */
export function useHistory(of: HistoryOf) {
  const list = useSWRInfinite<HistoryAnswer>(keyFor(of), http.get, {
    revalidateFirstPage: true,
    revalidateAll: true,
  });
  const { mutate: again } = list;
  useEffect(() => {
    const hear = () => void again();
    window.addEventListener("kobbin-history", hear);
    return () => window.removeEventListener("kobbin-history", hear);
  }, [again]);
  return list;
}

/** After something was taken back or brought again: everything that may show it, each as soon as it comes. */
export async function refetchAll(): Promise<void> {
  historyChanged();
  // what cannot be fetched now stays as it is; its own place says so
  await Promise.allSettled([refetchRuns(), mutate("/api/bench"), mutate("/api/session")]);
}

/** Lists that grow page by page are not reached by a key; they listen for this. */
export const historyChanged = (): void => {
  window.dispatchEvent(new Event("kobbin-history"));
};

/** Takes a change back, or brings again what a taking back took. */
export const undoChange = (id: string, force = false) =>
  outbox.write<{ id: string }>("POST", `/api/changes/${id}/undo`, { force }).then((a) => {
    void refetchAll();
    return a;
  });

/** The person's own last change of this run, or the last they took back. */
export const undoLast = (runId: string, verb: "undo" | "redo") =>
  outbox.write<{ id: string; says: string }>("POST", `/api/runs/${runId}/${verb}`).then((a) => {
    void refetchAll();
    return a.value;
  });
