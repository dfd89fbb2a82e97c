/** Pieces by their weight, and how many more or fewer the scale leaves open. */
export type Weighed = { readonly pieces: number; readonly openTo: number } | { readonly wrong: string };

/**
 * Counts by weight: n = (all − empty) / (some / k), for k pieces weighed together (domain.md 9.3).
 *
 * What is open comes from the scale alone: half a step on each of its readings, so that n lies within n·(step/2)/some for the
 * piece's own weight and step·k/some for the two of all and empty. Pieces that differ among themselves leave more open.
 *
 * @param all with their bag, g; @param empty the bag, g
 * @param some weight of k pieces, g; @param step of the scale, g
 */
export function countByWeight(all: number, empty: number, some: number, k: number, step: number): Weighed {
  if (![all, empty, some, k, step].every((v) => Number.isFinite(v)) || !(some > 0) || !(step > 0))
    return { wrong: "Write weights as numbers, the pieces’ own more than nothing." };
  if (!Number.isInteger(k) || k < 1) return { wrong: "Say how many pieces were weighed together." };
  if (empty < 0 || all < empty)
    return { wrong: "The bag alone weighs no more than the bag with its pieces." };
  if (some < step * 10)
    return { wrong: `${k} pieces are too light for this scale: weigh more of them together.` };
  const n = ((all - empty) * k) / some;
  const pieces = Math.round(n);
  return { pieces, openTo: Math.ceil((n * step) / 2 / some + (step * k) / some - 1e-9) };
}
