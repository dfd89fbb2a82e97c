/** Powders by their type: the largest ball of it, µm (recalled from J-STD-005). */
export const POWDERS = [
  { type: 3, ballMm: 0.045 },
  { type: 4, ballMm: 0.038 },
  { type: 5, ballMm: 0.025 },
] as const;
/** The narrowest opening is at least so many balls wide. */
const BALLS = 5;

/** Share that is wiped off and misprinted, and what stays on the foil when a run is printed by hand, g (domain.md 2.7). */
export const WIPED = 0.3;
export const BEAD_G = 15;

/** Sizes paste is sold in, g; the usual ones, to be changed for what the shop buys. */
export const PACKS = [
  { grams: 15, label: "syringe of 15 g" },
  { grams: 35, label: "syringe of 35 g" },
  { grams: 250, label: "pot of 250 g" },
  { grams: 500, label: "pot of 500 g" },
] as const;

/** The paste a run takes. */
export interface PasteNeed {
  readonly perBoardG: number;
  readonly runG: number;
  /** Type of powder; nothing where even the finest is too coarse. */
  readonly powder?: number;
  /** Packs to buy, the fewest grams too many; nothing where nothing is printed. */
  readonly packs: readonly { readonly label: string; readonly count: number }[];
}

/** The coarsest powder whose largest ball goes {@link BALLS} times into the narrowest opening. */
export const powderFor = (narrowestMm: number): number | undefined =>
  POWDERS.find((p) => narrowestMm >= BALLS * p.ballMm - 1e-9)?.type;

/**
 * Paste of a run printed by hand: N·m·(1 + w) + what stays on the foil, for each foil (domain.md 2.7).
 *
 * @param perBoardG grams on one board, over its sides
 * @param boards printed
 * @param foils each keeps its own bead
 * @example 0.05524 g on each of 30 boards: 17.15 g (EX 2.13)
 */
export function pasteNeed(perBoardG: number, boards: number, foils: number, narrowestMm: number): PasteNeed {
  const runG = perBoardG > 0 ? boards * perBoardG * (1 + WIPED) + foils * BEAD_G : 0;
  const powder = powderFor(narrowestMm);
  return { perBoardG, runG, ...(powder === undefined ? {} : { powder }), packs: packsFor(runG) };
}

/** The packs that cover a weight with the least too much; of equal ones the fewest. */
function packsFor(grams: number): PasteNeed["packs"] {
  if (grams <= 0) return [];
  const largest = PACKS.at(-1)!.grams;
  const whole = Math.max(0, Math.floor(grams / largest) - 1);
  const rest = grams - whole * largest;
  // two pots of 250 g are as much as one of 500 g, which comes first
  let best: { counts: number[]; over: number } | undefined;
  const most = PACKS.map((p) => Math.ceil(rest / p.grams));
  for (let a = 0; a <= Math.min(most[0]!, 3); a++)
    for (let b = 0; b <= Math.min(most[1]!, 4); b++)
      for (let c = 0; c <= Math.min(most[2]!, 2); c++)
        for (let d = 0; d <= most[3]!; d++) {
          const counts = [a, b, c, d];
          const got = counts.reduce((n, k, i) => n + k * PACKS[i]!.grams, 0);
          if (got < rest - 1e-9) continue;
          const over = got - rest;
          if (!best || over < best.over - 1e-9) best = { counts, over };
        }
  const counts = best!.counts.map((k, i) => (i === PACKS.length - 1 ? k + whole : k));
  return counts.flatMap((count, i) => (count > 0 ? [{ label: PACKS[i]!.label, count }] : []));
}
