import { useLayoutEffect, useRef } from "react";

/** One binding of the page: what to press, what it does. */
export interface KeyBinding {
  readonly keys: string;
  readonly does: string;
  readonly run: () => void;
}

const bound = new Set<readonly KeyBinding[]>();
/** Those that take their keys from all others while they are there. */
const over = new Set<readonly KeyBinding[]>();

const isFor = (b: KeyBinding, key: string) => b.keys.split(" or ").includes(key);
const isTaken = (key: string) => [...over].some((list) => list.some((b) => isFor(b, key)));

const isTyping = (e: KeyboardEvent) =>
  e.target instanceof HTMLElement &&
  (e.target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(e.target.tagName));

// a dialog keeps the page behind it still
const isInDialog = () => document.querySelector('[role="dialog"]') !== null;

const nameOf = (e: KeyboardEvent) => {
  const hasCtrl = e.ctrlKey || e.metaKey;
  const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
  // a letter's capital counts with Ctrl only: "?" and "/" need Shift on some keyboards
  return `${hasCtrl ? "Ctrl+" : ""}${hasCtrl && e.shiftKey ? "Shift+" : ""}${key}`;
};

/**
 * Binds keys while the component is there; the shortcut sheet lists what is bound.
 *
 * @param isOver one thing is asked at a time, and its answers' keys mean nothing else meanwhile
 */
export function useKeys(bindings: readonly KeyBinding[], isOver = false): void {
  // with the page that is seen, not after it: a key pressed at once is meant for what stands there
  useLayoutEffect(() => {
    bound.add(bindings);
    if (isOver) over.add(bindings);
    const listen = (e: KeyboardEvent) => {
      if (isTyping(e) || e.defaultPrevented || e.altKey || isInDialog()) return;
      const key = nameOf(e);
      const hit = bindings.find((b) => isFor(b, key));
      if (!hit || (!isOver && isTaken(key))) return;
      e.preventDefault();
      hit.run();
    };
    window.addEventListener("keydown", listen);
    return () => {
      bound.delete(bindings);
      over.delete(bindings);
      window.removeEventListener("keydown", listen);
    };
  }, [bindings, isOver]);
}

/** Presses a key as if it had been pressed: what is bound to it now runs. */
function press(key: string): void {
  for (const list of [...bound]) {
    const hit = list.find((b) => isFor(b, key));
    if (hit && (over.has(list) || !isTaken(key))) hit.run();
  }
}

let isNextTaken = false;
/** The next key, whichever it is, goes to one hearer and to nobody else. @returns takes that back */
export function hearNext(hear: (e: KeyboardEvent) => void): () => void {
  isNextTaken = true;
  const listen = (e: KeyboardEvent) => {
    e.preventDefault();
    e.stopImmediatePropagation();
    isNextTaken = false;
    hear(e);
  };
  window.addEventListener("keydown", listen, { capture: true, once: true });
  return () => {
    isNextTaken = false;
    window.removeEventListener("keydown", listen, { capture: true });
  };
}

/** Keys of a scanner come closer together than anybody types, ms. */
const SCAN_GAP_MS = 50;
const SCAN_LEAST = 6;

/**
 * Hears a scanner that types: so many symbols at once, ended by Enter, are one word and none of them a press. Single
 * letters and digits are held for the blink it takes to tell, and then pressed; Enter, blank and all others are not held.
 */
export function useScans(onScan: (text: string) => void): void {
  const hear = useRef(onScan);
  hear.current = onScan;
  useLayoutEffect(() => {
    let held = "";
    let timer: ReturnType<typeof setTimeout> | undefined;
    const flush = () => {
      clearTimeout(timer);
      const keys = held;
      held = "";
      for (const key of keys) press(key.toLowerCase());
    };
    const listen = (e: KeyboardEvent) => {
      if (isNextTaken || isTyping(e) || e.altKey || e.ctrlKey || e.metaKey || isInDialog()) return;
      if (/^[a-z0-9-]$/i.test(e.key)) {
        e.preventDefault();
        e.stopImmediatePropagation();
        held += e.key;
        clearTimeout(timer);
        timer = setTimeout(flush, SCAN_GAP_MS);
      } else if (e.key === "Enter" && held.length >= SCAN_LEAST) {
        e.preventDefault();
        e.stopImmediatePropagation();
        clearTimeout(timer);
        const text = held;
        held = "";
        hear.current(text);
      } else if (e.key !== "Shift") flush();
    };
    // before anything else hears them
    window.addEventListener("keydown", listen, true);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("keydown", listen, true);
    };
  }, []);
}

/** Everything bound now, for the sheet. */
export const boundKeys = (): KeyBinding[] =>
  [...bound].flatMap((list) => (over.has(list) ? list : list.filter((b) => !isTaken(b.keys))));
