import type { Level } from "../../findings.ts";
import type { Note, StageKey } from "../document/note.ts";

/** What is lost where a check that was left open turns out to be wrong. */
export const LOSSES = {
  built: "boards, parts and hours: it shows on a built board",
  boards: "the lot of boards: it shows when they come",
  parts: "the parts of those lines, and their way again",
  foil: "the foils, and the way of new ones",
  rework: "own hours: every part concerned is mended by hand",
  price: "what prices may have moved since",
  delay: "days: the house stops and asks",
} as const;
export type Loss = keyof typeof LOSSES;

/** How sure it is that something is wrong: measured against a limit, odd enough to be looked at, or only not known. */
export type Sureness = "certain" | "likely" | "unknown";

/** Share of checks left open of each kind that turn out to be wrong: priors, until a shop's own record says otherwise. */
export const WRONG_SHARE: Readonly<Record<Sureness, number>> = { certain: 0.8, likely: 0.15, unknown: 0.05 };

/** What a kind of note puts at stake, and minutes to close it by the cheapest way. */
export interface Stake {
  readonly lose: Loss;
  readonly minutes: number;
  /** As its level says where left out. */
  readonly sure?: Sureness;
}

const at = (lose: Loss, minutes: number, sure?: Sureness): Stake => ({
  lose,
  minutes,
  ...(sure ? { sure } : {}),
});

/** By the beginning of a note's key, the first that fits; what is in none goes by its stage. */
const STAKES: readonly (readonly [RegExp, Stake])[] = [
  [/^footprint-|^pads-without|^part-without|^pin-count/, at("built", 10)],
  [/^learned .* (unknown|ask|not-there)$/, at("built", 10, "unknown")],
  [/^again /, at("boards", 3)],
  [/^right-questions/, at("built", 30, "unknown")],
  [/^(fit|meet|power|floats|decoupling|lesson|learned|erratum|right)/, at("built", 10)],
  [/^body-/, at("boards", 10)],
  [
    /^(layer-missing|drill-missing|missing-|outline-|job-|unknown-|empty-file|not-a-layer|archive-)/,
    at("delay", 5),
  ],
  [/^(role-|side-)guessed|^drill-unit|^unit-assumed|^role-contra/, at("boards", 3, "unknown")],
  // text that is too small is not read; nothing else is lost by it
  [/^house-limit \S+ minLegend/, at("delay", 5)],
  [/^house-limit/, at("boards", 10)],
  [/^(house-unstated|house-guessed|board-size-unknown)/, at("boards", 5, "unknown")],
  [/^(contacts-|castellation-|bevel-|leaded-|thickness-|layers-not)/, at("boards", 5)],
  [/^(option-gave|paid-for)/, at("price", 2)],
  [/^(prices-|rate-missing|house-rate|assembly-rate|quote-|quotation-)/, at("price", 2, "unknown")],
  [/^(foil-|paste-)/, at("foil", 5)],
  [/^rotation-/, at("rework", 3)],
  [/^(placement-|polarity-|mount-|order |bottom-parts|house-parts|way-not|iron-)/, at("rework", 10)],
  [/^(single-source|source-class|shelf-twice)/, at("parts", 5, "unknown")],
  [/^(bom-|mpn-|value-|size-|sum-|rule-|part-|columns-|table-|reference-)/, at("parts", 3)],
];
const OF_STAGE: Readonly<Record<StageKey, Stake>> = {
  board: at("boards", 5),
  parts: at("parts", 3),
  source: at("parts", 3),
  fab: at("boards", 5),
  panel: at("boards", 5),
  assemble: at("rework", 5),
  cost: at("price", 2),
  release: at("delay", 2),
  order: at("delay", 2),
  receive: at("delay", 2),
  build: at("rework", 5),
};
const OF_LEVEL: Readonly<Record<Level, Sureness>> = {
  error: "certain",
  warning: "likely",
  remark: "unknown",
};

/** What a note puts at stake: always something, as what has no row of its own goes by its stage. */
export function stakeOf(n: Pick<Note, "key" | "stage" | "level">): Required<Stake> {
  const stake = STAKES.find(([is]) => is.test(n.key))?.[1] ?? OF_STAGE[n.stage];
  return { ...stake, sure: stake.sure ?? OF_LEVEL[n.level] };
}
