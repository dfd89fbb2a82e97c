import { type RefObject, useEffect, useRef } from "react";

/** Prints one part of the page alone. */
export function printAlone(part: HTMLElement): void {
  part.dataset.printing = "";
  window.print();
  delete part.dataset.printing;
}

/** For paper that is only there to be printed: it prints itself once it stands, and says when it is done. */
export function usePrinted(onDone: () => void): RefObject<HTMLElement | null> {
  const paper = useRef<HTMLElement>(null);
  // what prints is outside of React
  useEffect(() => {
    if (!paper.current) return;
    printAlone(paper.current);
    onDone();
  }, [onDone]);
  return paper;
}
