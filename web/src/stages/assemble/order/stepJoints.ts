import type { PlanOfRun, RunResult, StepsDocument } from "@kobbin/core";
import { type JointLook, lookOf } from "../../../proof/joints/jointLook.ts";

type Row = StepsDocument["steps"][number];
type Parts = RunResult["parts"];

/** Steps at whose end joints can be looked at: what is only placed has none yet. */
const HAS_JOINTS = new Set(["iron", "heat", "inspect"]);

/** How the joints of a step look, by line: of its own parts, or of all that were pasted or soldered here before it. */
export function jointLooks(
  row: Row,
  { sheet }: Pick<PlanOfRun, "sheet">,
  parts: Parts,
): Map<string, JointLook> {
  if (!HAS_JOINTS.has(row.kind)) return new Map();
  const lines =
    row.kind === "iron"
      ? row.lines
      : sheet.steps
          .filter(
            (s) => s.n < row.n && (row.kind === "inspect" || (s.kind === "place" && s.side === row.side)),
          )
          .flatMap((s) => (s.kind === "place" || s.kind === "iron" ? s.lines : []));
  return new Map(
    lines.flatMap((l) => {
      const part = parts.find((p) => p.line.id === l.line);
      const look = part && lookOf(part.kind);
      return look ? [[l.line, look] as const] : [];
    }),
  );
}

/** The one there are most of; the first of several. */
export function mostOf<T>(list: readonly T[]): T | undefined {
  const many = new Map<T, number>();
  for (const v of list) many.set(v, (many.get(v) ?? 0) + 1);
  return [...many].reduce<readonly [T, number] | undefined>(
    (a, b) => (a && a[1] >= b[1] ? a : b),
    undefined,
  )?.[0];
}
