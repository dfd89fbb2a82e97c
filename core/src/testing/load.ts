import Big from "big.js";
import { refOf } from "../board/pins.ts";
import { nearestPreferred } from "../bom/series.ts";

/** What a part in an output's path carries at the most, and who says so. */
export interface OutputRating {
  /** The part and where it is written. */
  readonly what: string;
  /** Amperes as decimal text. */
  readonly amps: string;
}

/** Whether a rating is of a part: "U3", "U3 pin 2". */
export const isRatingOf = (what: string, ref: string): boolean => what === ref || what.startsWith(`${ref} `);

/** Parts an item goes through of which nobody says what they carry. @param through parts or their pins, as "Q1", "Q1.3" */
export const unratedOf = (through: readonly string[], ratings: readonly OutputRating[]): string[] =>
  [...new Set(through.map(refOf))].filter((ref) => !ratings.some((r) => isRatingOf(r.what, ref)));

/** What an output is to drive, and what is in its path (needs N126). Volts and amperes are decimal text above nothing. */
export interface OutputLoad {
  readonly volts: string;
  readonly kind: "direct" | "alternating";
  /** The planned load. */
  readonly amps: string;
  /** How much of the weakest rating is used at the most; {@link USUAL_SHARE} where nothing is said. */
  readonly share?: number;
  readonly ratings: readonly OutputRating[];
  /** What keeps the output apart from the rest, where something does: a part, and for how many kilovolts it is rated. */
  readonly isolation?: { readonly what: string; readonly kilovolts: string };
}

/** Usual in practice, recalled: warmth, ageing and a data sheet's best case take the rest. */
export const USUAL_SHARE = 0.8;
/** A resistor at its full rating is too hot to stand beside anything: it is taken for twice what it turns to heat (recalled). */
const RESISTOR_ROOM = 2;
/** Beyond these a touch can hurt: volts direct and alternating (extra-low voltage as usually drawn; recalled, local codes decide). */
const SAFE_VOLTS = { direct: 60, alternating: 30 } as const;

/** What an output may carry, what it is tried with, and what may be written on it. */
export interface LoadSaid {
  /** The weakest in the path; undefined where nobody says what anything carries. */
  readonly weakest?: OutputRating;
  /** Amperes it may be used for: the weakest rating times the share, rounded down to two digits. */
  readonly allowed?: string;
  /** Allowed over planned. */
  readonly margin?: number;
  /** The planned load is within what is allowed, above it, above the rating itself, or nothing is known of it. */
  readonly stand: "fits" | "tight" | "over" | "not known";
  /** A resistor that draws at most the planned load, the next of the series of 24; none where that is more than the path carries. */
  readonly test?: {
    readonly ohms: number;
    readonly amps: number;
    readonly watts: number;
    readonly rated: number;
  };
  /** Text for a label; undefined where no rating holds it up. */
  readonly label?: string;
  /** Can hurt whoever touches it. */
  readonly isDangerous: boolean;
}

/**
 * Works an output's load out.
 *
 * Allowed = share × the least rating in the path; test resistor: the least value of the series of 24 (IEC 60063) that is at
 * least V / I, so that it draws V / R ≤ I and turns V² / R to heat (Ohm, Joule). What is allowed is rounded down: a label
 * never promises more than is known.
 *
 * @example loadOf({ volts: "24", kind: "direct", amps: "2", ratings: [{ what: "J3", amps: "2.5" }] }).allowed // "2"
 */
export function loadOf(l: OutputLoad): LoadSaid {
  const [volts, amps] = [Big(l.volts), Big(l.amps)];
  const weakest = [...l.ratings].sort((a, b) => Big(a.amps).cmp(b.amps))[0];
  const allowed = weakest && floored(Big(weakest.amps).times(l.share ?? USUAL_SHARE));
  // judged by what is told: what is rounded down for a label is not to be planned above it either
  const stand = !(weakest && allowed)
    ? "not known"
    : amps.gt(weakest.amps)
      ? "over"
      : amps.gt(allowed)
        ? "tight"
        : "fits";
  const ohms = nearestPreferred(Number(volts.div(amps))).at(-1)!;
  const watts = Number(volts) ** 2 / ohms;
  return {
    ...(weakest && allowed
      ? {
          weakest,
          allowed: allowed.toFixed(),
          margin: Number(allowed.div(amps)),
          label: `${volts.toFixed()} V ${l.kind === "direct" ? "DC" : "AC"}, max. ${allowed.toFixed()} A`,
        }
      : {}),
    stand,
    ...(stand === "over"
      ? {}
      : { test: { ohms, amps: Number(volts) / ohms, watts, rated: RESISTOR_ROOM * watts } }),
    isDangerous: volts.gt(SAFE_VOLTS[l.kind]),
  };
}

/** Two digits, rounded down. */
function floored(n: Big): Big {
  return n.prec(2, Big.roundDown);
}

const short = (n: number): string => String(Number(n.toPrecision(2)));
/** Rounded up to two digits: what a resistor has to stand is never told as less. */
const upward = (n: number): string => Big(n).prec(2, Big.roundUp).toFixed();

/** What an output is tried with, in words for the bench. @example "loaded with 12 Ω rated 96 W or more: 2 A, 48 W of heat" */
export function loadWords(l: OutputLoad): string {
  const { test, weakest } = loadOf(l);
  if (!test) return `not loaded: ${l.amps} A are planned, and ${weakest!.what} carries ${weakest!.amps} A`;
  const ohms = test.ohms >= 1000 ? `${test.ohms / 1000} kΩ` : `${test.ohms} Ω`;
  const amps = test.amps < 0.1 ? `${short(test.amps * 1000)} mA` : `${short(test.amps)} A`;
  return `loaded with ${ohms} rated ${upward(test.rated)} W or more: ${amps}, ${short(test.watts)} W of heat`;
}
