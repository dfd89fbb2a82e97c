import { useSyncExternalStore } from "react";

/** A clock of the shelf needs no seconds. */
const EVERY_MS = 30_000;
let now = Date.now();
const hearers = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

const hear = (heard: () => void) => {
  // nobody looked for a while
  if (hearers.size === 0) now = Date.now();
  hearers.add(heard);
  timer ??= setInterval(() => {
    now = Date.now();
    for (const h of hearers) h();
  }, EVERY_MS);
  return () => {
    hearers.delete(heard);
    if (hearers.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
};

/** This moment in ms, told twice a minute while somebody looks; one clock for the whole page. */
export const useNow = (): number => useSyncExternalStore(hear, () => now);
