import { faultsOf } from "../../assembly/fault-prior.ts";
import type { LinePart } from "../document/parts.ts";
import type { PieceMark, RunSitting } from "../document/sitting.ts";
import type { Piece } from "./sitting.ts";

/** What a look at the joints of a line is marked by at the bench: no piece is called so. */
export const eyeName = (line: string): string => `eye ${line}`;

/**
 * Lines whose joints are looked at, one press each, those first of which a part is likeliest bad: expected defects a piece
 * (domain.md 7.4). What has no joints is not looked at; a line that is soldered in several ways is looked at once.
 */
export function eyePieces(parts: readonly LinePart[]): Piece[] {
  const worst = new Map<string, number>();
  for (const p of parts) {
    if (p.joints === 0) continue;
    const each = faultsOf(p) / Math.max(1, p.count);
    worst.set(p.line.id, Math.max(each, worst.get(p.line.id) ?? 0));
  }
  return [...worst]
    .sort(([a, x], [b, y]) => y - x || a.localeCompare(b))
    .map(([line]): Piece => ({ name: eyeName(line), line, nth: 1, of: 1 }));
}

/** What the eye says of a board, apart from what its tests say (X13). */
export interface ByEye {
  /** Nothing is in doubt and all was looked at; something is in doubt; not looked at to the end. */
  readonly stand: "good" | "doubt" | "open";
  /** Lines in doubt. */
  readonly doubts: readonly string[];
}

/**
 * How a board looks by its latest look at each line, over all steps at which one looks. Said to be done as a whole, every line
 * that nothing was said of is taken as good.
 *
 * @param steps of the order of work
 * @returns undefined where nobody looks anywhere
 */
export function byEye(
  steps: readonly { readonly n: number; readonly kind: string }[],
  pieces: readonly Piece[],
  sittings: readonly Pick<RunSitting, "unit" | "step" | "marks" | "isDone">[],
  unit: number,
): ByEye | undefined {
  const looks = steps.filter((s) => s.kind === "inspect");
  if (looks.length === 0) return undefined;
  const own = looks.flatMap((s) => sittings.find((x) => x.unit === unit && x.step === s.n) ?? []);
  const last = (p: Piece): PieceMark | undefined =>
    own.findLast((s) => s.marks[p.name] !== undefined)?.marks[p.name];
  const doubts = pieces.flatMap((p) => (last(p) === "doubt" ? [p.line] : []));
  const isLooked =
    own.at(-1)?.isDone === true || pieces.every((p) => last(p) === "done" || last(p) === "doubt");
  return { stand: doubts.length > 0 ? "doubt" : own.length > 0 && isLooked ? "good" : "open", doubts };
}

/**
 * The two verdicts of a board in words: what was measured does not see a joint that barely holds, what was looked at does not
 * see whether it works.
 */
export function bothWords(
  tests: "pass" | "fail" | "open" | "none",
  eye: ByEye | undefined,
): string | undefined {
  if (!eye) return undefined;
  if (tests === "pass" && eye.stand === "doubt")
    return "It works, and does not look as if it will last: try it for longer before it leaves, keep it, or promise less.";
  if (tests === "pass" && eye.stand === "open")
    return "It works; nobody has looked at its joints to the end.";
  if (tests === "fail" && eye.stand === "good")
    return "Its joints look good: look for a part, a program or the design first.";
  return undefined;
}
