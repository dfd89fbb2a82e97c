import { useSyncExternalStore } from "react";
import { type Answered, http, RequestError } from "./http.ts";

/** One change on its way to the server. */
interface Entry {
  readonly key: string;
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  /** The shop it belongs to: it is never sent into another. */
  readonly shop?: string | undefined;
}

/** What the page says about saving. */
export type Saving =
  | { readonly kind: "saved"; readonly at?: Date }
  | { readonly kind: "saving" }
  /** Cannot be sent now; kept, and sent again by itself. */
  | { readonly kind: "waiting"; readonly count: number; readonly why: "offline" | "signed out" };

/** What an outbox stands on; passed in so that it can be tested without a browser. */
export interface OutboxParts {
  readonly send: <T>(method: string, path: string, body: unknown, key: string) => Promise<Answered<T>>;
  readonly store: Pick<Storage, "getItem" | "setItem" | "removeItem"> | undefined;
  readonly wait: (ms: number, wake: Promise<void>) => Promise<void>;
  readonly newKey: () => string;
}

const STORE = "kobbin-outbox";
/** A change as it is kept. */
const plain = ({ key, method, path, body, shop }: Entry): Entry => ({ key, method, path, body, shop });

/**
 * Sends changes one after another. A change that cannot be sent waits at the head, is tried again with growing
 * pauses, and survives a reload; the server does a change that comes twice only once.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one outbox: what it does shares what lies in it
export function createOutbox(parts: OutboxParts) {
  const queue: (Entry & {
    readonly done: (answer: Answered<never>) => void;
    readonly failed: (error: unknown) => void;
  })[] = [];
  let state: Saving = { kind: "saved" };
  const hearers = new Set<() => void>();
  let isPumping = false;
  let shop: string | undefined;
  let wake: () => void = () => undefined;

  const set = (next: Saving) => {
    state = next;
    for (const h of hearers) h();
  };
  const keep = () => {
    try {
      if (queue.length === 0) parts.store?.removeItem(STORE);
      else parts.store?.setItem(STORE, JSON.stringify(queue.map(plain)));
    } catch {
      // a full store takes nothing more; the changes are still in memory
    }
  };
  const pump = async () => {
    if (isPumping) return;
    isPumping = true;
    let pause = 500;
    while (queue[0]) {
      const entry = queue.find((e) => e.shop === shop);
      if (!entry) {
        set({ kind: "waiting", count: queue.length, why: "signed out" });
        await parts.wait(
          3_600_000,
          new Promise((resolve) => {
            wake = resolve;
          }),
        );
        continue;
      }
      if (state.kind !== "waiting") set({ kind: "saving" });
      try {
        const answer = await parts.send<never>(entry.method, entry.path, entry.body, entry.key);
        queue.splice(queue.indexOf(entry), 1);
        keep();
        pause = 500;
        if (state.kind === "waiting" && queue.length > 0) set({ ...state, count: queue.length });
        entry.done(answer);
      } catch (error) {
        const isSignedOut = error instanceof RequestError && error.code === "NOT_SIGNED_IN";
        if (isSignedOut || (error instanceof RequestError && error.isPassing)) {
          set({ kind: "waiting", count: queue.length, why: isSignedOut ? "signed out" : "offline" });
          await parts.wait(
            isSignedOut ? 3_600_000 : pause,
            new Promise((resolve) => {
              wake = resolve;
            }),
          );
          pause = Math.min(8000, pause * 2);
          continue;
        }
        queue.splice(queue.indexOf(entry), 1);
        keep();
        entry.failed(error);
      }
    }
    isPumping = false;
    set({ kind: "saved", at: new Date() });
  };
  const push = <T>(entry: Entry): Promise<Answered<T>> =>
    new Promise((done, failed) => {
      queue.push({ ...entry, done: done as (a: Answered<never>) => void, failed });
      keep();
      if (state.kind === "waiting") set({ ...state, count: queue.length });
      void pump();
    });
  return {
    /** Sends a change; resolves when the server has it, rejects when it refuses. */
    write: <T>(method: string, path: string, body?: unknown): Promise<Answered<T>> =>
      push<T>({ key: parts.newKey(), method, path, body, shop }),
    /**
     * Resolves once everything written before has its answer: what freezes or packs a run must have the last change in it.
     * @throws RequestError OFFLINE while changes wait for the server or for somebody to sign in
     */
    async settled(): Promise<void> {
      while (queue.length > 0) {
        if (state.kind === "waiting")
          throw new RequestError(
            "OFFLINE",
            "Changes of this page are not saved yet.",
            "They are sent by themselves; try again once it says saved.",
          );
        await new Promise<void>((done) => {
          const hear = () => {
            hearers.delete(hear);
            done();
          };
          hearers.add(hear);
        });
      }
    },
    /** Says which shop the page is in now; what waits for it goes on. */
    enter(id: string | undefined): void {
      shop = id;
      wake();
    },
    /** Takes up what an earlier life of this page could not send; resolves with how many once the server has them. */
    async adopt(failed: (error: unknown) => void): Promise<number> {
      let list: Entry[] = [];
      try {
        list = JSON.parse(parts.store?.getItem(STORE) ?? "[]") as Entry[];
      } catch {
        list = [];
      }
      const fresh = list.filter((entry) => !queue.some((q) => q.key === entry.key));
      await Promise.all(fresh.map((entry) => push(entry).catch(failed)));
      return fresh.length;
    },
    /** Tries again now: the connection is back, somebody signed in. */
    retry: () => wake(),
    state: () => state,
    subscribe(hear: () => void) {
      hearers.add(hear);
      return () => {
        hearers.delete(hear);
      };
    },
    waiting: () => queue.length,
    /** Bodies of what is on its way to a path, the oldest first. */
    pending: (path: string): readonly unknown[] => queue.filter((e) => e.path === path).map((e) => e.body),
  };
}

const store = (() => {
  try {
    return sessionStorage;
  } catch {
    return undefined;
  }
})();

/** The page's one outbox. */
export const outbox = createOutbox({
  send: http.change,
  store,
  wait: (ms, wake) => Promise.race([new Promise<void>((r) => setTimeout(r, ms)), wake]),
  newKey: () => crypto.randomUUID(),
});

if (typeof window !== "undefined") {
  window.addEventListener("online", outbox.retry);
  // leaving with something unsaved asks first; a reload brings it back and sends it
  window.addEventListener("beforeunload", (e) => {
    if (outbox.waiting() > 0) e.preventDefault();
  });
}

export const useSaving = (): Saving => useSyncExternalStore(outbox.subscribe, outbox.state);
