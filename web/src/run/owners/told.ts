import type { ShopReport } from "@kobbin/contract";
import { wilson } from "@kobbin/core";
import { count, fixed } from "../../ui/text/format.ts";

/** A report nobody has answered, and of which nobody said which fault it is. */
export const isOpen = (r: Pick<ShopReport, "answer" | "erratumId">): boolean =>
  r.answer === "" && r.erratumId === undefined;

/**
 * How often owners told of something, of the boards that went out: "told of 2 boards of the 17 that went out, 3 to 34 %".
 * The interval is Wilson's at 95 % (domain.md 9.7); a board counts once. Without any that is known to be out no share is told.
 *
 * @param out boards that went out, as far as it was written down
 */
export function toldOf(reports: readonly Pick<ShopReport, "runId" | "unit">[], out: number): string {
  const boards = new Set(reports.flatMap((r) => (r.runId ? [`${r.runId} ${r.unit}`] : []))).size;
  const unknown = reports.filter((r) => r.runId === undefined).length;
  const by = [
    boards > 0 && `of ${count(boards, "board")}`,
    unknown > 0 && `${boards > 0 ? "and " : ""}by ${count(unknown, "stranger")} without a number`,
  ]
    .filter((x) => x !== false)
    .join(" ");
  if (boards === 0 || out < boards) return `told ${by}`;
  const [low, high] = wilson(boards, out);
  return `told ${by}, ${out} went out: ${fixed(100 * low, 0)} to ${fixed(100 * high, 0)} %`;
}
