import { kindOfLine, type RunLine } from "@kobbin/core";

/**
 * Lines of the bill that can be a part of a sum: those of its class, the line the sum is opened from where nobody knows
 * what it is, and the one that is chosen.
 *
 * @param own id of the line the sum is opened from
 * @param chosen id of the line that is chosen, if any
 */
export const linesFor = (
  part: "resistor" | "capacitor",
  lines: readonly RunLine[],
  own: string,
  chosen: string | undefined,
): RunLine[] =>
  lines.filter((l) => {
    if (l.id === chosen) return true;
    const kind = kindOfLine(l);
    return !l.dnp && (kind === part || (l.id === own && kind === "other"));
  });
