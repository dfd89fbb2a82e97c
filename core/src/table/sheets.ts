import type { Finding } from "../findings.ts";
import { capital } from "../words.ts";
import type { Cells } from "./columns.ts";

/** A sheet of a workbook. */
export interface NamedSheet {
  readonly name: string;
  readonly isHidden: boolean;
  readonly cells: Cells;
  /** Rows that look otherwise than the rest, and columns out of sight, from 1. */
  readonly looks?: {
    readonly struck: readonly number[];
    readonly hidden: readonly number[];
    readonly coloured: readonly number[];
    readonly hiddenColumns: readonly number[];
  };
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
  if (taken?.looks) sayLooks(taken.looks, file, findings);
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

const MOST_NAMED = 8;
const named = (list: readonly number[], one: string) =>
  `${list.length === 1 ? one : `${one}s`} ${list.slice(0, MOST_NAMED).join(", ")}${list.length > MOST_NAMED ? ` and ${list.length - MOST_NAMED} more` : ""}`;

/** Says what a sheet shows beside its text: it was read like the rest, and somebody may have meant something by it. */
function sayLooks(looks: NonNullable<NamedSheet["looks"]>, file: string, findings: Finding[]): void {
  const say = (rows: readonly number[], what: string, meant: string) => {
    if (rows.length === 0) return;
    findings.push({
      tag: "table-rows-marked",
      level: "warning",
      file,
      row: rows[0]!,
      text: `${capital(named(rows, "row"))} ${rows.length === 1 ? "is" : "are"} ${what} and ${rows.length === 1 ? "was" : "were"} read like the others.`,
      do: meant,
    });
  };
  say(
    looks.struck,
    "struck through",
    "Take the row out, or mark its parts as not fitted, if that is what it means.",
  );
  say(looks.hidden, "hidden in the sheet", "Take it out if it is not to count.");
  say(looks.coloured, "coloured unlike the others", "If the colour means something, say it in a column.");
  if (looks.hiddenColumns.length > 0)
    findings.push({
      tag: "table-rows-marked",
      level: "remark",
      file,
      text: `${capital(named(looks.hiddenColumns, "column"))} ${looks.hiddenColumns.length === 1 ? "is" : "are"} hidden in the sheet and ${looks.hiddenColumns.length === 1 ? "was" : "were"} read like the others.`,
    });
}
