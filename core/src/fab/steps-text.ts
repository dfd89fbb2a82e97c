import type { FabPrice } from "./house.ts";

type Pairs = { readonly pairs: readonly (readonly [number, number])[] } | { readonly wrong: string };

/** Pairs of numbers as they are typed: `0: 1, 10: 0.82`. A decimal comma stands between digits, others between pairs. */
function readPairs(text: string, example: string): Pairs {
  const pairs: (readonly [number, number])[] = [];
  for (const part of text.split(/[;\n]|,(?!\d)/).map((s) => s.trim())) {
    if (part === "") continue;
    const found = /^(\d+(?:[.,]\d+)?)\s*[:=×x]\s*(\d+(?:[.,]\d+)?)$/.exec(part);
    if (!found) return { wrong: `“${part}” is no step, such as ${example}.` };
    pairs.push([Number(found[1]!.replace(",", ".")), Number(found[2]!.replace(",", "."))]);
  }
  const firsts = pairs.map(([a]) => a);
  const twice = firsts.find((a, i) => firsts.indexOf(a) !== i);
  if (twice !== undefined) return { wrong: `${twice} is named twice.` };
  if (pairs.some(([, f]) => f <= 0)) return { wrong: "A factor is more than 0." };
  return { pairs };
}

const joined = (pairs: readonly (readonly [number, number])[]): string =>
  pairs.map(([a, b]) => `${a}: ${b}`).join(", ");

/** Steps of the area price as they are typed: from so many dm² on, times a factor. */
export const tiersText = (tiers: FabPrice["tiers"]): string =>
  joined(tiers.map((t) => [t.fromDm2, t.factor]));

/** Reads them; in rising order, whatever the order they were typed in. */
export function readTiers(text: string): { readonly tiers: FabPrice["tiers"] } | { readonly wrong: string } {
  const read = readPairs(text, "10: 0.82");
  if ("wrong" in read) return read;
  return {
    tiers: [...read.pairs].sort((a, b) => a[0] - b[0]).map(([fromDm2, factor]) => ({ fromDm2, factor })),
  };
}

/** Lead times as they are typed: so many days, times a factor. */
export const leadText = (lead: FabPrice["lead"]): string => joined(lead.map((l) => [l.days, l.factor]));

/**
 * Reads them, in the order they were typed: the first is the usual one. What a time of so many days hung on stays with it.
 *
 * @param before what stood there
 */
export function readLead(
  text: string,
  before: FabPrice["lead"],
): { readonly lead: FabPrice["lead"] } | { readonly wrong: string } {
  const read = readPairs(text, "12: 1");
  if ("wrong" in read) return read;
  if (read.pairs.length === 0) return { wrong: "A house has one lead time at least." };
  const part = read.pairs.find(([days]) => !Number.isInteger(days) || days > 1000);
  if (part) return { wrong: `${part[0]} is no whole number of days up to 1000.` };
  return {
    lead: read.pairs.map(([days, factor]) => {
      const when = before.find((l) => l.days === days)?.when;
      return { days, factor, ...(when ? { when } : {}) };
    }),
  };
}
