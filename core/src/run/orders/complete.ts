import type { Method } from "../../assembly/method.ts";
import type { RunDocument } from "../document/document.ts";
import type { AssemblyPlan } from "./assembly-house.ts";

/** What the figures of a run leave out because nothing says its price: while there is any, they are a lower bound. */
export interface Unpriced {
  /** Lines that cannot be bought in full, by name: all of a line's missing pieces cost nothing in the figures. */
  readonly lines: readonly string[];
  /** No house is chosen, so the bare boards cost nothing and take no days. */
  readonly boards: boolean;
  /** A house is to place the parts, and neither a price list nor a quotation says for how much. */
  readonly assembly: boolean;
}

export function unpricedOf(
  doc: RunDocument,
  lines: readonly string[],
  { goes, plan }: { readonly goes: ReadonlySet<Method>; readonly plan: AssemblyPlan | undefined },
): Unpriced {
  return {
    lines,
    boards: doc.boards.length > 0 && doc.house === undefined,
    assembly: goes.has("house") && (plan?.terms.length ?? 0) === 0,
  };
}

/** True where every figure is of all there is to pay. */
export const isComplete = (u: Unpriced): boolean => u.lines.length === 0 && !u.boards && !u.assembly;

/** "3 lines and the bare boards are not priced": what is left out, as a person says it; empty where nothing is. */
export function saysUnpriced(u: Unpriced): string {
  const what = [
    ...(u.lines.length > 0 ? [`${u.lines.length} ${u.lines.length === 1 ? "line" : "lines"}`] : []),
    ...(u.boards ? ["the bare boards"] : []),
    ...(u.assembly ? ["the assembly"] : []),
  ];
  if (what.length === 0) return "";
  const isOne = what.length === 1 && !u.boards && (u.lines.length === 1 || u.assembly);
  const list = what.length === 1 ? what[0]! : `${what.slice(0, -1).join(", ")} and ${what.at(-1)}`;
  return `${list} ${isOne ? "is" : "are"} not priced`;
}

/** The document as if every offer had any number of pieces: its known prices carried on beyond the stock. */
export const withoutStockLimits = (doc: RunDocument): RunDocument => ({
  ...doc,
  offers: doc.offers.map((o) => ({ ...o, stock: ANY_NUMBER })),
});
const ANY_NUMBER = 1_000_000_000;

/** How many things a result leaves out: lines, boards, assembly. */
export const countUnpriced = (r: { readonly unpriced: Unpriced }): number =>
  r.unpriced.lines.length + Number(r.unpriced.boards) + Number(r.unpriced.assembly);
