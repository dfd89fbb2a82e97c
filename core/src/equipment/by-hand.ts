import type { PackageClass } from "../assembly/package-class.ts";
import type { Alloy } from "../heat/window.ts";
import { brokenWords, type Equipment, mindWords, type Tip, type ToolVerdict } from "./equipment.ts";

/** Which tips suit a kind of joint, widths in mm, and why. */
export interface TipWish {
  readonly shapes: readonly Tip["shape"][];
  readonly mm: readonly [number, number];
  readonly why: string;
}

/**
 * Tips by kind of package: as wide as the land, and with enough metal for what draws its heat away.
 * Recalled from practice; what the maker of the iron or the part says comes first. Nothing for what no tip reaches.
 */
export const TIPS: Readonly<Record<PackageClass, TipWish | undefined>> = {
  chip: { shapes: ["chisel", "bevel"], mm: [1, 2], why: "as wide as the land" },
  chip0402: { shapes: ["chisel", "bevel", "cone"], mm: [0.4, 1], why: "no wider than the land" },
  chip0201: { shapes: ["cone", "chisel"], mm: [0.2, 0.6], why: "no wider than the land" },
  diode: { shapes: ["chisel", "bevel"], mm: [1, 2.4], why: "as wide as the land" },
  small: { shapes: ["chisel", "bevel", "cone"], mm: [0.4, 1.6], why: "one lead at a time" },
  tab: { shapes: ["chisel", "knife"], mm: [2.4, 5], why: "the tab draws the heat away" },
  gull: { shapes: ["bevel", "chisel", "knife"], mm: [1, 3], why: "drawn along the leads, with flux" },
  gullFine: { shapes: ["bevel", "knife"], mm: [1, 3], why: "drawn along the leads, with much flux" },
  leadless: undefined,
  ball: undefined,
  connector: { shapes: ["chisel", "bevel"], mm: [1.2, 2.4], why: "contacts draw heat into their body" },
  through: { shapes: ["chisel"], mm: [1.6, 3.2], why: "heats land and lead together" },
  loose: undefined,
};

/** Temperature of a tip by the alloy of its wire, °C (trade range, recalled; the wire's sheet comes first). */
export const TIP_C: Readonly<Record<Alloy, readonly [number, number]>> = {
  lead: [310, 340],
  silver: [340, 370],
  bismuth: [230, 270],
};

export const tipWords = (t: Tip): string => `${t.shape} ${t.mm} mm`;
const wishWords = (w: TipWish): string => `${w.shapes.join(" or ")} of ${w.mm[0]} to ${w.mm[1]} mm`;
const suits = (w: TipWish, t: Tip): boolean =>
  w.shapes.includes(t.shape) && t.mm >= w.mm[0] && t.mm <= w.mm[1];

/** How a kind of joint is soldered by iron with what the shop has. */
export interface TipChoice {
  /** The tip to take: one the shop has where one suits, else which kind it should be. */
  readonly words: string;
  /** The shop lists irons with their tips, and none of those suits. */
  readonly isMissing: boolean;
}

/** The tip for a kind of package; undefined where no tip reaches its joints. @param irons of the shop, in their order */
export function tipFor(kind: PackageClass, irons: readonly Equipment[]): TipChoice | undefined {
  const wish = TIPS[kind];
  if (!wish) return undefined;
  const here = irons.filter((e) => e.state === "ready" && (e.facts.tips ?? []).length > 0);
  for (const iron of here) {
    // of those that suit the widest: it brings the heat
    const tip = iron.facts.tips!.filter((t) => suits(wish, t)).sort((a, b) => b.mm - a.mm)[0];
    if (tip)
      return {
        words: `${tipWords(tip)}${irons.length > 1 ? ` of ${iron.name}` : ""}, ${wish.why}`,
        isMissing: false,
      };
  }
  return { words: `${wishWords(wish)}, ${wish.why}`, isMissing: here.length > 0 };
}

/** Whether an iron gets hot enough for its wire. */
export function ironVerdict(e: Equipment, alloy: Alloy): ToolVerdict {
  const { mostC } = e.facts;
  const cold = mostC !== undefined && mostC < TIP_C[alloy][0];
  const no = [
    ...brokenWords(e),
    ...(cold ? [`gets ${mostC} °C, the wire wants ${TIP_C[alloy].join(" to ")} °C`] : []),
  ];
  const open = mostC === undefined ? ["how hot its tip gets is not said"] : [];
  return {
    name: e.name,
    can: no.length > 0 ? "no" : open.length > 0 ? "unknown" : "yes",
    words: [...no, ...open, ...mindWords(e)],
  };
}

/** What one sees with, the weakest first (domain.md 7.2); times it magnifies at least. */
export const AIDS = [
  { times: 1, word: "the naked eye" },
  { times: 2, word: "a head magnifier (× 2 to 3)" },
  { times: 5, word: "a bench lens (× 5)" },
  { times: 7, word: "a microscope (× 7 to 20)" },
] as const;
export type Aid = (typeof AIDS)[number];

const LEVEL: Readonly<Record<PackageClass, 0 | 1 | 2 | 3>> = {
  chip: 1,
  chip0402: 2,
  chip0201: 3,
  diode: 0,
  small: 1,
  tab: 0,
  gull: 1,
  gullFine: 2,
  leadless: 2,
  ball: 3,
  connector: 0,
  through: 0,
  loose: 0,
};

/**
 * What is needed to see the joints of a package (domain.md 7.2: smallest part by aid): chips of 0805 and larger and leads
 * 1.27 mm apart are seen by eye; a name without a size counts as the least its class may have.
 */
export function aidFor(kind: PackageClass, packageText: string): Aid {
  const isEasy =
    (kind === "chip" && /(^|\D)(0805|1206|1210|1812|2010|2512)(\D|$)/.test(packageText)) ||
    (kind === "gull" && /SOIC|SO-?(8|14|16)\b/i.test(packageText));
  return AIDS[isEasy ? 0 : LEVEL[kind]]!;
}

/** The strongest aid a shop lists that is not out of order; undefined where it lists none, so that nothing is known. */
export function bestSight(all: readonly Equipment[]): Equipment | undefined {
  return all
    .filter((e) => e.kind === "eyes" && e.state === "ready" && e.facts.magnifies !== undefined)
    .sort((a, b) => b.facts.magnifies! - a.facts.magnifies!)[0];
}
