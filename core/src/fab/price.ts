import { type Micros, roundMoney, toMicros } from "../money/money.ts";
import { chosenValues, wayOf } from "./fit-options.ts";
import type { BandKey, House } from "./house.ts";
import { bandsOf } from "./limits.ts";
import { measureOfLimit } from "./measures.ts";
import { type FabOptions, NO_EXTRA } from "./options.ts";

/** The facts of a board that its price depends on. */
export interface BoardFacts {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly layers: number;
  readonly holes: number;
  /** Copper share of both sides' area, 0…1; about 0.6 where it is not measured. */
  readonly copperShare: number;
  /** What the price may rise with, by the limit that judges it; what is not measured is left out. */
  readonly fine?: Readonly<Partial<Record<BandKey, number>>>;
}

/** Packing of a parcel, kg. */
export const PACKING_KG = 0.15;

/** Terms of a house's price. */
export type FabTermKey = "setup" | "area" | "holes" | "test" | "lead" | "freight" | "handling";

/** A house's price for a number of pieces. */
export interface FabQuote {
  readonly pieces: number;
  /** Of the parcel, its packing with it. */
  readonly kg: number;
  readonly boards: Micros;
  readonly freight: Micros;
  readonly handling: Micros;
  readonly total: Micros;
  readonly leadDays: number;
  readonly transitDays: number;
  readonly days: number;
  /** Fewer would do, and would cost more. */
  readonly insteadOf?: { readonly pieces: number; readonly total: Micros };
  /** Term by term; what is done with a term goes by its key. */
  readonly sum: readonly {
    readonly key: FabTermKey;
    readonly label: string;
    readonly micros: Micros;
    /** Of it what does not grow with the pieces. */
    readonly fixed: Micros;
    readonly note?: string;
  }[];
}

/**
 * Mass of a bare board in grams: laminate 1.85, copper 8.96, mask 1.3 g/cm³, mask 20 µm a side (domain.md 5.7).
 * @example 50 × 40 × 1.6 mm, 35 µm, share 0.6 → 6.370 g (EX 5.5)
 */
export function boardMassG(
  widthMm: number,
  heightMm: number,
  thicknessMm: number,
  copperUm: number,
  copperShare: number,
): number {
  const areaCm2 = (widthMm * heightMm) / 100;
  const copper = (2 * copperUm) / 1e4;
  const mask = 0.004;
  return areaCm2 * ((thicknessMm / 10 - copper - mask) * 1.85 + copperShare * copper * 8.96 + mask * 1.3);
}

/** Whether a house has prices for boards of so many copper layers; boards of one are made and paid as two. */
export function hasPriceFor(house: House, layers: number): boolean {
  const key = String(layers <= 2 ? 2 : layers);
  return house.price.setup[key] !== undefined && house.price.perDm2[key] !== undefined;
}

/**
 * Estimated price from the house's profile (model and parameters of domain.md 5.5).
 *
 * boards = [setup + option setups + test + A_b·(r·(1 + Σu) + Σr_option)·τ(A_b) + holes over the free density
 * + q·test] · lead factor, rounded to the currency; freight by started half kilograms. Layers the house has no price for
 * ({@link hasPriceFor}) count as two.
 *
 * @param pieces boards ordered, already in the house's steps
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one sum, term by term, as the house writes it
export function fabQuote(house: House, board: BoardFacts, options: FabOptions, pieces: number): FabQuote {
  const p = house.price;
  const key = String(board.layers <= 2 ? 2 : board.layers);
  const bands = bandsOf(house, board.fine ?? {});
  const chosen = [...chosenValues(house, options), ...bands];
  const lead = p.lead.find((l) => l.days === options.leadDays) ?? p.lead[0]!;
  const a = (board.widthMm * board.heightMm) / 1e4;
  const area = a * pieces;
  const billed = Math.max(area, p.minDm2);
  const tier = p.tiers.reduce((f, t) => (billed >= t.fromDm2 ? t.factor : f), 1);
  const uplift = chosen.reduce((s, o) => s + (o.uplift ?? 0), 0);
  const m = (t: string | undefined) => toMicros(t ?? "0");
  const setup = m(p.setup[key] ?? p.setup["2"]);
  const optionSetup = chosen.reduce((s, o) => s + m(o.setup), 0);
  const areaPrice =
    billed *
    (m(p.perDm2[key] ?? p.perDm2["2"]) * (1 + uplift) + chosen.reduce((s, o) => s + m(o.perDm2), 0)) *
    tier;
  const drilling = (Math.max(0, board.holes * pieces - p.freeHolesPerDm2 * area) * m(p.per1000Holes)) / 1000;
  const isTested = options.test !== NO_EXTRA;
  const test = isTested ? m(p.testSetup) + pieces * m(p.testPerPiece) : 0;
  const before = setup + optionSetup + areaPrice + drilling + test;
  // the least area is billed whatever is ordered
  const leastArea = area < p.minDm2 ? areaPrice : 0;
  const once = setup + optionSetup + leastArea + (isTested ? m(p.testSetup) : 0);
  const boards = roundMoney(before * lead.factor, house.currency);
  const grams = boardMassG(
    board.widthMm,
    board.heightMm,
    Number.parseFloat(options.thickness),
    Number.parseFloat(options.copper),
    board.copperShare,
  );
  const kg = (1.08 * pieces * grams) / 1000 + PACKING_KG;
  const way = wayOf(house, options.freight);
  const freight = roundMoney(m(way.base) + Math.ceil(kg / 0.5) * m(way.perHalfKg), house.currency);
  const handling = m(p.importHandling);
  const extraDays = chosen.reduce((d, o) => d + (o.days ?? 0), 0);
  const round = (v: number) => Math.round(v) as Micros;
  return {
    pieces,
    kg,
    boards,
    freight,
    handling,
    total: (boards + freight + handling) as Micros,
    leadDays: lead.days + extraDays,
    transitDays: way.transitDays,
    days: lead.days + extraDays + way.transitDays,
    sum: [
      {
        key: "setup" as const,
        label: "set-up",
        micros: round(setup + optionSetup),
        fixed: round(setup + optionSetup),
        note: "of the house and of the options chosen",
      },
      {
        key: "area" as const,
        label: "area",
        micros: round(areaPrice),
        fixed: round(leastArea),
        note: `${billed.toFixed(2)} dm² billed × rate × ${tier}${bands.map((b) => `; ${b.limits.map(measureOfLimit).join(", ")} below ${b.below} mm${b.uplift ? ` +${Math.round(100 * b.uplift)} %` : ""}`).join("")}`,
      },
      ...(drilling > 0
        ? [
            {
              key: "holes" as const,
              label: "holes over the free density",
              micros: round(drilling),
              fixed: 0 as Micros,
              note: `${Math.round(board.holes / a)} per dm², ${p.freeHolesPerDm2} free`,
            },
          ]
        : []),
      ...(isTested
        ? [
            {
              key: "test" as const,
              label: "electrical test",
              micros: round(test),
              fixed: round(m(p.testSetup)),
            },
          ]
        : []),
      ...(lead.factor !== 1
        ? [
            {
              key: "lead" as const,
              label: "shorter lead time",
              micros: round(boards - before),
              fixed: round(once * (lead.factor - 1)),
              note: `× ${lead.factor} for ${lead.days} days`,
            },
          ]
        : []),
      {
        key: "freight" as const,
        label: "freight",
        micros: freight,
        fixed: freight,
        note: `${kg.toFixed(2)} kg`,
      },
      ...(handling > 0
        ? [{ key: "handling" as const, label: "import handling", micros: handling, fixed: handling }]
        : []),
    ],
  };
}

/** More than this many times the pieces wanted are not ordered, even where that costs less. */
export const MOST_TIMES = 4;

/**
 * Pieces to order: in the house's steps, at least its minimum; more where that costs less in total (EX 5.3), over all
 * steps up to {@link MOST_TIMES} times the pieces that would do. Between the thresholds of the area price the total never
 * falls with the pieces, so the first step at or past each threshold is all there is to try.
 */
export function orderPieces(house: House, board: BoardFacts, options: FabOptions, wanted: number): FabQuote {
  const { step, minPieces, tiers } = house.price;
  const inSteps = (n: number) => Math.max(minPieces, Math.ceil(n / step - 1e-9) * step);
  const first = inSteps(wanted);
  const enough = fabQuote(house, board, options, first);
  const area = (board.widthMm * board.heightMm) / 1e4;
  let best = enough;
  if (area > 0)
    for (const tier of tiers) {
      const pieces = inSteps(tier.fromDm2 / area);
      if (pieces <= first || pieces > MOST_TIMES * first) continue;
      const more = fabQuote(house, board, options, pieces);
      if (more.total < best.total) best = more;
    }
  return best === enough ? best : { ...best, insteadOf: { pieces: first, total: enough.total } };
}
