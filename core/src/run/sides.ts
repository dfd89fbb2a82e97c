import { Places } from "./boards.ts";
import type { RunDocument } from "./document.ts";
import type { LinePart } from "./parts.ts";

/** Sides that get paste: each is printed, placed and heated by itself. */
export interface PasteSides {
  /** Over all designs: stencils to cut, set-ups to make. */
  readonly ofDesigns: number;
  /** Over all boards of one product: prints and heats for each. */
  readonly perProduct: number;
  /** Names of designs with parts on both sides. */
  readonly both: readonly string[];
}

/**
 * Sides of each design on which parts sit that go on paste. A design whose places nobody knows counts as one side.
 */
export function pasteSides(doc: RunDocument, parts: readonly LinePart[]): PasteSides {
  const places = new Places(doc);
  const onPaste = parts.filter((p) => p.kind !== "loose" && p.kind !== "through" && p.line.mount !== "hand");
  const known = (board: string | undefined) => {
    const sides = new Set<string>();
    for (const p of onPaste) {
      if (p.line.board !== undefined && board !== undefined && p.line.board !== board) continue;
      for (const ref of p.line.refs) {
        const place = places.of(p.line, ref);
        if (place && (place.board === undefined || board === undefined || place.board === board))
          sides.add(place.side);
      }
    }
    return Math.max(1, sides.size);
  };
  if (doc.boards.length === 0) return { ofDesigns: 1, perProduct: 1, both: [] };
  const each = doc.boards.map((b) => ({ name: b.name, perProduct: b.perProduct, sides: known(b.id) }));
  return {
    ofDesigns: each.reduce((n, b) => n + b.sides, 0),
    perProduct: Math.max(
      1,
      each.reduce((n, b) => n + b.sides * b.perProduct, 0),
    ),
    both: each.filter((b) => b.sides > 1).map((b) => b.name),
  };
}
