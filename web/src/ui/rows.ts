import { useEffect } from "react";

/** The text of a cell as a person would copy it: what is typed in a field, else what stands there. */
function cellText(cell: HTMLTableCellElement): string {
  const field = cell.querySelector("input, select, textarea");
  if (field instanceof HTMLInputElement && field.type === "checkbox") return field.checked ? "yes" : "no";
  if (field instanceof HTMLSelectElement) return field.selectedOptions[0]?.text ?? "";
  if (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) return field.value;
  const copy = cell.cloneNode(true) as HTMLElement;
  for (const hidden of copy.querySelectorAll("svg, [aria-hidden=true], .sr-only")) hidden.remove();
  return (copy.textContent ?? "").replace(/\s+/g, " ").trim();
}

/** A table, or one row of it, as rows a spreadsheet takes: cells apart by tabs. */
export function rowsText(table: HTMLTableElement, only?: HTMLTableRowElement): string {
  const rows = only && only.parentElement?.tagName === "TBODY" ? [only] : [...table.rows];
  return rows.map((r) => [...r.cells].map(cellText).join("\t")).join("\n");
}

/**
 * Ctrl+C with the focus in a row copies that row; with the focus on the table, or in its head, all of it. A selection
 * of text is copied as ever.
 */
export function useCopyRows(onCopied: (rows: number) => void): void {
  useEffect(() => {
    const copy = (e: ClipboardEvent) => {
      const at = document.activeElement;
      if (!(at instanceof HTMLElement) || ["INPUT", "TEXTAREA"].includes(at.tagName)) return;
      if ((document.getSelection()?.toString() ?? "") !== "") return;
      const table = at.closest("table");
      if (!table || !e.clipboardData) return;
      const text = rowsText(table, at.closest("tr") ?? undefined);
      e.clipboardData.setData("text/plain", text);
      e.preventDefault();
      onCopied(text.split("\n").length);
    };
    document.addEventListener("copy", copy);
    return () => document.removeEventListener("copy", copy);
  }, [onCopied]);
}
