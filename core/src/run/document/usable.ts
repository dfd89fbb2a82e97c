import { isTaped } from "../../assembly/attrition.ts";
import { numberKey } from "../../bom/number.ts";
import { candidatesFor } from "../../library/candidates.ts";
import type { Offer } from "../../sourcing/offer.ts";
import type { RunDocument, RunLine } from "./document.ts";
import type { LinePart } from "./parts.ts";
import type { RunNeed } from "./run-need.ts";
import { assemblyHouse } from "./who-places.ts";

/** What pieces come in. */
export type Packing = "strip" | "reel" | "tray" | "loose" | "unsaid";

/**
 * What an offer's pieces come in, from its words. A tray stands for all that feeds a machine without tape: tubes, sticks.
 * @example packingOf("cut tape") // "strip"
 */
export function packingOf(packaging: string): Packing {
  const text = packaging.toLowerCase();
  if (/reel|ammo/.test(text)) return "reel";
  if (/tray|tube|stick/.test(text)) return "tray";
  if (/cut|strip|tape/.test(text)) return "strip";
  if (/bag|bulk|loose/.test(text)) return "loose";
  return "unsaid";
}

/** The packings a line's parts may not come in, since the house that places them does not take them. */
export function refusedPackings(doc: RunDocument, part: LinePart): readonly Packing[] {
  const house = part.method === "house" && isTaped(part.kind) ? assemblyHouse(doc)?.assembly : undefined;
  if (!house) return [];
  return house.takes === "reels" ? ["strip", "loose"] : ["loose"];
}

/** The offers of all lines of a group that may be bought; what the feed said of each line is one offer. */
export function together(
  doc: RunDocument,
  group: readonly LinePart[],
  offers: ReadonlyMap<string, readonly Offer[]>,
): Offer[] {
  const out = new Map<string, Offer>();
  const refused = new Set(group.flatMap((p) => refusedPackings(doc, p)));
  const packings =
    refused.size === 0
      ? undefined
      : new Map(doc.offers.map((o) => [o.id, packingOf(o.packaging ?? "")] as const));
  // what is salvaged comes from the shelf, or not at all
  for (const p of group.filter((g) => g.line.origin !== "salvaged")) {
    const list = offers.get(p.line.id) ?? [];
    const usable = list.some((o) => o.part !== undefined) ? usableParts(doc, p.line) : undefined;
    for (const o of list) {
      if (o.part !== undefined && !usable?.has(o.part)) continue;
      if (packings && refused.has(packings.get(o.id) ?? "unsaid")) continue;
      const number = numberOf(doc, p.line, o);
      const steps = o.breaks.map((b) => `${b.qty}:${b.price}`).join(",");
      const pool = `${o.supplier} ${number} ${o.stock} ${o.moq} ${o.multiple} ${steps}`;
      // the same pieces packed otherwise at a fee: never the cheaper way
      const old = out.get(pool);
      if (!old || (o.fee ?? 0) < (old.fee ?? 0)) out.set(pool, { ...o, pool });
    }
  }
  return [...out.values()];
}

const numberOf = (doc: RunDocument, line: RunLine, o: Offer): string =>
  numberKey(o.part === undefined ? line.mpn : (doc.library?.find((p) => p.id === o.part)?.mpn ?? o.part)) ||
  line.id;

/** Parts whose offers count for a line beside those of its own number. */
export const usableParts = (doc: RunDocument, line: RunLine): ReadonlySet<string> =>
  new Set(
    candidatesFor(line, doc.library ?? [], doc.alternates ?? [], { rules: doc.workshop.rules })
      .filter((c) => c.isUsable)
      .map((c) => c.part.id),
  );

/** Leaves the pool to offers that several purchases have: nobody else can take the others' pieces. */
export function pooled(needs: readonly RunNeed[]): RunNeed[] {
  const count = new Map<string, number>();
  for (const n of needs) for (const o of n.offers) count.set(o.pool!, (count.get(o.pool!) ?? 0) + 1);
  return needs.map((n) => ({
    ...n,
    offers: n.offers.map((o) => {
      if (count.get(o.pool!)! > 1) return o;
      const { pool: _, ...alone } = o;
      return alone;
    }),
  }));
}
