import type { TrayPart } from "../../panel/write/aids.ts";
import { boardOf, Places } from "../document/boards.ts";
import { directedParts } from "../document/directions.ts";
import type { RunDocument } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";

/** Parts of a board as its maps show them: by side, and those whose place no file tells. */
export interface TrayParts {
  readonly top: readonly TrayPart[];
  readonly bottom: readonly TrayPart[];
  readonly beside: readonly Omit<TrayPart, "x" | "y">[];
}

/**
 * What is laid out before a board is soldered: every part that is fitted by the run, by hand or not, with its direction where
 * it has one.
 *
 * @param index of the board in the run
 */
export function trayParts(doc: RunDocument, index: number): TrayParts {
  const places = new Places(doc);
  const at = doc.boards[index];
  const all = lineParts(doc);
  const marks = new Map(directedParts(doc, all).map((d) => [d.line, d.mark ?? ""]));
  const top: TrayPart[] = [];
  const bottom: TrayPart[] = [];
  const beside: Omit<TrayPart, "x" | "y">[] = [];
  for (const { line, kind } of all) {
    if (line.dnp || line.mount === "none" || kind === "loose" || boardOf(doc, line) !== at) continue;
    const direction = marks.get(line.id);
    for (const ref of line.refs) {
      const part = {
        ref,
        value: line.valueText || line.mpn,
        ...(direction === undefined ? {} : { direction }),
      };
      const p = places.of(line, ref);
      if (!p) beside.push(part);
      else (p.side === "bottom" ? bottom : top).push({ ...part, x: p.xMm, y: p.yMm });
    }
  }
  return { top, bottom, beside };
}
