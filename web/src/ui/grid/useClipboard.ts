import { type RefObject, useEffect, useRef } from "react";

/** What is done with the clipboard where an element has the focus. */
export interface Clipboard {
  readonly copy: () => string;
  readonly copied: () => void;
  readonly paste: (text: string) => void;
  /** Takes away what was cut. */
  readonly clear: () => void;
}

/** The clipboard is outside of React: it speaks to whatever has the focus, and here to one element. */
export function useClipboard(element: RefObject<HTMLElement | null>, given: Clipboard): void {
  const clip = useRef(given);
  clip.current = given;
  useEffect(() => {
    const el = element.current!;
    const isHere = () => document.activeElement === el;
    const copy = (e: ClipboardEvent) => {
      if (!isHere() || !e.clipboardData) return;
      e.clipboardData.setData("text/plain", clip.current.copy());
      e.preventDefault();
      clip.current.copied();
      if (e.type === "cut") clip.current.clear();
    };
    const paste = (e: ClipboardEvent) => {
      if (!isHere()) return;
      e.preventDefault();
      e.stopPropagation();
      clip.current.paste(e.clipboardData?.getData("text/plain") ?? "");
    };
    el.addEventListener("copy", copy);
    el.addEventListener("cut", copy);
    el.addEventListener("paste", paste);
    return () => {
      el.removeEventListener("copy", copy);
      el.removeEventListener("cut", copy);
      el.removeEventListener("paste", paste);
    };
  }, [element]);
}
