import { addTo } from "../../../grouped.ts";
import type { RunDocument, RunLine } from "../document.ts";

/** The document with the chosen variant laid over its bill; itself where none is chosen. */
export function withVariant(doc: RunDocument): RunDocument {
  const variant = doc.variants?.find((v) => v.id === doc.choices.variant);
  if (!variant) return doc;
  return {
    ...doc,
    lines: doc.lines.map((l) => {
      const o = variant.overrides[l.id];
      if (!o) return l;
      // references count; a number typed over them is for what has none
      return { ...l, ...o, qty: l.refs.length > 0 ? l.qty : (o.qty ?? l.qty) };
    }),
  };
}

/**
 * How often each line is in one product: its own quantity times those of the made items it belongs to, level by level,
 * and times the boards of its kind in a product.
 * What belongs to an item that is not placed is not there either: 0. A ring of items that belong to each other counts
 * once around and no further.
 */
export function timesInProduct(
  lines: readonly RunLine[],
  boards: readonly { readonly id?: string; readonly perProduct: number }[] = [],
): Map<string, number> {
  const perProduct = new Map(boards.map((b) => [b.id, b.perProduct]));
  const byId = new Map(lines.map((l) => [l.id, l]));
  const out = new Map<string, number>();
  for (const l of lines) {
    let times = l.dnp ? 0 : l.qty;
    const seen = new Set([l.id]);
    let top = l;
    for (let up = byId.get(l.parent ?? ""); up && !seen.has(up.id); up = byId.get(up.parent ?? "")) {
      seen.add(up.id);
      times *= up.dnp ? 0 : up.qty;
      top = up;
    }
    out.set(l.id, times * (top.board === undefined ? 1 : (perProduct.get(top.board) ?? 1)));
  }
  return out;
}

/** Lines in the order of the tree, each with its depth: an item, then what it is made of. */
export function asTree(lines: readonly RunLine[]): { readonly line: RunLine; readonly depth: number }[] {
  const ids = new Set(lines.map((l) => l.id));
  const below = new Map<string, RunLine[]>();
  for (const l of lines) {
    const up = l.parent !== undefined && ids.has(l.parent) ? l.parent : "";
    addTo(below, up, l);
  }
  const out: { line: RunLine; depth: number }[] = [];
  const placed = new Set<string>();
  const walk = (list: readonly RunLine[], depth: number) => {
    for (const line of list) {
      if (placed.has(line.id)) continue;
      placed.add(line.id);
      out.push({ line, depth });
      walk(below.get(line.id) ?? [], depth + 1);
    }
  };
  walk(below.get("") ?? [], 0);
  // what belongs to itself in a ring stands at the end
  walk(lines, 0);
  return out;
}
