import { useLayoutEffect } from "react";

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

/** Everything bound now, for the sheet. */
export const boundKeys = (): KeyBinding[] =>
  [...bound].flatMap((list) => (over.has(list) ? list : list.filter((b) => !isTaken(b.keys))));
