import type { RunDocument, RunResult, StageKey } from "@kobbin/core";
import { count, fixed, mm } from "../ui/format.ts";
import type { MarkKind } from "../ui/Mark.tsx";

/** A stage of the spine; later ones keep their place. */
export interface StageRow {
  readonly key: StageKey | "receive" | "build";
  readonly label: string;
  readonly isLater?: boolean;
}

/** The stages in working order. */
export const STAGES: readonly StageRow[] = [
  { key: "board", label: "Board" },
  { key: "parts", label: "Parts" },
  { key: "source", label: "Source" },
  { key: "fab", label: "Fab" },
  { key: "panel", label: "Panel", isLater: true },
  { key: "assemble", label: "Assemble" },
  { key: "cost", label: "Cost" },
  { key: "release", label: "Release" },
  { key: "order", label: "Order" },
  { key: "receive", label: "Receive", isLater: true },
  { key: "build", label: "Build", isLater: true },
];

/** State of a stage: blocked, to look at, ready, released; with how many notes make it so. */
export function stateOf(
  stage: StageRow,
  r: RunResult,
  isReleased: boolean,
): { kind: MarkKind; count?: number } {
  if (stage.isLater) return { kind: "later" };
  if (isReleased) return { kind: "frozen" };
  if (stage.key === "release") {
    if (r.blockers.length > 0) return { kind: "blocked", count: r.blockers.length };
    const open = r.notes.filter((n) => n.level === "warning" && !n.acceptedBecause).length;
    return open > 0 ? { kind: "look", count: open } : { kind: "ready" };
  }
  if (stage.key === "order") return { kind: "open" };
  const own = r.notes.filter((n) => n.stage === stage.key && !n.acceptedBecause);
  const errors = own.filter((n) => n.level === "error").length;
  if (errors > 0) return { kind: "blocked", count: errors };
  const looks = own.filter((n) => n.level === "warning").length;
  return looks > 0 ? { kind: "look", count: looks } : { kind: "ready" };
}

const METHOD = { iron: "own iron", stencil: "own stencil", house: "by a house" } as const;

/** One line of what the stage holds. */
export function saysOf(key: StageRow["key"], doc: RunDocument, r: RunResult, isReleased: boolean): string {
  const m = doc.boards[0]?.measure;
  switch (key) {
    case "board":
      if (doc.boards.length > 1)
        return `${count(doc.boards.length, "board")}: ${doc.boards.map((b) => (b.perProduct > 1 ? `${b.perProduct} × ${b.name}` : b.name)).join(", ")}`;
      return m?.outline?.widthMm === undefined
        ? m?.outline
          ? "outline open"
          : "no outline"
        : `${mm(m.outline.widthMm)} × ${mm(m.outline.heightMm)} mm, ${count(m.copperLayers, "layer")}`;
    case "parts":
      return `${count(r.parts.length, "line")}, ${Math.round(r.parts.reduce((n, p) => n + p.count, 0))} pieces`;
    case "source":
      return r.basket.suppliers.length === 0
        ? "no offers yet"
        : `${count(r.basket.suppliers.length, "parcel")}, ${r.stages.source.days} days`;
    case "fab":
      return r.house ? `${r.stages.fab.days} days, ${r.house.name}` : "no house";
    case "assemble":
      return `${METHOD[doc.assembly.method]}, ${fixed(r.ownMinutes / 60, 1)} h`;
    case "cost":
      return "test and packing";
    case "release":
      return isReleased
        ? "released"
        : r.blockers.length > 0
          ? count(r.blockers.length, "blocker")
          : "nothing blocks";
    case "order":
      return isReleased ? "package ready" : "after release";
    default:
      return "later";
  }
}
