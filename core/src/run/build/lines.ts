import { later } from "../../day.ts";
import {
  fitLine,
  fitPieces,
  isTooFar,
  type LineFit,
  type LinePoint,
  linesOf,
  lineWrong,
  offWords,
  type PlannedLine,
} from "../../testing/line-fit.ts";
import type { TestTry } from "../document/record.ts";

/** What of an item makes it a point of a line. */
interface PointItem {
  readonly id: string;
  readonly name: string;
  readonly unit?: string | undefined;
  readonly point?: LinePoint | undefined;
}

/** A line of one board: its constants, and whether every point lies near enough to it. */
export interface UnitLine<T extends PointItem> {
  readonly line: PlannedLine<T>;
  /** Nothing while a point is open or fails by itself, or where no line comes of what was read. */
  readonly fit?: LineFit;
  readonly stand: "pass" | "fail" | "open";
  /** The point that is farthest off, and in words by how much, where it is too much. */
  readonly off?: { readonly item: T; readonly because: string };
  /** ISO day of its last reading, and the day until which it is taken to be true. */
  readonly on?: string;
  readonly until?: string;
}

/**
 * The lines of a board from the last reading of each point. A line stands when every point was read and passed its own limits
 * that day, and none lies farther off it than the plan allows; a reading that only says more or less is no point.
 */
export function linesOfUnit<T extends PointItem>(
  plan: readonly T[],
  tries: readonly TestTry[],
  unit: number,
): UnitLine<T>[] {
  return linesOf(plan as readonly (T & { unit?: string; point?: LinePoint })[])
    .filter((line) => !lineWrong(line)?.isNone)
    .map((line): UnitLine<T> => {
      const last = line.items.map((t) => tries.filter((x) => x.unit === unit && x.item === t.id).at(-1));
      const read = last.flatMap((t) =>
        t && t.verdict === "pass" && t.value !== undefined && t.bound === undefined ? [t] : [],
      );
      if (read.length < line.items.length)
        return { line, stand: last.some((t) => t?.verdict === "fail") ? "fail" : "open" };
      const points = line.items.map((t, i) => ({
        applied: Number(t.point!.applied),
        reading: Number(read[i]!.value),
      }));
      const fit = line.form === "pieces" ? fitPieces(points) : fitLine(points);
      const on = read
        .map((t) => t.on)
        .sort()
        .at(-1)!;
      const dated = { on, ...(line.days === undefined ? {} : { until: later(on, line.days) }) };
      if (!fit)
        return {
          line,
          ...dated,
          stand: "fail",
          off: { item: line.items.at(-1)!, because: "what is read does not follow what is applied" },
        };
      // the points themselves are the constants: none can be off
      if (fit.kind === "pieces") return { line, fit, ...dated, stand: "pass" };
      const worst = fit.points[fit.worst]!;
      if (!isTooFar(worst.off, line.worst)) return { line, fit, ...dated, stand: "pass" };
      const item = line.items[fit.worst]!;
      return {
        line,
        fit,
        ...dated,
        stand: "fail",
        off: {
          item,
          because: `${offWords(worst.off, line.worst)} ${line.unit} off its line at ${item.point!.applied} ${line.unit}, ${line.worst} allowed`,
        },
      };
    });
}
