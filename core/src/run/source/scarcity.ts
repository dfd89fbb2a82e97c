import { partOfLine } from "../../library/candidates.ts";
import type { PartState } from "../../library/part.ts";
import { withVariant } from "../document/bill/structure.ts";
import type { RunDocument } from "../document/document.ts";
import { lotsFor } from "../needs/needs.ts";
import type { RunResult } from "../stage/result.ts";

/** How long a line's part can be had. */
export interface Scarcity {
  /** Id of the purchase: its first line. */
  readonly line: string;
  readonly lines: readonly string[];
  /** Suppliers that have any, apart from each other. */
  readonly sources: number;
  /** Makers' numbers that may be bought for it. */
  readonly parts: number;
  /** Pieces known to be had: at suppliers and on the own shelf, what may stand in among it. */
  readonly stock: number;
  /** Runs like this one that all known stock would serve. */
  readonly coverRuns: number;
  readonly state: PartState;
}

/**
 * For each purchase of a run: independent sources, cover in runs, its maker's plans; the line that would stop the product
 * first comes first (domain.md 4.7: cover = known stock / need of a run).
 *
 * Stock is what suppliers said last, restricted to offers that may be bought; nobody knows what comes in later.
 */
export function scarcityOf(given: RunDocument, r: Pick<RunResult, "needs">): Scarcity[] {
  const doc = withVariant(given);
  const lines = new Map(doc.lines.map((l) => [l.id, l]));
  const list = r.needs
    .filter((n) => n.whole > 0)
    .map((n): Scarcity => {
      const line = lines.get(n.id)!;
      const inStock = n.listed.filter((o) => o.stock > 0);
      const onShelf = lotsFor(doc, line).reduce((s, l) => s + l.qty, 0);
      const stock = inStock.reduce((s, o) => s + o.stock, 0) + onShelf;
      return {
        line: n.id,
        lines: n.lines,
        sources: new Set(inStock.map((o) => o.supplier)).size,
        parts: new Set(inStock.map((o) => o.part ?? "")).size,
        stock,
        coverRuns: stock / n.whole,
        state: partOfLine(line, doc.library ?? [])?.state ?? "unknown",
      };
    });
  return list.sort((a, b) => a.coverRuns - b.coverRuns || a.sources - b.sources);
}
