import { useEffect, useState } from "react";

/** The row a person is at: under the pointer, with the focus in it, or active in a grid that holds the focus itself. */
function rowAt(target: EventTarget | null): Element | null {
  if (!(target instanceof Element)) return null;
  const active = target.getAttribute("aria-activedescendant");
  return ((active && document.getElementById(active)) || target).closest("[data-lines]");
}

/** Ids of the lines of the bill the last pointed row is about; rows tell them as data-lines, parted by spaces. */
export function usePointed(): readonly string[] {
  const [lines, setLines] = useState("");
  useEffect(() => {
    const follow = (e: Event) => {
      const row = rowAt(e.target);
      if (row) setLines(row.getAttribute("data-lines") ?? "");
    };
    const kinds = ["pointerover", "focusin", "keyup"] as const;
    for (const k of kinds) document.addEventListener(k, follow);
    return () => {
      for (const k of kinds) document.removeEventListener(k, follow);
    };
  }, []);
  return lines === "" ? [] : lines.split(" ");
}
