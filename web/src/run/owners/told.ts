import type { ShopReport } from "@kobbin/contract";
import { wilson } from "@kobbin/core";
import { count, fixed } from "../../ui/text/format.ts";

/** A report nobody has answered, and of which nobody said which fault it is. */
export const isOpen = (r: Pick<ShopReport, "answer" | "erratumId">): boolean =>
  r.answer === "" && r.erratumId === undefined;

/**
 * How often owners told of something: "1 of the 10 boards that went out, likely 2 to 40 % of all". The interval is Wilson's at
 * 95 % (domain.md 9.7); a board counts once. Without as many that are known to be out no share is told.
 *
 * @param out boards that went out, as far as it was written down
 */
export function toldOf(reports: readonly Pick<ShopReport, "runId" | "unit">[], out: number): string {
  const boards = new Set(reports.flatMap((r) => (r.runId ? [`${r.runId} ${r.unit}`] : []))).size;
  const unknown = reports.filter((r) => r.runId === undefined).length;
  const [low, high] = wilson(boards, out);
  const known =
    out < boards
      ? count(boards, "board")
      : `${boards} of the ${count(out, "board")} that went out, likely ${fixed(100 * low, 0)} to ${fixed(100 * high, 0)} % of all`;
  const others = `${unknown} whose board is not known`;
  return boards === 0 ? others : unknown === 0 ? known : `${known}; ${others}`;
}
