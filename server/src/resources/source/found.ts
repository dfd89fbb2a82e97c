import { createHash } from "node:crypto";
import type { FeedPart } from "@kobbin/contract";
import { type LibraryPart, numberKey, type PartKind, type RunOffer } from "@kobbin/core";

/** A part a supplier named for a line without a number, as it is kept with the offer. */
export interface Found extends FeedPart {
  /** Tells one state of what is said of it from another. */
  readonly print: string;
}

/** An offer as it is stored: for a part of the library, or for one that a supplier named. */
export type StoredOffer = RunOffer & { readonly candidate?: Found };

/** What a supplier said of a part, with its print. */
export function foundOf(p: FeedPart): Found {
  const facts = [p.mpn, p.maker, p.kind, p.package, p.description, ...Object.entries(p.params).flat()];
  return { ...p, print: createHash("sha256").update(JSON.stringify(facts)).digest("hex").slice(0, 24) };
}

/**
 * Offers of parts that suppliers named, with those parts beside the library's own: the core compares them like any other.
 * What the library knows of a number outweighs what a supplier says of it.
 */
export function withFound(
  stored: readonly StoredOffer[],
  own: readonly LibraryPart[],
): { readonly offers: RunOffer[]; readonly library: LibraryPart[] } {
  const byNumber = new Map(own.map((p) => [numberKey(p.mpn), p.id]));
  const found = new Map<string, LibraryPart>();
  const offers = stored.map(({ candidate, ...o }): RunOffer => {
    if (!candidate) return o;
    const key = numberKey(candidate.mpn);
    const part = byNumber.get(key) ?? `found ${key}`.slice(0, 80);
    if (!byNumber.has(key) && !found.has(part)) found.set(part, partOf(part, candidate));
    return { ...o, part };
  });
  return { offers, library: [...own, ...found.values()] };
}

const partOf = (id: string, c: Found): LibraryPart => ({
  id,
  mpn: c.mpn,
  maker: c.maker,
  description: c.description,
  kind: c.kind as PartKind,
  package: c.package,
  params: c.params,
  direction: "",
  moisture: "",
  state: "unknown",
  sheet: "",
  measured: "",
  tried: "",
  found: true,
});
