import type { Micros, Need, Offer, Supplier } from "@kobbin/core";

/** A repeatable random number (mulberry32). */
function random(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A made-up shopping list: prices from fractions of a cent to tens of euro, five steps each, minimums, packs, some small
 * stocks; each supplier has about six lines in ten, every other one ships free from a subtotal on.
 */
export function shopping(
  lines: number,
  suppliers: number,
  boards: number,
  seed: number,
): { needs: Need[]; suppliers: Supplier[] } {
  const r = random(seed);
  const bell = () => Math.sqrt(-2 * Math.log(r() + 1e-12)) * Math.cos(2 * Math.PI * r());
  const money = (euro: number) => (Math.max(1, Math.round(euro * 10_000)) * 100) as Micros;
  const shops = Array.from({ length: suppliers }, (_, s): Supplier => {
    const base = { id: `s${s}`, name: `Supplier ${s + 1}`, shipping: money(6 + Math.round(30 * r())) };
    return s % 2 === 0 ? { ...base, freeFrom: money(40 + Math.round(400 * r())) } : base;
  });
  const needs = Array.from({ length: lines }, (_, l): Need => {
    const perBoard = Math.max(1, Math.round(Math.exp(Math.abs(bell()) * 1.1)));
    const euro = Math.min(40, Math.max(0.004, Math.exp(bell() * 1.7 - 1.2)));
    const need = Math.ceil(perBoard * boards * 1.01);
    const make = (s: number, enough: boolean): Offer => {
      const x = r();
      const moq = euro > 2 || x < 0.55 ? 1 : x < 0.75 ? 10 : x < 0.95 ? 100 : 1000;
      const multiple = moq === 1 ? (r() < 0.9 ? 1 : 5) : r() < 0.5 ? moq : 1;
      let price = euro * (0.85 + 0.4 * r());
      const breaks = [1, 10, 100, 1000, 5000].map((qty) => {
        const step = { qty, price: money(price) };
        price *= 0.78 + 0.17 * r();
        return step;
      });
      const stock = enough
        ? 1_000_000
        : r() < 0.15
          ? Math.floor(r() * 600)
          : Math.floor(Math.exp(7 + 2 * Math.abs(bell())));
      return { id: `${l}.${s}`, supplier: `s${s}`, stock, moq, multiple, breaks };
    };
    const offers = shops.flatMap((_, s) => (r() < 0.6 ? [make(s, false)] : []));
    if (offers.reduce((n, o) => n + o.stock - o.multiple, 0) < need)
      offers.push(make(Math.floor(r() * suppliers), true));
    return { id: String(l), need, offers };
  });
  return { needs, suppliers: shops };
}
