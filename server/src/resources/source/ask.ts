import {
  type Alternate,
  type ClassRules,
  candidatesFor,
  isUnnamed,
  type LibraryPart,
  lineKey,
  numberKey,
  type PartFacts,
  type RunLine,
  ruleOf,
  shapes,
} from "@kobbin/core";
import { askOutside, type Reader, readHere } from "../../outside/index.ts";
import { foundOf } from "./found.ts";
import type { NewOffer, SupplierRow } from "./queries.ts";

/** A number to ask for, and the lines it is for; with the part where it is not the line's own number. */
export interface Wanted {
  readonly mpn: string;
  readonly lines: readonly { readonly lineId: string; readonly partId?: string }[];
}

/**
 * What suppliers are asked for: the number of every fitted line, and of what may stand in for it (approved, or equal
 * to what a line without a number asks for), or is being thought of, so that its price is known before it is decided.
 */
export function wantedOf(
  lines: readonly RunLine[],
  library: readonly LibraryPart[],
  alternates: readonly Alternate[],
  rules: ClassRules,
): Wanted[] {
  const out = new Map<string, { mpn: string; lines: { lineId: string; partId?: string }[] }>();
  const want = (mpn: string, lineId: string, partId?: string) => {
    const key = numberKey(mpn);
    const w = out.get(key) ?? { mpn, lines: [] };
    w.lines.push({ lineId, ...(partId ? { partId } : {}) });
    out.set(key, w);
  };
  for (const l of lines) {
    if (l.dnp) continue;
    if (l.mpn !== "") want(l.mpn, l.id);
    for (const c of candidatesFor(l, library, alternates, { rules }))
      if (c.isUsable || (c.decided && c.decided.state !== "refused")) want(c.part.mpn, l.id, c.part.id);
  }
  return [...out.values()];
}

/** What lines without a number ask for, alike ones together. */
export interface WantedRule {
  readonly id: string;
  readonly facts: PartFacts;
  readonly lines: readonly string[];
}

/**
 * The rules suppliers are asked for any part for: those of lines without a number, and of lines whose number they do not
 * list, of which something of the same value and package may stand in once somebody approves it.
 *
 * @param unlisted lines whose own number was asked for and is not sold
 */
export function rulesWanted(
  all: readonly RunLine[],
  rules: ClassRules,
  unlisted: ReadonlySet<string> = new Set(),
): WantedRule[] {
  const out = new Map<string, { id: string; facts: PartFacts; lines: string[] }>();
  const lines = all.map((l) => (unlisted.has(l.id) ? { ...l, mpn: "" } : l));
  for (const l of lines.filter(isUnnamed)) {
    const rule = ruleOf(l, rules);
    const key = lineKey(l);
    if (!("facts" in rule) || key === undefined) continue;
    const w = out.get(key) ?? { id: key, facts: rule.facts, lines: [] };
    w.lines.push(l.id);
    out.set(key, w);
  }
  return [...out.values()];
}

/** Parts of one supplier that are kept for a rule: it may name many, the first are its own best. */
const MOST_FOUND = 12;

/**
 * Asks one supplier for any part that does what some rules ask. Only what is of the class and stated in a form that can be
 * compared is kept; whether it does is decided where it is used. One that cannot be asked so says nothing.
 */
export async function searchSupplier(
  url: string,
  supplier: SupplierRow,
  wanted: readonly WantedRule[],
  today: string,
  patienceMs: number,
  read: Reader = readHere,
): Promise<NewOffer[]> {
  const until = performance.now() + patienceMs;
  const offers: NewOffer[] = [];
  for (let i = 0; i < wanted.length; i += 50) {
    const some = new Map(wanted.slice(i, i + 50).map((w) => [w.id, w]));
    const rules = [...some.values()].map(({ id, facts: { kind, package: body, params } }) => ({
      id,
      kind,
      package: body,
      params,
    }));
    const answer = await askOutside(url, {
      method: "POST",
      path: ["suppliers", supplier.feedKey ?? "", "search"],
      body: { rules },
      patienceMs: Math.max(1, until - performance.now()),
    });
    if (answer.status === 404) return offers;
    const { found } = await read(answer, "found");
    for (const { id, parts } of found)
      for (const { part, offers: list } of parts.slice(0, MOST_FOUND)) {
        const w = some.get(id);
        const candidate = foundOf(part);
        if (!w || shapes.candidateShape(candidate, "") || part.kind !== w.facts.kind) continue;
        for (const lineId of w.lines)
          for (const { mpn: _, ...o } of list)
            offers.push({
              ...o,
              lineId,
              candidate,
              supplierId: supplier.id,
              source: "feed",
              capturedOn: today,
            });
      }
  }
  return offers;
}

/** What one feed said. */
export interface Answered {
  readonly offers: readonly NewOffer[];
  /** Lines whose own number it does not list. */
  readonly notListed: readonly string[];
}

/**
 * Asks one supplier's feed. @throws OutsideError in words for the person: what went wrong
 * @param patienceMs for all of it
 */
export async function askSupplier(
  url: string,
  supplier: SupplierRow,
  wanted: readonly Wanted[],
  today: string,
  patienceMs: number,
  read: Reader = readHere,
): Promise<Answered> {
  const until = performance.now() + patienceMs;
  const byKey = new Map(wanted.map((w) => [numberKey(w.mpn), w]));
  const offers: NewOffer[] = [];
  const notListed: string[] = [];
  // a feed takes so many numbers at a time
  for (let i = 0; i < wanted.length; i += 200) {
    const answer = await askOutside(url, {
      method: "GET",
      path: ["suppliers", supplier.feedKey ?? "", "offers"],
      query: wanted.slice(i, i + 200).map((w) => ["mpn", w.mpn] as const),
      patienceMs: Math.max(1, until - performance.now()),
    });
    const body = await read(answer, "feed");
    for (const o of body.offers)
      for (const { lineId, partId } of byKey.get(numberKey(o.mpn))?.lines ?? [])
        offers.push({
          ...o,
          lineId,
          ...(partId ? { partId } : {}),
          supplierId: supplier.id,
          source: "feed",
          capturedOn: today,
        });
    for (const m of body.notListed)
      notListed.push(...(byKey.get(numberKey(m))?.lines ?? []).filter((l) => !l.partId).map((l) => l.lineId));
  }
  return { offers, notListed };
}

/** How long a supplier or a house is waited for that is asked something. */
export const PATIENCE_MS = 8000;
