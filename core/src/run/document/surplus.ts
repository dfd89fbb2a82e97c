/** What bare boards that are left can be good for. */
export const SURPLUS = {
  reference: "kept back bare, to look things up and to compare lots",
  nest: "frame around the board that is printed on",
  tray: "tray for the parts of one board",
  practice: "to try the heat and the iron on",
  spare: "for a board that fails",
  gift: "given away",
  sale: "sold bare",
} as const;
/** Purposes in the order in which boards are put by. */
export const PURPOSES = Object.keys(SURPLUS) as readonly SurplusPurpose[];
export type SurplusPurpose = keyof typeof SURPLUS;

/** Boards a nest takes: one on each side of the one that is printed on. */
const NEST = 4;

/**
 * A purpose for each bare board that is left: one is kept back for reference; a nest where paste is printed by hand and enough are there; a
 * tray; two to practise on; the rest are spare.
 */
export function surplusPlan(left: number, isPrinted: boolean): Partial<Record<SurplusPurpose, number>> {
  const out: Partial<Record<SurplusPurpose, number>> = {};
  let n = left;
  const take = (what: SurplusPurpose, count: number, least = 1) => {
    if (n < least) return;
    const k = Math.min(n, count);
    out[what] = k;
    n -= k;
  };
  take("reference", 1);
  if (isPrinted) take("nest", NEST, NEST);
  take("tray", 1);
  take("practice", 2);
  take("spare", n);
  return out;
}
