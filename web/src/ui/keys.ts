import { useLayoutEffect } from "react";

/** One binding of the page: what to press, what it does. */
export interface KeyBinding {
  readonly keys: string;
  readonly does: string;
  readonly run: () => void;
}

const bound = new Set<readonly KeyBinding[]>();

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

/** Binds keys while the component is there; the shortcut sheet lists what is bound. */
export function useKeys(bindings: readonly KeyBinding[]): void {
  // with the page that is seen, not after it: a key pressed at once is meant for what stands there
  useLayoutEffect(() => {
    bound.add(bindings);
    const listen = (e: KeyboardEvent) => {
      if (isTyping(e) || e.defaultPrevented || e.altKey || isInDialog()) return;
      const hit = bindings.find((b) => b.keys.split(" or ").includes(nameOf(e)));
      if (!hit) return;
      e.preventDefault();
      hit.run();
    };
    window.addEventListener("keydown", listen);
    return () => {
      bound.delete(bindings);
      window.removeEventListener("keydown", listen);
    };
  }, [bindings]);
}

/** Everything bound now, for the sheet. */
export const boundKeys = (): KeyBinding[] => [...bound].flat();
