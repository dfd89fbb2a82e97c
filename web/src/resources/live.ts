import type { LiveMessage, PresenceRow } from "@kobbin/contract";
import { useSyncExternalStore } from "react";
import { mutate } from "swr";
import { historyChanged, refetchAll } from "./history.ts";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { pageId } from "./page.ts";
import { refetchRun, refetchRuns } from "./run.ts";

/** What the page knows of the others and of its own connection. */
export interface Live {
  readonly isConnected: boolean;
  readonly here: readonly PresenceRow[];
  /** How far the backup is that this page sent. */
  readonly restoring?:
    | { readonly what: "rows" | "runs"; readonly done: number; readonly of: number }
    | undefined;
}

let live: Live = { isConnected: true, here: [] };
const hearers = new Set<() => void>();
const set = (change: Partial<Live>) => {
  live = { ...live, ...change };
  for (const h of hearers) h();
};

/** A backup is sent: how far it is, is heard anew. */
export const restoreBegins = (): void => set({ restoring: undefined });

export const useLive = (): Live =>
  useSyncExternalStore(
    (hear) => {
      hearers.add(hear);
      return () => {
        hearers.delete(hear);
      };
    },
    () => live,
  );

/**
 * Listens while the page is open: what others change is fetched, who is where is shown. After a loss everything is
 * sent that waits, then everything is fetched again.
 *
 * @param tell says in passing what somebody else did
 * @returns a function that ends it
 */
export function startLive(tell: (text: string) => unknown): () => void {
  let source: EventSource | undefined;
  let lostAt: ReturnType<typeof setTimeout> | undefined;
  let hiddenAt: ReturnType<typeof setTimeout> | undefined;
  let wasLost = false;
  const back = async () => {
    clearTimeout(lostAt);
    lostAt = undefined;
    set({ isConnected: true });
    outbox.retry();
    if (!wasLost) return;
    wasLost = false;
    // first what this page holds, so that it is set against what others did, not laid over it unseen
    for (let i = 0; i < 50 && outbox.waiting() > 0; i++) await new Promise((r) => setTimeout(r, 100));
    await refetchAll();
  };
  const hear = (m: LiveMessage) => {
    if (m.kind === "presence") set({ here: m.here });
    else if (m.kind === "restoring") set({ restoring: { what: m.what, done: m.done, of: m.of } });
    else if (m.kind === "resync") void refetchAll();
    else if (m.kind === "figures") {
      void mutate("/api/bench");
      void mutate("/api/waiting");
    } else if (m.kind === "asking") {
      void mutate(`/api/runs/${m.runId}/asks`);
      void refetchRun(m.runId);
    } else if (m.kind === "places") void refetchRun(m.runId);
    else if (m.page !== pageId()) {
      // of runs, only the one that is open is fetched
      void refetchRuns();
      void mutate("/api/bench");
      void mutate("/api/waiting");
      historyChanged();
      if (!m.productId) void mutate("/api/session");
      // who has busy hands sees it where it belongs, and is not spoken to
      if (m.person && !document.querySelector("[data-busy-hands]")) tell(`${m.person}: ${m.says}`);
    }
  };
  const open = () => {
    source = new EventSource(`/api/live?page=${pageId()}`);
    source.onopen = () => void back();
    source.onerror = () => {
      wasLost = true;
      lostAt ??= setTimeout(() => set({ isConnected: false }), 2500);
      // a refused stream is not tried again by the browser itself
      if (source?.readyState === EventSource.CLOSED) void mutate("/api/session");
    };
    source.onmessage = (event) => hear(JSON.parse(event.data as string) as LiveMessage);
  };
  const shut = () => {
    clearTimeout(lostAt);
    lostAt = undefined;
    source?.close();
    source = undefined;
  };
  // a browser has few connections to one host: a page nobody looks at gives its own back, and catches up when seen again
  const look = () => {
    clearTimeout(hiddenAt);
    if (document.hidden) hiddenAt = setTimeout(shut, 20_000);
    else if (!source) {
      wasLost = true;
      open();
    }
  };
  document.addEventListener("visibilitychange", look);
  open();
  return () => {
    document.removeEventListener("visibilitychange", look);
    clearTimeout(hiddenAt);
    shut();
    set({ here: [], isConnected: true });
  };
}

/** Where a page is, as the others are told: its path, and at the bench the board in hand. */
export function placeOf(pathname: string, search: string): string {
  const params = new URLSearchParams(search);
  const unit = params.get("view") === "hands" ? params.get("unit") : null;
  return `${pathname.slice(1)}${unit && /^\d{1,6}$/.test(unit) ? `/${unit}` : ""}`;
}

/** Who else has a board of a run in hand now. */
export const useAtUnit = (runId: string): ((unit: number) => readonly string[]) => {
  const { here } = useLive();
  return (unit) =>
    here.flatMap((p) => (p.page !== pageId() && p.place === `runs/${runId}/build/${unit}` ? [p.person] : []));
};

/** Tells the others where this page is. */
export const tellPlace = (place: string): Promise<void> =>
  http.put<void>("/api/presence", { page: pageId(), place }).catch(() => undefined);
