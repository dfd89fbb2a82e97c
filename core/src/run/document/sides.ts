import { boardKey, Places } from "./boards.ts";
import type { RunDocument } from "./document.ts";
import type { LinePart } from "./parts.ts";

/** What one foil is cut from and printed on at once: a board, or the sheet that boards share. */
export interface PastePattern {
  readonly name: string;
  readonly sides: number;
  readonly widthMm?: number;
  readonly heightMm?: number;
}

/** Sides that get paste: each is printed, placed and heated by itself. */
export interface PasteSides {
  /** Over all designs, boards on one sheet together: stencils to cut, set-ups to make. */
  readonly ofDesigns: number;
  readonly patterns: readonly PastePattern[];
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
    return sides.size > 0 ? sides : new Set(["top"]);
  };
  if (doc.boards.length === 0)
    return { ofDesigns: 1, perProduct: 1, both: [], patterns: [{ name: "", sides: 1 }] };
  const sheet = doc.house?.bench ? undefined : doc.choices.panel;
  const each = doc.boards.map((b, i) => {
    const has = known(b.id);
    const isOn = sheet?.places.some((p) => p.board === boardKey(doc, i)) ?? false;
    return { ...b, has, sides: has.size, isOn };
  });
  const onSheet = new Set(each.flatMap((b) => (b.isOn ? [...b.has] : [])));
  const patterns: PastePattern[] = [
    ...(sheet && onSheet.size > 0
      ? [{ name: "the sheet", sides: onSheet.size, widthMm: sheet.widthMm, heightMm: sheet.heightMm }]
      : []),
    ...each.flatMap(({ name, sides, isOn, measure: { outline } }) =>
      isOn
        ? []
        : [
            {
              name,
              sides,
              ...(outline?.widthMm !== undefined && outline.heightMm !== undefined
                ? { widthMm: outline.widthMm, heightMm: outline.heightMm }
                : {}),
            },
          ],
    ),
  ];
  return {
    ofDesigns: patterns.reduce((n, p) => n + p.sides, 0),
    patterns,
    perProduct: Math.max(
      1,
      each.reduce((n, b) => n + b.sides * b.perProduct, 0),
    ),
    both: each.filter((b) => b.sides > 1).map((b) => b.name),
  };
}
