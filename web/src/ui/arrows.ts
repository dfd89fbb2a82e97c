import { useEffect } from "react";

const FOCUSABLE =
  "a[href], button:not([disabled]), select:not([disabled]), input:not([disabled]), [tabindex='0']";
const STEP: Readonly<Record<string, readonly [number, number]>> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const first = (el: Element | null | undefined) => el?.querySelector<HTMLElement>(FOCUSABLE) ?? undefined;
const isSeen = (el: HTMLElement) => el.offsetParent !== null;

/** From a cell the next one that can be focused, in the direction of the step. */
function inTable(
  cell: HTMLTableCellElement,
  [down, right]: readonly [number, number],
): HTMLElement | undefined {
  const row = cell.parentElement as HTMLTableRowElement;
  const rows = [...(row.closest("table")?.rows ?? [])];
  let [r, c] = [rows.indexOf(row), cell.cellIndex];
  for (;;) {
    r += down;
    c += right;
    const next = rows[r]?.cells[c];
    if (!next) return undefined;
    const target = first(next);
    if (target && isSeen(target)) return target;
  }
}

/** From an entry of a list the first thing that can be focused in the next entry; left and right within the entry. */
function inList(
  entry: HTMLElement,
  at: HTMLElement,
  [down, right]: readonly [number, number],
): HTMLElement | undefined {
  if (right !== 0) {
    const own = [...entry.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isSeen);
    return own[own.indexOf(at) + right];
  }
  for (let next = entry; ; ) {
    const sibling = down > 0 ? next.nextElementSibling : next.previousElementSibling;
    if (!(sibling instanceof HTMLElement)) return undefined;
    next = sibling;
    const target = first(next);
    if (target && isSeen(target)) return target;
  }
}

/** Arrow keys in every table and list: to the next row, entry or cell. Fields and what uses arrows itself keep them. */
export function useArrows(): void {
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      const step = STEP[e.key];
      const at = e.target;
      if (!step || e.defaultPrevented || e.ctrlKey || e.altKey || e.metaKey || e.shiftKey) return;
      if (
        !(at instanceof HTMLElement) ||
        at.closest("[role=slider], [role=application], [role=listbox], [role=menu]")
      )
        return;
      if (["TEXTAREA", "SELECT"].includes(at.tagName)) return;
      if (at instanceof HTMLInputElement && at.type !== "checkbox") return;
      const cell = at.closest<HTMLTableCellElement>("td, th");
      const entry = at.closest<HTMLElement>("li");
      const inner = cell && entry ? (cell.contains(entry) ? entry : cell) : (cell ?? entry);
      if (!inner) return;
      const target = inner instanceof HTMLTableCellElement ? inTable(inner, step) : inList(inner, at, step);
      if (!target) return;
      e.preventDefault();
      target.focus();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
