import type { ShopErratum } from "@kobbin/contract";
import { reworkedRevision } from "@kobbin/core";

/** The revision a board is by what was done to it: "B + 2 reworks". */
export function effectiveRevision(
  revision: string,
  errata: readonly Pick<ShopErratum, "reworks">[],
  runId: string,
  unit: number,
): string {
  const n = errata.filter((e) =>
    e.reworks.some((r) => r.runId === runId && r.units.some((u) => u.unit === unit && !u.isScrapped)),
  ).length;
  return reworkedRevision(revision, n);
}
