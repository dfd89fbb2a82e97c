import type { Method } from "../../assembly/method.ts";
import { boardKey, Places } from "./boards.ts";
import type { RunDocument } from "./document.ts";
import type { LinePart } from "./parts.ts";
import { isForPaste, isMixed } from "./ways.ts";

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

/** Sides of a run's boards that are done here with paste, those a house does, and all there are parts for paste on. */
export interface RunSides {
  readonly own: PasteSides;
  readonly house: PasteSides;
  readonly all: PasteSides;
}

/** Where every part goes the same way, all sides are the run's way's. */
export function runSides(doc: RunDocument, parts: readonly LinePart[]): RunSides {
  const all = pasteSides(doc, parts);
  if (!isMixed(doc)) return { own: all, house: all, all };
  return { own: pasteSides(doc, parts, "stencil"), house: pasteSides(doc, parts, "house"), all };
}

/**
 * Sides of each design on which parts sit that go on paste. A design whose places nobody knows counts as one side.
 * @param method only parts that go this way; where a design has none, none of its sides
 */
export function pasteSides(doc: RunDocument, parts: readonly LinePart[], method?: Method): PasteSides {
  const places = new Places(doc);
  const wanted = parts.filter((p) => isForPaste(p) && (method === undefined || p.method === method));
  const known = (board: string | undefined) => {
    const sides = new Set<string>();
    let isWanted = method === undefined;
    for (const p of wanted) {
      if (p.line.board !== undefined && board !== undefined && p.line.board !== board) continue;
      isWanted = true;
      for (const ref of p.line.refs) {
        const place = places.of(p.line, ref);
        if (place && (place.board === undefined || board === undefined || place.board === board))
          sides.add(place.side);
      }
    }
    return sides.size > 0 || !isWanted ? sides : new Set(["top"]);
  };
  if (method !== undefined && wanted.length === 0)
    return { ofDesigns: 0, perProduct: 0, both: [], patterns: [] };
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
      isOn || sides === 0
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
