import type { FeedOffer } from "@kobbin/contract";
import { SUPPLIERS } from "./suppliers.ts";

/** Base price of one piece at a hundred, by part-number beginnings of the made-up makers. */
const KNOWN: readonly (readonly [RegExp, number])[] = [
  [/^OX-R0603-/, 0.008],
  [/^OX-R0402-/, 0.006],
  [/^(OX|QL)-R(0805|1206)-/, 0.011],
  [/^QL-R\d{4}-/, 0.006],
  [/^PW-C\d{4}-.*-(X7R|C0G)$/, 0.021],
  [/^PW-C\d{4}-.*-(X5R|Y5V)$/, 0.016],
  [/^TB-L\d{4}-/, 0.07],
  [/^HB-[HSA]\d{3}-\d+x/, 0.14],
  [/^PW-C0603-(100n|10n|1n|22p)$/, 0.012],
  [/^PW-C0603-1u$/, 0.028],
  [/^PW-C0805-10u$/, 0.055],
  [/^PW-B0805-/, 0.034],
  [/^QL-L0603-/, 0.05],
  [/^QL-X3225-/, 0.31],
  [/^QL-K6$/, 0.09],
  [/^HB-S1K-/, 0.06],
  [/^HB-TV5-/, 0.14],
  [/^HB-N20-/, 0.047],
  [/^HB-F1206-/, 0.16],
  [/^HB-T508-2$/, 0.3],
  [/^HB-T508-4$/, 0.58],
  [/^HB-H254-4$/, 0.12],
  [/^HB-H254-6$/, 0.16],
  [/^HB-M3X8$/, 0.021],
  [/^TB-M4864-/, 1.95],
  [/^TB-TK31-/, 3.4],
  [/^HB-TK40-/, 2.7],
  [/^TB-LV33-/, 0.29],
  [/^TB-RX85-/, 0.82],
  [/^TB-TH11-/, 0.94],
  [/^TB-QB04-/, 0.38],
  [/^AG-CASE-/, 3.1],
  [/^AG-CABLE-/, 1.45],
  [/^AG-BOX-/, 0.42],
  [/^AG-SLEEVE-/, 1.2],
];

/** A number from 0 to below 1 out of a text: the same text, the same number (FNV-1a, 32 bits). */
export function chance(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) >>> 0;
  h ^= h >>> 15;
  h = Math.imul(h, 0x2c1b3c6d) >>> 0;
  h ^= h >>> 12;
  return (h >>> 0) / 4294967296;
}

/** The day the simulation begins: nothing has moved yet. */
export const FIRST_DAY = "2026-11-24";
const daysSince = (day: string) =>
  Math.max(0, Math.round((Date.parse(day) - Date.parse(FIRST_DAY)) / 86_400_000));

/** A factor that wanders a little each day, the same for the same text: up to 1.5 % a day, within a third in all. */
export function drift(text: string, days: number): number {
  let f = 1;
  for (let d = 1; d <= Math.min(days, 400); d++)
    f = Math.min(4 / 3, Math.max(2 / 3, f * (1 + 0.03 * (chance(`${text}|${d}`) - 0.5))));
  return f;
}

const CHARACTER: Readonly<Record<string, { factor: number; lists: number; currency: number }>> = {
  fennimore: { factor: 1.04, lists: 0.94, currency: 1 },
  brindle: { factor: 0.97, lists: 0.72, currency: 1 },
  longreach: { factor: 0.82, lists: 0.86, currency: 1.09 },
  corner: { factor: 1.5, lists: 0.55, currency: 1 },
};

/** Charge of those who wind any quantity on a reel, in their currency. */
const WINDING: Readonly<Record<string, string>> = { fennimore: "6.00", longreach: "5.40" };

/**
 * All that a supplier offers for a part number: as it lies there, and small parts wound on a reel for a charge where
 * somebody does that. Nothing where it is not listed.
 */
export function offersFor(
  supplierKey: string,
  mpn: string,
  seed: string,
  day: string = FIRST_DAY,
): FeedOffer[] {
  const offer = offerFor(supplierKey, mpn, seed, day);
  if (!offer) return [];
  const fee = WINDING[supplierKey];
  return offer.packaging === "cut tape" && fee !== undefined
    ? [offer, { ...offer, packaging: "reel, wound", fee }]
    : [offer];
}

/** What a supplier offers for a part number, or undefined when it does not list it. Deterministic under the seed and the day. */
export function offerFor(
  supplierKey: string,
  mpn: string,
  seed: string,
  day: string = FIRST_DAY,
): FeedOffer | undefined {
  const base = KNOWN.find(([rule]) => rule.test(mpn))?.[1];
  const c = CHARACTER[supplierKey];
  const supplier = SUPPLIERS.find((s) => s.key === supplierKey);
  if (base === undefined || !c || !supplier) return undefined;
  const r = (what: string) => chance(`${seed}|${supplierKey}|${mpn}|${what}`);
  const own = mpn.startsWith("AG-");
  if (own ? supplierKey !== "brindle" : r("lists") > c.lists) return undefined;
  const days = daysSince(day);
  const moved = drift(`${seed}|${supplierKey}|${mpn}`, days);
  const p100 = base * c.factor * (0.93 + 0.16 * r("price")) * c.currency * moved;
  const price = (f: number) => (Math.round(p100 * f * 1e4) / 1e4).toFixed(4).replace(/0{1,2}$/, "");
  const isCheap = base < 0.2;
  const breaks = isCheap
    ? [
        [1, 2.3],
        [10, 1.6],
        [100, 1],
        [500, 0.66],
        [1000, 0.54],
      ]
    : base < 1
      ? [
          [1, 1.5],
          [25, 1.22],
          [100, 1],
          [500, 0.86],
        ]
      : [
          [1, 1.32],
          [10, 1.18],
          [50, 1.06],
          [100, 1],
        ];
  const isScarce = mpn.startsWith("TB-TK31") && supplierKey !== "longreach";
  const full = isScarce
    ? Math.floor(20 + 60 * r("stock"))
    : Math.floor((isCheap ? 4000 : 300) * (0.2 + 3 * r("stock") ** 2));
  // others buy too: each day some, until a delivery fills the shelf again
  const stock = days === 0 ? full : Math.floor(full * (1 - ((days * (0.02 + 0.05 * r("sold"))) % 1)));
  const multiple = isCheap && supplierKey === "longreach" ? 10 : 1;
  const moq = isCheap && supplierKey === "longreach" ? 50 : supplierKey === "brindle" && isCheap ? 10 : 1;
  return {
    mpn,
    stock,
    moq,
    multiple,
    packaging: isCheap ? "cut tape" : base < 1 ? "tube" : "tray",
    currency: supplier.currency,
    breaks: breaks
      .filter(([q]) => q! >= moq || q === breaks[0]![0])
      .map(([qty, f]) => ({ qty: Math.max(qty!, moq), price: price(f!) }))
      .filter((b, i, all) => all.findIndex((x) => x.qty === b.qty) === i),
  };
}
