/** A small generator of repeatable randomness (mulberry32), with what writers of made-up files ask of it. */
export function chance(seed: number) {
  let a = seed >>> 0;
  const next = (): number => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (n: number) => Math.floor(next() * n);
  return {
    next,
    below,
    pick: <T>(list: readonly T[]): T => list[below(list.length)]!,
    is: (probability: number) => next() < probability,
    shuffled<T>(list: readonly T[]): T[] {
      const out = [...list];
      for (let i = out.length - 1; i > 0; i--) {
        const k = below(i + 1);
        [out[i], out[k]] = [out[k]!, out[i]!];
      }
      return out;
    },
  };
}

export type Chance = ReturnType<typeof chance>;
