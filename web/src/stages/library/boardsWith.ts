import type { BoardsWith } from "@kobbin/contract";
import { count } from "../../ui/text/format.ts";

/**
 * How far a lot went: "20 pieces went to 2 runs with 39 boards; which of those have one is not written down. 21 of the 39 went
 * out." Pieces that a closed run took, else those that came for it.
 */
export function saysBoardsWith(list: readonly BoardsWith[]): string {
  const sum = (of: (b: BoardsWith) => number) => list.reduce((n, b) => n + of(b), 0);
  // a lot in which more was found than was written gave nothing
  const pieces = sum((b) => Math.max(0, b.taken ?? b.came ?? 0));
  const [begun, out] = [sum((b) => b.begun), sum((b) => b.out)];
  const went = `${count(pieces, "piece")} went to ${count(list.length, "run")}`;
  if (begun === 0) return `${went}, of which no board is begun.`;
  return `${went} with ${count(begun, "board")}; which of those ${begun === 1 ? "has one" : "have one"} is not written down. ${
    out === 0 ? "None of them went out yet." : `${out} of the ${begun} went out.`
  }`;
}
