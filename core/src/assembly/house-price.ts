import type { AssemblyPrice } from "../fab/house.ts";
import { toMicros } from "../money/money.ts";
import type { CountedPart } from "./yield.ts";

/** What a house is to do, counted. */
export interface HouseWork {
  /** Sides that are printed and placed, over all designs. */
  readonly sides: number;
  /** Different parts its machine places. */
  readonly unique: number;
  /** Of these, parts that need more than a usual feeder: they come in a tray, a tube or loose. */
  readonly special: number;
  /** Joints of one product on paste, and those soldered by hand. */
  readonly joints: number;
  readonly handJoints: number;
  /** Products. */
  readonly products: number;
}

/** One term of a house's price, micros of its currency. */
export interface HouseTerm {
  readonly label: string;
  readonly micros: number;
  readonly note: string;
  /** Grows with the number of products. */
  readonly perProduct?: boolean;
}

/**
 * Counts what the house does of a bill.
 * @param feederOf what a part is fed from: lines of one number share a feeder
 */
export function houseWork<P extends CountedPart>(
  parts: readonly P[],
  sides: number,
  products: number,
  feederOf: (part: P) => string,
  isSpecial: (feeder: string) => boolean,
): HouseWork {
  const its = parts.filter((p) => p.method === "house" && p.kind !== "loose" && p.count > 0);
  const placed = its.filter((p) => p.kind !== "through");
  const feeders = [...new Set(placed.map(feederOf))];
  const jointsOf = (list: readonly P[]) => list.reduce((n, p) => n + p.count * p.joints, 0);
  return {
    sides: placed.length > 0 ? sides : 0,
    unique: feeders.length,
    special: feeders.filter(isSpecial).length,
    joints: jointsOf(placed),
    handJoints: jointsOf(its.filter((p) => p.kind === "through")),
    products,
  };
}

/**
 * Price of an assembly house: set-up and stencil a side, feeder a different part, joints on paste and by hand; at least
 * its minimum (domain.md 7.5).
 * @example Board K, 8 parts, 2 of them special, 88 and 10 joints: 90.40 and 1.692 a board (EX 7.7)
 */
export function housePrice(p: AssemblyPrice, w: HouseWork): HouseTerm[] {
  const sides = `${w.sides} ${w.sides === 1 ? "side" : "sides"}`;
  const terms: HouseTerm[] = [
    {
      label: "set-up",
      micros: w.sides * toMicros(p.setupPerSide),
      note: `${sides} × ${p.setupPerSide}`,
    },
    {
      label: "stencil",
      micros: w.sides * toMicros(p.stencilPerSide),
      note: `${sides} × ${p.stencilPerSide}`,
    },
    {
      label: "unique parts",
      micros: w.unique * toMicros(p.perUniquePart),
      note: `${w.unique} × ${p.perUniquePart}`,
    },
    ...(p.perSpecialPart !== undefined && w.special > 0
      ? [
          {
            label: "parts in trays, tubes or loose",
            micros: w.special * toMicros(p.perSpecialPart),
            note: `${w.special} × ${p.perSpecialPart}`,
          },
        ]
      : []),
    {
      label: "joints",
      micros: w.products * w.joints * toMicros(p.perJoint),
      note: `${w.products} boards × ${w.joints} × ${p.perJoint}`,
      perProduct: true,
    },
    ...(w.handJoints > 0
      ? [
          {
            label: "joints by hand",
            micros: w.products * w.handJoints * toMicros(p.perHandJoint),
            note: `${w.products} boards × ${w.handJoints} × ${p.perHandJoint}`,
            perProduct: true,
          },
        ]
      : []),
  ];
  const sum = terms.reduce((s, t) => s + t.micros, 0);
  const least = toMicros(p.minCharge);
  return sum < least
    ? [...terms, { label: "up to the least charge", micros: least - sum, note: p.minCharge }]
    : terms;
}
