import type { Method } from "../../assembly/method.ts";
import type { PackageClass } from "../../assembly/package-class.ts";
import type { PastRun } from "../../assembly/prior.ts";
import type { RunAssembly, RunDocument, RunLine, RunPlacement } from "./document.ts";

/** Sides of a board. */
export type BoardSide = RunPlacement["side"];
export const BOARD_SIDES = ["top", "bottom"] as const satisfies readonly BoardSide[];

/** Ways that are said for a side or a line and are another than the run's own. */
const others = ({ method, sides, ways }: RunAssembly): Method[] =>
  [...Object.values(sides ?? {}), ...Object.values(ways ?? {})].filter((m) => m !== method);

/** Whether some side or line goes another way than the run's own. */
export const isMixed = (doc: Pick<RunDocument, "assembly">): boolean => others(doc.assembly).length > 0;

/** Closed runs of the product that tell something of this one: built in the same way, and in that alone; the oldest first. */
export const likeRuns = (doc: Pick<RunDocument, "assembly" | "past">): readonly PastRun[] =>
  (doc.past ?? []).filter((p) => p.method === doc.assembly.method && !p.isMixed);

/** Whether anything may go this way: it is the run's own, or is said for a side or a line. */
export const mayGo = ({ assembly }: Pick<RunDocument, "assembly">, method: Method): boolean =>
  assembly.method === method || others(assembly).includes(method);

/** Whether anything may be melted as paste, here or at a house. */
export const mayHeat = (doc: Pick<RunDocument, "assembly">): boolean =>
  mayGo(doc, "stencil") || mayGo(doc, "house");

/** What decides the way of a part. */
export interface WayOf {
  readonly line: Pick<RunLine, "id">;
  /** It goes through the board, or the bill says that it is put on by hand. */
  readonly isByHand: boolean;
  readonly side: BoardSide;
}

/** Whether something is said of a line's parts on one side alone. */
export const isSided = ({ ways }: RunAssembly, line: Pick<RunLine, "id">): boolean =>
  ways !== undefined && BOARD_SIDES.some((side) => ways[`${line.id} ${side}`] !== undefined);

/**
 * The way of a part: its line's own (of that side, where that is said), else its side's, else the run's. What goes through
 * the board or is put on by hand is done by iron here, unless its line says the house, or the house that places solders hand
 * parts too: paste is no way for it.
 */
export function wayOf(
  { method, handParts, sides, ways }: RunAssembly,
  { line, isByHand, side }: WayOf,
): Method {
  const own = ways?.[`${line.id} ${side}`] ?? ways?.[line.id];
  if (!isByHand) return own ?? sides?.[side] ?? method;
  if (own !== undefined) return own === "house" ? "house" : "iron";
  return method === "house" && handParts === "house" ? "house" : "iron";
}

/** What of a part's way is asked: how it is soldered, and whether it is at all. */
interface Going {
  readonly method: Method;
  readonly kind: PackageClass;
  readonly line: Pick<RunLine, "mount">;
}

/** Whether a part is soldered on a pad and not through the board, and not put on by hand as the bill says. */
export const isForPaste = (p: Going): boolean =>
  p.kind !== "loose" && p.kind !== "through" && p.line.mount !== "hand";

/**
 * The ways a run is set up for. The run's own where all goes it; else those that its parts for paste go, so that a way
 * nothing goes is not paid for.
 */
export function goingWays(doc: Pick<RunDocument, "assembly">, parts: readonly Going[]): ReadonlySet<Method> {
  if (!isMixed(doc)) return new Set([doc.assembly.method]);
  const goes = new Set(
    parts.flatMap((p) => (isForPaste(p) || (p.method === "house" && p.kind !== "loose") ? [p.method] : [])),
  );
  return goes.size > 0 ? goes : new Set(["iron"]);
}

/**
 * Whether a machine places a part of the bill: what the bill says, or, where parts go several ways and a house has some of
 * them, that it is the house's.
 */
export function byMachine(
  doc: Pick<RunDocument, "assembly">,
  parts: readonly (Going & { readonly line: RunLine })[],
): (line: RunLine, ref: string) => boolean {
  const isAny = (l: RunLine) => !l.dnp && l.mount === "machine";
  const placed = parts.filter((p) => p.method === "house" && p.kind !== "loose");
  if (!isMixed(doc) || placed.length === 0) return isAny;
  const its = new Map<string, Set<string>>();
  for (const p of placed) if (p.kind !== "through") its.set(p.line.id, new Set(p.line.refs));
  return (l, ref) => !l.dnp && (its.get(l.id)?.has(ref) ?? false);
}
