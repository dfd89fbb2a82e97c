import type { Finding } from "../findings.ts";
import type { Cells } from "./columns.ts";

/** A sheet of a workbook. */
export interface NamedSheet {
  readonly name: string;
  readonly isHidden: boolean;
  readonly cells: Cells;
}

/**
 * The sheet of a workbook that holds the list: the first in view that looks like one, else the first hidden one that
 * does, else the first that holds anything. Which was taken is said where there was a choice.
 *
 * @param isList whether cells look like what is wanted
 * @param what the list is called, for the sentence
 */
export function chooseSheet(
  sheets: readonly NamedSheet[],
  isList: (cells: Cells) => boolean,
  what: string,
  file: string,
  findings: Finding[],
): NamedSheet | undefined {
  const inOrder = [...sheets.filter((s) => !s.isHidden), ...sheets.filter((s) => s.isHidden)];
  const lists = inOrder.filter((s) => isList(s.cells));
  const taken = lists[0] ?? inOrder[0];
  if (!taken || sheets.length < 2) return taken;
  const others = lists.filter((s) => s !== taken);
  const name = (s: NamedSheet) => `“${s.name}”${s.isHidden ? " (hidden)" : ""}`;
  findings.push({
    tag: "bom-sheet-chosen",
    level: others.length > 0 || taken.isHidden ? "warning" : "remark",
    file,
    text: `Of ${sheets.length} sheets ${name(taken)} was taken${lists.length === 0 ? `, the first; none looks like ${what}` : ` as ${what}`}${others.length > 0 ? `; ${others.map(name).join(", ")} ${others.length > 1 ? "look" : "looks"} like one too` : ""}.`,
    ...(others.length > 0 || taken.isHidden
      ? { do: "Save the sheet you mean as a file of its own, and drop that." }
      : {}),
  });
  return taken;
}
