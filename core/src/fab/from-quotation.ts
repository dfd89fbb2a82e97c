import { AppError } from "../errors.ts";
import { type Micros, microsToText, toMicros } from "../money/money.ts";
import type { House, HouseLimits, OptionValue } from "./house.ts";
import type { FabOptionKey } from "./options.ts";
import type { BoardFacts } from "./price.ts";

/** What a house asked for some pieces of one board, as it stands in its quotation. */
export interface FirstPrice {
  readonly pieces: number;
  /** For the boards alone, decimal text: freight and handling stand beside it. */
  readonly boards: string;
}

/** A quotation somebody holds of a house that Kobbin does not know. */
export interface FirstQuotation {
  readonly name: string;
  readonly currency: string;
  /** ISO date. */
  readonly today: string;
  /** The board it was for. */
  readonly board: BoardFacts;
  readonly options: Readonly<Record<FabOptionKey, { readonly value: string; readonly label: string }>>;
  /** For one number of pieces or more: two tell what is paid once from what a board costs, further ones are steps of it. */
  readonly prices: readonly [FirstPrice, ...FirstPrice[]];
  readonly freight: string;
  readonly handling: string;
  readonly leadDays: number;
  readonly transitDays: number;
  /** How late it usually is, days; a guess of the shop's. */
  readonly delayDays: number;
  /** Those it states. */
  readonly limits: HouseLimits;
}

const like = (...values: string[]): OptionValue[] => values.map((value) => ({ value, label: value }));
const inUnit = (unit: string, ...values: string[]): OptionValue[] =>
  values.map((value) => ({ value, label: `${value} ${unit}` }));
/** What boards are usually ordered with, the usual one first: to say what a quotation was for. */
export const USUAL_OPTIONS: Readonly<Record<FabOptionKey, readonly OptionValue[]>> = {
  thickness: inUnit("mm", "1.6", "0.6", "0.8", "1.0", "1.2", "2.0", "2.4"),
  copper: inUnit("µm", "35", "18", "70", "105"),
  finish: [
    { value: "levelled-lead-free", label: "levelled solder, lead-free" },
    { value: "immersion-gold", label: "immersion gold" },
    { value: "hard-gold", label: "hard gold" },
    { value: "organic", label: "organic preservative" },
    { value: "levelled-leaded", label: "levelled solder, leaded" },
  ],
  mask: like("green", "black", "blue", "red", "white", "yellow"),
  legend: like("white", "black"),
};

/** Share of a single quotation that is taken to be paid once. A guess: only a second quantity tells it. */
export const SETUP_SHARE = 0.5;

/**
 * A house's profile from one quotation, to be grown: priced as quoted, to the cent, for the pieces quoted. What other pieces
 * cost is a line through the two smallest quotations, with further ones as steps; of one, {@link SETUP_SHARE} is taken as set-up. `quotedFor` keeps the pieces, so
 * that a guess can be told. Freight counts as quoted for any weight, steps and least pieces as one.
 *
 * @throws AppError OUT_OF_RANGE where the two quotations are no prices of one house: the same pieces twice, more pieces for
 * less money, or a board that costs more in the larger number
 */
export function houseFromQuotation(q: FirstQuotation): Omit<House, "id"> {
  const dm2 = (q.board.widthMm * q.board.heightMm) / 1e4;
  const refuse = (message: string, hint: string): never => {
    throw new AppError("OUT_OF_RANGE", message, hint);
  };
  if (!(dm2 > 0))
    refuse(
      "The size of this board is not known, so its price says nothing of another one.",
      "Mend its outline first; nothing was kept.",
    );
  const sorted = [...q.prices].sort((a, b) => a.pieces - b.pieces);
  const [few, many, ...further] = sorted as [FirstPrice, FirstPrice?, ...FirstPrice[]];
  const setup = setupOf(few, many, refuse);
  const rate = Math.round((toMicros(few.boards) - setup) / (few.pieces * dm2)) as Micros;
  const tiers = further.map((p) => ({
    fromDm2: dm2 * p.pieces,
    factor: (toMicros(p.boards) - setup) / (rate * dm2 * p.pieces),
  }));
  if (tiers.some((t) => !(t.factor >= 0 && Number.isFinite(t.factor))))
    refuse(
      "The larger numbers of boards cost less than what is paid once by the two smallest.",
      "Look at the table again; leave the odd row out.",
    );
  const layers = Math.max(1, q.board.layers);
  const key = String(layers <= 2 ? 2 : layers);
  const one = (k: FabOptionKey) => [q.options[k]];
  return {
    name: q.name,
    about: `from its quotation for ${q.prices.map((p) => p.pieces).join(" and ")} boards`,
    currency: q.currency,
    checkedOn: q.today,
    limits: q.limits,
    layers: [layers],
    options: {
      thickness: one("thickness"),
      copper: one("copper"),
      finish: one("finish"),
      mask: one("mask"),
      legend: one("legend"),
    },
    price: {
      setup: { [key]: microsToText(setup) },
      perDm2: { [key]: microsToText(rate) },
      minDm2: 0,
      tiers: [{ fromDm2: 0, factor: 1 }, ...tiers],
      testSetup: "0",
      testPerPiece: "0",
      freeHolesPerDm2: 1e6,
      per1000Holes: "0",
      lead: [{ days: q.leadDays, factor: 1 }],
      freightBase: q.freight,
      freightPerHalfKg: "0",
      transitDays: q.transitDays,
      delaySigmaDays: q.delayDays,
      step: 1,
      minPieces: 1,
      importHandling: q.handling,
    },
    quotedFor: q.prices.map((p) => p.pieces),
  };
}

/** What is paid once: where the line through both prices begins, or the usual share of a single one. */
function setupOf(
  few: FirstPrice,
  many: FirstPrice | undefined,
  refuse: (message: string, hint: string) => never,
): Micros {
  const first = toMicros(few.boards);
  if (!many) return Math.round(first * SETUP_SHARE) as Micros;
  const more = toMicros(many.boards);
  if (few.pieces === many.pieces)
    refuse(
      `Both prices are for ${few.pieces} boards.`,
      "Leave the second one out, or type it for another number.",
    );
  if (more < first)
    refuse(
      `${many.pieces} boards for ${many.boards} are less than ${few.pieces} for ${few.boards}.`,
      "Look at the quotation again; leave one of the prices out where it says so.",
    );
  const setup = first - ((more - first) / (many.pieces - few.pieces)) * few.pieces;
  if (setup < 0)
    refuse(
      `A board costs more among ${many.pieces} than among ${few.pieces}.`,
      "Look at the quotation again; leave one of the prices out where it says so.",
    );
  return Math.round(setup) as Micros;
}
